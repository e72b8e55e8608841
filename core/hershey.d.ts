/* The single-stroke letters of the package hershey, which says no types. */
declare module 'hershey' {
  /** The strokes of some text, about its middle; y up, capitals from −9 to 12. Letters that the font lacks leave nothing. */
  export function stringToPaths(text: string): { readonly paths: readonly (readonly (readonly [number, number])[])[] };
}
