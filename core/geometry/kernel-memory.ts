/** A page of WebAssembly memory, bytes. */
const PAGE_BYTES = 65_536;
const MEMORY_SECTION = 5;

/**
 * The kernel's WebAssembly with a bound on its memory, bytes: asked for more it fails, instead of taking what the whole machine has. The
 * given bytes stay as they are. @throws RangeError when the module states no bound that could be lowered
 */
export function withMemoryBound(wasm: Uint8Array, mostBytes: number): Uint8Array {
  const out = wasm.slice();
  // After the magic word and the version: sections, each a number, a length, and so many bytes.
  for (let at = 8; at < out.length;) {
    const section = out[at]!;
    const [length, start] = readUnsigned(out, at + 1);
    if (section === MEMORY_SECTION) {
      const [, flagsAt] = readUnsigned(out, start);
      const [flags, leastAt] = readUnsigned(out, flagsAt);
      const [, mostAt] = readUnsigned(out, leastAt);
      if ((flags & 1) === 0) break;
      const [, end] = readUnsigned(out, mostAt);
      writePadded(out, mostAt, end, Math.floor(mostBytes / PAGE_BYTES));
      return out;
    }
    at = start + length;
  }
  throw new RangeError('The WebAssembly module has no bounded memory of its own.');
}

/** An unsigned number of seven bits a byte, the lowest first, and where it ends. */
function readUnsigned(bytes: Uint8Array, from: number): [value: number, end: number] {
  let value = 0;
  for (let at = from, factor = 1; ; at += 1, factor *= 128) {
    value += (bytes[at]! & 127) * factor;
    if (bytes[at]! < 128) return [value, at + 1];
  }
}

/** Writes such a number in the place of another, as long as that was, so that nothing behind it moves. */
function writePadded(bytes: Uint8Array, from: number, end: number, value: number): void {
  let rest = value;
  for (let at = from; at < end; at += 1) {
    bytes[at] = (rest % 128) | (at === end - 1 ? 0 : 128);
    rest = Math.floor(rest / 128);
  }
  if (rest > 0) throw new RangeError('The bound on the memory must be lower than the module’s own.');
}
