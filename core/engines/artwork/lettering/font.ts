import { create, type FontkitFont, type FontkitGlyph } from 'fontkit';
import { CurvesBuilder, type Curves } from '../../../geometry/index.js';
import { Refusal } from '../refusal.js';
import type { Letter } from '../read-given.js';

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
      if (!face || !(face.unitsPerEm > 0) || typeof face.glyphForCodePoint(72).advanceWidth !== 'number') throw new Error('it has no letters');
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

/**
 * Sets one line. Advances and shifts come in ems. Letters that no file of the font has are left out and named in `missing`.
 * `alternates` gives the feature for a letter by its index in the line.
 */
export function setLine(font: Font, line: string, options: { readonly kerning: boolean; readonly ligatures: boolean; readonly alternates: ReadonlyMap<number, string> }): { glyphs: SetGlyph[]; missing: string[] } {
  const features = { kern: options.kerning, liga: options.ligatures, clig: options.ligatures, calt: options.ligatures };
  const glyphs: SetGlyph[] = [];
  const missing: string[] = [];
  for (const run of runsOf(font, line, missing)) {
    const em = run.face.unitsPerEm;
    const { glyphs: set, positions } = run.face.layout(run.text, features);
    let at = run.start;
    set.forEach((plain, i) => {
      const feature = options.alternates.get(at);
      const other = feature ? alternateOf(run.face, plain, feature) : null;
      const glyph = other ?? plain;
      const { xAdvance, xOffset, yOffset } = positions[i]!;
      glyphs.push({ glyph, unitsPerEm: em, index: at, advance: (xAdvance + glyph.advanceWidth - plain.advanceWidth) / em, dx: xOffset / em, dy: yOffset / em });
      at += String.fromCodePoint(...plain.codePoints).length;
    });
  }
  return { glyphs, missing };
}

interface Run {
  readonly face: FontkitFont;
  readonly text: string;
  readonly start: number;
}

/** The line cut where another file of the font has to take over. */
function runsOf({ faces }: Font, line: string, missing: string[]): Run[] {
  const runs: Run[] = [];
  let at = 0;
  for (const letter of line) {
    const face = faces.find((one) => one.hasGlyphForCodePoint(letter.codePointAt(0)!));
    const last = runs.at(-1);
    if (!face) missing.push(letter);
    else if (last?.face === face && last.start + last.text.length === at) runs[runs.length - 1] = { ...last, text: last.text + letter };
    else runs.push({ face, text: letter, start: at });
    at += letter.length;
  }
  return runs;
}

function alternateOf(face: FontkitFont, plain: FontkitGlyph, feature: string): FontkitGlyph | null {
  if (plain.codePoints.length !== 1) return null;
  const [glyph] = face.layout(String.fromCodePoint(...plain.codePoints), { [feature]: true }).glyphs;
  return glyph && glyph.id !== plain.id ? glyph : null;
}

/** The other forms that a font has for one letter, each form once, with the feature that gives it. */
export function alternatesOf(font: Font, letter: string): { readonly feature: string; readonly glyph: FontkitGlyph; readonly unitsPerEm: number }[] {
  const face = font.faces.find((one) => one.hasGlyphForCodePoint(letter.codePointAt(0)!));
  if (!face) return [];
  const seen = new Set([face.layout(letter).glyphs[0]?.id]);
  const found: { feature: string; glyph: FontkitGlyph; unitsPerEm: number }[] = [];
  // What everything is gathered under comes last: the same form is better known by its own name.
  const features = face.availableFeatures.filter((name) => ALTERNATE_FEATURES.test(name)).sort((a, b) => Number(a === 'aalt') - Number(b === 'aalt'));
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
      out.add('C', x + (2 / 3) * (cx - x), y + (2 / 3) * (cy - y), ex + (2 / 3) * (cx - ex), ey + (2 / 3) * (cy - ey), ex, ey);
    } else out.add('Z');
    if (v.length >= 2) [x, y] = [v.at(-2)!, v.at(-1)!];
  }
  return out.build();
}

/** A line of text as outlines, kerned and with its ligatures: what a drawing's own text is set with. */
export function lettersOf(font: Font, text: string): Letter[] {
  return setLine(font, text, { kerning: true, ligatures: true, alternates: new Map() }).glyphs.map((set) => ({ curves: outlineOf(set), index: set.index, advance: set.advance, dx: set.dx, dy: set.dy }));
}
