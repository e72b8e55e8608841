/** Whether a file is a DXF: by its name, or because it begins as one does, with a group 0 (or a comment, group 999), then SECTION. */
export function isDxf(bytes: Uint8Array, source: string): boolean {
  const head = String.fromCharCode(...bytes.subarray(0, 400));
  return (
    /\.dxf$/i.test(source) ||
    /^\s*(999\r?\n[^\n]*\n\s*)*0\r?\n\s*SECTION/.test(head) ||
    head.startsWith('AutoCAD Binary DXF')
  );
}
