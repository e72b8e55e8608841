/** Whether a file is HP-GL: by its name, or because it begins as one does, by starting a plotter, choosing a pen, or driving. */
export function isHpgl(bytes: Uint8Array, source: string): boolean {
  const head = String.fromCharCode(...bytes.subarray(0, 400));
  return (
    /\.(plt|hpgl|hpg)$/i.test(source) ||
    /^\s*(\u001b\S{1,12}\s*)*;*\s*((IN|DF)\s*(;|(SP|PU|PA|PD|VS|FS|IP|SC|DF|IN)\b|(SP|PU|PA|PD|VS|FS|IP|SC)[-\d;])|SP\s*\d|P[UAD]\s*[-\d;])/.test(
      head,
    )
  );
}
