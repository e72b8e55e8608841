declare module 'subset-font' {
  /** A font with the glyphs of `text` alone, and of its layout the features named. */
  export default function subsetFont(
    font: Uint8Array,
    text: string,
    options: {
      readonly targetFormat: 'woff2';
      readonly keepFeatures: readonly string[];
      readonly variationAxes?: Readonly<Record<string, { readonly min: number; readonly max: number }>>;
    },
  ): Promise<Uint8Array>;
}
