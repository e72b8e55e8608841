import { create, type FontkitFont, type FontkitGlyph } from 'fontkit';
import { CurvesBuilder, type Curves } from '../../../geometry/index.js';
import { Refusal } from '../refusal.js';
import type { Typesetter } from '../read-given.js';
import { directedRuns, type DirectedRun } from './line-order.js';

/** A font ready to be set: files that together have its letters, asked in their order. Built by `openFont`. */
export interface Font {
  readonly name: string;
  /** Its weight where it is known, 400 being regular. */
  readonly weight: number | null;
  readonly faces: readonly FontkitFont[];
}

/** A letter as it is set: its outline in font units, y up, and how far the next one stands. */
export interface SetGlyph {
  readonly glyph: FontkitGlyph;
  readonly unitsPerEm: number;
  /** Index of its first letter in the text that was set. */
  readonly index: number;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
}

/** Features that give a single letter another form, in the order in which they are offered. */
const ALTERNATE_FEATURES = /^(salt|ss\d\d|cv\d\d|swsh|cswh|hist|titl|smcp|onum|zero|aalt)$/;

/**
 * Opens a font of one or more files (TTF, OTF, WOFF, WOFF2).
 * @throws Refusal `font-unreadable` when one of them is no font
 */
export function openFont(files: readonly Uint8Array[], source: string, weight: number | null = null): Font {
  const faces = files.map((bytes) => {
    try {
      const font = create(bytes);
      const face = 'fonts' in font ? font.fonts[0] : font;
      // The reader looks into a file only when it is asked for something.
      if (!face || !(face.unitsPerEm > 0) || typeof face.glyphForCodePoint(72).advanceWidth !== 'number')
        throw new Error('it has no letters');
      return face;
    } catch (error) {
      throw new Refusal('font-unreadable', { reason: (error as Error).message }, { source, cause: error });
    }
  });
  return { name: faces[0]!.fullName ?? faces[0]!.familyName ?? source, weight, faces };
}

/** Swashes make an H higher than so many times what the font states of its capitals. */
const SWASHED = 1.08;

/** Height of a flat capital in ems: measured on the H, since what fonts state of it is sometimes wrong. */
export function capHeightEm({ faces }: Font): number {
  const face = faces[0]!;
  const stated = face.capHeight / face.unitsPerEm;
  if (face.hasGlyphForCodePoint(72)) {
    const { minY, maxY } = face.glyphForCodePoint(72).bbox;
    const measured = (maxY - minY) / face.unitsPerEm;
    return stated > 0.4 && measured > SWASHED * stated ? stated : measured;
  }
  return stated || (0.7 * face.ascent) / face.unitsPerEm;
}

interface LineOptions {
  readonly kerning: boolean;
  readonly ligatures: boolean;
  /** The feature for a letter, by its index in the line. */
  readonly alternates: ReadonlyMap<number, string>;
}

/**
 * Sets one line, its letters from left to right as they are seen, whichever way they are read. Advances and shifts come in ems. Letters that
 * no file of the font has are left out and named in `missing`.
 */
export function setLine(font: Font, line: string, options: LineOptions): { glyphs: SetGlyph[]; missing: string[] } {
  const missing: string[] = [];
  return { glyphs: directedRuns(line).flatMap((run) => setRun(font, run, options, missing)), missing };
}

function setRun(
  font: Font,
  { text, start, rightToLeft }: DirectedRun,
  options: LineOptions,
  missing: string[],
): SetGlyph[] {
  const stretches = facesOf(font, text, missing).map((stretch) =>
    setStretch(stretch, start + stretch.start, rightToLeft, options),
  );
  return (rightToLeft ? stretches.reverse() : stretches).flat();
}

function setStretch({ face, text }: Stretch, start: number, rightToLeft: boolean, options: LineOptions): SetGlyph[] {
  const features = { kern: options.kerning, liga: options.ligatures, clig: options.ligatures, calt: options.ligatures };
  const em = face.unitsPerEm;
  const laid = face.layout(text, features, undefined, undefined, rightToLeft ? 'rtl' : 'ltr');
  // Letters come as they are seen, but for a font that has no shaper: there they come as they are read.
  const isSeen = !rightToLeft || Boolean(face.GSUB ?? face.GPOS ?? face.morx);
  const order = laid.glyphs.map((_, i) => (rightToLeft === isSeen ? laid.glyphs.length - 1 - i : i));
  let at = start;
  const set = order.map((i): SetGlyph => {
    const plain = laid.glyphs[i]!;
    const feature = options.alternates.get(at);
    const glyph = (feature ? alternateOf(face, plain, feature) : null) ?? plain;
    const { xAdvance, xOffset, yOffset } = laid.positions[i]!;
    const index = at;
    at = Math.min(at + String.fromCodePoint(...plain.codePoints).length, start + text.length - 1);
    return {
      glyph,
      unitsPerEm: em,
      index,
      advance: (xAdvance + glyph.advanceWidth - plain.advanceWidth) / em,
      dx: xOffset / em,
      dy: yOffset / em,
    };
  });
  return rightToLeft ? set.reverse() : set;
}

/** Part of a run that one file of the font has. */
interface Stretch {
  readonly face: FontkitFont;
  readonly text: string;
  readonly start: number;
}

/** Letters that are not seen by themselves: joiners, marks of direction. */
const UNSEEN = /\p{Default_Ignorable_Code_Point}/u;

/** The text cut where another file of the font has to take over. */
function facesOf({ faces }: Font, line: string, missing: string[]): Stretch[] {
  const stretches: Stretch[] = [];
  let at = 0;
  for (const letter of line) {
    const face = faces.find((one) => one.hasGlyphForCodePoint(letter.codePointAt(0)!));
    const last = stretches.at(-1);
    if (!face) {
      if (!UNSEEN.test(letter)) missing.push(letter);
    } else if (last?.face === face && last.start + last.text.length === at)
      stretches[stretches.length - 1] = { ...last, text: last.text + letter };
    else stretches.push({ face, text: letter, start: at });
    at += letter.length;
  }
  return stretches;
}

function alternateOf(face: FontkitFont, plain: FontkitGlyph, feature: string): FontkitGlyph | null {
  if (plain.codePoints.length !== 1) return null;
  const [glyph] = face.layout(String.fromCodePoint(...plain.codePoints), { [feature]: true }).glyphs;
  return glyph && glyph.id !== plain.id ? glyph : null;
}

/** The other forms that a font has for one letter, each form once, with the feature that gives it. */
export function alternatesOf(
  font: Font,
  letter: string,
): { readonly feature: string; readonly glyph: FontkitGlyph; readonly unitsPerEm: number }[] {
  const face = font.faces.find((one) => one.hasGlyphForCodePoint(letter.codePointAt(0)!));
  if (!face) return [];
  const seen = new Set([face.layout(letter).glyphs[0]?.id]);
  const found: { feature: string; glyph: FontkitGlyph; unitsPerEm: number }[] = [];
  // What everything is gathered under comes last: the same form is better known by its own name.
  const features = face.availableFeatures
    .filter((name) => ALTERNATE_FEATURES.test(name))
    .sort((a, b) => Number(a === 'aalt') - Number(b === 'aalt'));
  for (const feature of features) {
    const [glyph] = face.layout(letter, { [feature]: true }).glyphs;
    if (!glyph || seen.has(glyph.id)) continue;
    seen.add(glyph.id);
    found.push({ feature, glyph, unitsPerEm: face.unitsPerEm });
  }
  return found;
}

/** A letter's outline in ems, y down from the baseline; its strokes may overlap, nonzero fills them. */
export function outlineOf({ glyph, unitsPerEm }: Pick<SetGlyph, 'glyph' | 'unitsPerEm'>): Curves {
  const k = 1 / unitsPerEm;
  const out = new CurvesBuilder();
  let [x, y] = [0, 0];
  for (const { command, args } of glyph.path.commands) {
    const v = args.map((arg, i) => (i % 2 === 0 ? arg * k : -arg * k));
    if (command === 'moveTo') out.add('M', v[0]!, v[1]!);
    else if (command === 'lineTo') out.add('L', v[0]!, v[1]!);
    else if (command === 'bezierCurveTo') out.add('C', v[0]!, v[1]!, v[2]!, v[3]!, v[4]!, v[5]!);
    else if (command === 'quadraticCurveTo') {
      const [cx, cy, ex, ey] = [v[0]!, v[1]!, v[2]!, v[3]!];
      out.add(
        'C',
        x + (2 / 3) * (cx - x),
        y + (2 / 3) * (cy - y),
        ex + (2 / 3) * (cx - ex),
        ey + (2 / 3) * (cy - ey),
        ex,
        ey,
      );
    } else out.add('Z');
    if (v.length >= 2) [x, y] = [v.at(-2)!, v.at(-1)!];
  }
  return out.build();
}

/** How a drawing's own text is set: cut into runs of one direction, each then as outlines, kerned and with its ligatures. */
export const typesetter: Typesetter = {
  directedRuns,
  lettersOf(font, run) {
    const missing: string[] = [];
    const letters = setRun(font, run, { kerning: true, ligatures: true, alternates: new Map() }, missing);
    return {
      letters: letters.map((set) => ({ curves: outlineOf(set), advance: set.advance, dx: set.dx, dy: set.dy })),
      missing,
    };
  },
};
