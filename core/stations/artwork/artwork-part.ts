import type { Lettering, Tracing } from '../../engines/artwork/index.js';

/*
 * What stands on a design: drawings, pictures to be traced, and letterings, each with the maker's decisions about it and its place.
 */

/** A file's untouched bytes, by the id they are kept under. */
export interface Source {
  readonly id: string;
  readonly fileName: string;
  readonly sha256: string;
}

/** Where a part stands on the design, before the surface sizes the whole: its middle in mm, y down; turned clockwise. */
export interface Placement {
  readonly xMm: number;
  readonly yMm: number;
  /** Times its own size. */
  readonly scale: number;
  readonly turnDeg: number;
  readonly mirrored: boolean;
}

interface Placed {
  readonly id: string;
  /** Parts of one group are moved, turned and set out as one; null for a part by itself. */
  readonly group: string | null;
  readonly place: Placement;
}

export interface DrawingPart extends Placed {
  readonly kind: 'drawing';
  readonly source: Source;
  /** Colours that this one is made in others, by the colour it is drawn in. */
  readonly recolour: Readonly<Record<string, string>>;
  /** Of a file with several pages the one that is made, from 1. */
  readonly page: number;
}

export interface PicturePart extends Placed {
  readonly kind: 'picture';
  readonly source: Source;
  /** Colours that this one is made in others, by the colour it is traced in. */
  readonly recolour: Readonly<Record<string, string>>;
  readonly tracing: Tracing;
}

export interface LetteringPart extends Placed {
  readonly kind: 'lettering';
  readonly lettering: Lettering;
  /** The bytes of its font, when it is one that was added. */
  readonly fontSource: Source | null;
}

export type ArtworkPart = DrawingPart | PicturePart | LetteringPart;

/** Where the first part of a job stands. */
export const AT_ORIGIN: Placement = { xMm: 0, yMm: 0, scale: 1, turnDeg: 0, mirrored: false };

export const DEFAULT_TRACING: Tracing = { colours: null, background: 'everywhere', speckMm: 0.8 };

/** A part of its own for a drawing's file. */
export function drawingPart(source: Source): DrawingPart {
  return { kind: 'drawing', id: source.id, group: null, source, recolour: {}, page: 1, place: AT_ORIGIN };
}

/** The same for a picture's, traced as the app sees fit. */
export function picturePart(source: Source): PicturePart {
  return {
    kind: 'picture',
    id: source.id,
    group: null,
    source,
    recolour: {},
    tracing: DEFAULT_TRACING,
    place: AT_ORIGIN,
  };
}

/** The same for words. */
export function letteringPart(id: string, lettering: Lettering): LetteringPart {
  return { kind: 'lettering', id, group: null, lettering, fontSource: null, place: AT_ORIGIN };
}

/** A new lettering, 40 mm high. */
export function newLettering(text: string): Lettering {
  return {
    text,
    font: 'zilla-slab',
    capHeightMm: 40,
    trackingPct: 0,
    lineSpacing: 1.6,
    align: 'centre',
    arc: null,
    kerning: true,
    ligatures: true,
    joinWords: false,
    colourBy: 'all',
    colours: ['#16181a'],
    share: { kind: 'turn' },
    bands: { heights: [], along: 'line' },
    alternates: {},
  };
}

/** The files a part is made from. */
export function sourcesOf(part: ArtworkPart): readonly Source[] {
  if (part.kind === 'lettering') return part.fontSource ? [part.fontSource] : [];
  return [part.source];
}

/**
 * What a maker calls a part: its file's name, or its words. Of parts of the design that would be called alike each has a number: “leaf.svg (2 of 3)”. It is called so on the light table, in every list, and in every
 * sentence; `parts` are all of the design.
 */
export function nameOfPart(part: ArtworkPart, parts: readonly ArtworkPart[]): string {
  const name = ownName(part);
  const alike = parts.filter((other) => ownName(other) === name);
  return alike.length < 2 ? name : `${name} (${alike.findIndex(({ id }) => id === part.id) + 1} of ${alike.length})`;
}

function ownName(part: ArtworkPart): string {
  return part.kind === 'lettering'
    ? `“${part.lettering.text.replace(/\s+/g, ' ').slice(0, 40)}”`
    : part.source.fileName;
}

/**
 * The alternates of letters that are still there after the text was edited: those before the change keep their index, those after it
 * move along.
 */
export function carryAlternates(
  before: string,
  after: string,
  alternates: Lettering['alternates'],
): Lettering['alternates'] {
  let head = 0;
  while (head < Math.min(before.length, after.length) && before[head] === after[head]) head += 1;
  let tail = 0;
  while (tail < Math.min(before.length, after.length) - head && before.at(-1 - tail) === after.at(-1 - tail)) tail += 1;
  const moved = Object.entries(alternates).flatMap(([key, feature]) => {
    const index = Number(key);
    if (index < head) return [[key, feature] as const];
    return index >= before.length - tail ? [[String(index + after.length - before.length), feature] as const] : [];
  });
  return Object.fromEntries(moved);
}
