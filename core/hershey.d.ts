/* The single-stroke letters of the package hershey, which says no types: its data, since its own reader wants what only Node has. */
declare module 'hershey/lib/rowmans.js' {
  /** A font of strokes, a line a letter, in base64. */
  const rowmans: string | { readonly default: string };
  export default rowmans;
}
declare module 'hershey/lib/characterNumbers.js' {
  /** The number of each letter in the font. */
  const numbers: Readonly<Record<string, number>> | { readonly default: Readonly<Record<string, number>> };
  export default numbers;
}
