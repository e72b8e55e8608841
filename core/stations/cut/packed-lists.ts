/** Lists of whole numbers as bytes (32 bit, little-endian as every machine here has them): how many lists, the length of each, then all of them. */
export function packLists(lists: readonly ArrayLike<number>[]): Uint8Array {
  const out = new Int32Array(1 + lists.length + lists.reduce((sum, list) => sum + list.length, 0));
  out[0] = lists.length;
  let at = 1 + lists.length;
  lists.forEach((list, i) => {
    out[1 + i] = list.length;
    out.set(list, at);
    at += list.length;
  });
  return new Uint8Array(out.buffer);
}

/** The lists again. @throws RangeError when the bytes are cut short */
export function unpackLists(bytes: Uint8Array): Int32Array[] {
  // A copy of its own: what a database gives may lie anywhere in a larger buffer.
  const all = new Int32Array(Uint8Array.from(bytes).buffer);
  const count = all[0]!;
  let at = 1 + count;
  return Array.from({ length: count }, (_, i) => {
    const list = all.subarray(at, at + all[1 + i]!);
    if (list.length !== all[1 + i]) throw new RangeError('A packed list is cut short.');
    at += list.length;
    return list;
  });
}
