declare module 'subset-font' {
  /** A font with the glyphs of `text` alone. */
  export default function subsetFont(font: Uint8Array, text: string, options: { readonly targetFormat: 'woff2'; readonly variationAxes?: Readonly<Record<string, { readonly min: number; readonly max: number }>> }): Promise<Uint8Array>;
}
