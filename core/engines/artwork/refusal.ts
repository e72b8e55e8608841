/** The figures behind why a file cannot be read, by code. */
export interface RefusalFigures {
  'dxf-binary': unknown;
  'dxf-no-entities': unknown;
  'dxf-nothing-drawn': unknown;
  'dxf-too-large': { readonly most: number };
  'font-unknown': { readonly font: string };
  'font-unreadable': { readonly reason: string };
  'hpgl-nothing-drawn': unknown;
  'no-size': unknown;
  'not-a-picture': unknown;
  'not-dxf': { readonly line: number; readonly got: string };
  /** `reason` is the parser's own; null when there is no element at all. */
  'not-xml': { readonly reason: string | null };
  'not-svg': { readonly element: string };
  'pdf-damaged': { readonly reason: string };
  'pdf-encrypted': unknown;
  'pdf-no-page': { readonly page: number; readonly pages: number };
  'pdf-too-long': { readonly most: number };
  'picture-cmyk': unknown;
  /** `kind` is null when it does not even say how large it is. */
  'picture-damaged': { readonly kind: string | null };
  'picture-too-large': { readonly megapixels: number; readonly most: number };
  'too-deep': { readonly most: number };
  'too-many-elements': { readonly most: number };
  'too-many-shapes': { readonly most: number };
}

export type RefusalCode = keyof RefusalFigures;

/** A file that cannot be read: why, with the figures of a sentence about it, and where. What reads for people says it in words. */
export class Refusal<Code extends RefusalCode = RefusalCode> extends Error {
  readonly source: string;
  readonly path: string | undefined;

  constructor(
    readonly code: Code,
    readonly figures: RefusalFigures[Code],
    place: { readonly source: string; readonly path?: string; readonly cause?: unknown },
  ) {
    super(`${code} ${JSON.stringify(figures)}`, { cause: place.cause });
    this.name = 'Refusal';
    this.source = place.source;
    this.path = place.path;
  }
}
