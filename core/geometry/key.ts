/** A short key of plain data: equal data, equal key (two 32-bit FNV-1a runs over its JSON). */
export function keyOf(...parts: readonly unknown[]): string {
  const text = JSON.stringify(parts);
  let a = 0x811c9dc5;
  let b = 0x2f0b4c47;
  for (let i = 0; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ (c + i), 0x01000193);
  }
  return `${(a >>> 0).toString(16)}${(b >>> 0).toString(16)}`;
}
