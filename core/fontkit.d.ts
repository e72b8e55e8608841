/* What core uses of the font reader; its published types bring Node's along. Lengths are in the font's own units, y up. */
declare module 'fontkit' {
  export interface FontkitPath {
    readonly commands: readonly {
      readonly command: 'moveTo' | 'lineTo' | 'quadraticCurveTo' | 'bezierCurveTo' | 'closePath';
      readonly args: readonly number[];
    }[];
  }
  export interface FontkitGlyph {
    readonly id: number;
    readonly codePoints: readonly number[];
    readonly advanceWidth: number;
    readonly path: FontkitPath;
    readonly bbox: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };
  }
  export interface FontkitPosition {
    readonly xAdvance: number;
    readonly xOffset: number;
    readonly yOffset: number;
  }
  export interface FontkitFont {
    readonly type: string;
    readonly unitsPerEm: number;
    readonly ascent: number;
    readonly capHeight: number;
    readonly familyName: string | null;
    readonly fullName: string | null;
    readonly availableFeatures: readonly string[];
    hasGlyphForCodePoint(codePoint: number): boolean;
    glyphForCodePoint(codePoint: number): FontkitGlyph;
    /** Tables of the shapers; a font without any of them is laid out letter by letter. */
    readonly GSUB?: unknown;
    readonly GPOS?: unknown;
    readonly morx?: unknown;
    layout(
      text: string,
      features?: Readonly<Record<string, boolean>>,
      script?: string,
      language?: string,
      direction?: 'ltr' | 'rtl',
    ): { readonly glyphs: readonly FontkitGlyph[]; readonly positions: readonly FontkitPosition[] };
  }
  export function create(bytes: Uint8Array): FontkitFont | { readonly fonts: readonly FontkitFont[] };
}
