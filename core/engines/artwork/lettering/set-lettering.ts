import { boundsOf, compose, flatten, joinBoxes, rotation, scaling, translation, type Box, type Curves, type Matrix } from '../../../geometry/index.js';
import type { Noticed } from '../noticed.js';
import type { Lettering } from './lettering.js';
import type { Artwork, Paint } from '../artwork.js';
import { lettersMissing } from './scripts.js';
import { alternatesOf, capHeightEm, outlineOf, setLine, type Font, type SetGlyph } from './font.js';

/** A lettering's frame is measured on outlines true to this share of the cap height. */
const FRAME_SHARE = 1 / 2000;

interface Line {
  readonly text: string;
  /** Index of its first letter in the whole text. */
  readonly start: number;
  readonly glyphs: readonly SetGlyph[];
  /** From the first letter's origin to the end of the last, in mm. */
  readonly widthMm: number;
}

/**
 * A lettering as an artwork: one paint per letter, its outline placed in mm, the frame as large as what is seen of it.
 * Letters that overlap stay letters here; those of one film become one piece when layers are made.
 */
export function setLettering(lettering: Lettering, font: Font): Artwork {
  const { capHeightMm, trackingPct } = lettering;
  const emMm = capHeightMm / capHeightEm(font);
  const trackingMm = (trackingPct / 100) * capHeightMm;
  const missing = new Set<string>();
  const lines = linesOf(lettering, font, { emMm, trackingMm, missing });
  const place = placer(lettering, lines);
  const colours = colourer(lettering);
  const paints: Paint[] = [];
  lines.forEach((line, row) => {
    let x = 0;
    for (const set of line.glyphs) {
      const curves = outlineOf(set);
      if (curves.ops.length > 0) {
        const middle = x + (set.advance * emMm) / 2;
        const matrix = [translation((set.dx * emMm) - (set.advance * emMm) / 2, -set.dy * emMm), scaling(emMm)].reduce(compose, place(row, line, middle));
        const index = line.start + set.index;
        paints.push({ colour: colours(index), curves, matrix, how: { kind: 'fill', rule: 'nonzero' }, clips: [], element: `the letter “${lettering.text[index] ?? ''}”`, elementIndex: index, mayCross: true });
      }
      x += set.advance * emMm + trackingMm;
    }
  });
  return framed(paints, capHeightMm, noticedOf(lettering, lines, missing));
}

function linesOf(lettering: Lettering, font: Font, { emMm, trackingMm, missing }: { emMm: number; trackingMm: number; missing: Set<string> }): Line[] {
  let start = 0;
  return lettering.text.split('\n').map((text) => {
    const alternates = new Map(Object.entries(lettering.alternates).map(([key, feature]) => [Number(key) - start, feature]));
    const { glyphs, missing: left } = setLine(font, text, { kerning: lettering.kerning, ligatures: lettering.ligatures && lettering.trackingPct === 0, alternates });
    for (const letter of left) missing.add(letter);
    const widthMm = glyphs.reduce((sum, set) => sum + set.advance * emMm + trackingMm, 0) - (glyphs.length > 0 ? trackingMm : 0);
    const line = { text, start, glyphs, widthMm };
    start += text.length + 1;
    return line;
  });
}

/** Where a letter's middle on its baseline lies, and how it is turned there. */
function placer({ capHeightMm, lineSpacing, align, arc }: Lettering, lines: readonly Line[]): (row: number, line: Line, middleMm: number) => Matrix {
  const widest = Math.max(0, ...lines.map((line) => line.widthMm));
  const share = { left: 0, centre: 0.5, right: 1 }[align];
  // From the middle of the widest line, along the baseline.
  const along = (line: Line, middleMm: number) => middleMm + (widest - line.widthMm) * share - widest / 2;
  const stepMm = lineSpacing * capHeightMm;
  if (!arc) return (row, line, middleMm) => translation(along(line, middleMm), row * stepMm);
  return (row, line, middleMm) => {
    // Bent up, lower lines lie nearer the circle's middle; bent down, further from it.
    const radius = Math.max(arc.bend === 'up' ? arc.radiusMm - row * stepMm : arc.radiusMm + row * stepMm, 1e-3);
    const turn = along(line, middleMm) / radius;
    const deg = (turn * 180) / Math.PI;
    return arc.bend === 'up'
      ? compose(translation(radius * Math.sin(turn), arc.radiusMm - radius * Math.cos(turn)), rotation(deg))
      : compose(translation(radius * Math.sin(turn), radius * Math.cos(turn) - arc.radiusMm), rotation(-deg));
  };
}

/** The colour of the letter at an index of the text. */
function colourer({ text, colourBy, colours }: Lettering): (index: number) => string {
  const letters = colourBy === 'letter' ? [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)].filter(({ segment }) => /\S/.test(segment)).map(({ index }) => index) : [];
  const turn = (n: number) => colours[n % colours.length]!;
  const before = (index: number) => text.slice(0, index);
  return (index) => {
    switch (colourBy) {
      case 'all':
        return turn(0);
      case 'line':
        return turn(before(index).split('\n').length - 1);
      case 'word':
        return turn((before(index + 1).match(/\S+/g)?.length ?? 1) - 1);
      case 'letter':
        // An accent typed by itself belongs to its letter.
        return turn(letters.filter((start) => start <= index).length - 1);
    }
  };
}

function framed(paints: readonly Paint[], capHeightMm: number, noticed: readonly Noticed[]): Artwork {
  const box = paints.reduce<Box | null>((sum, paint) => joinBoxes(sum, boundsOf(flatten(paint.curves, paint.matrix, capHeightMm * FRAME_SHARE).map((line) => line.points))), null);
  if (!box) return { widthMm: capHeightMm, heightMm: capHeightMm, paints: [], noticed };
  const toFrame = translation(-box.minX, -box.minY);
  return { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY, paints: paints.map((paint) => ({ ...paint, matrix: compose(toFrame, paint.matrix) })), noticed };
}

function noticedOf({ arc, lineSpacing, capHeightMm }: Lettering, lines: readonly Line[], missing: ReadonlySet<string>): Noticed[] {
  const isTooTight = (bend: NonNullable<Lettering['arc']>) =>
    lines.some((line, row) => {
      const radius = bend.bend === 'up' ? bend.radiusMm - row * lineSpacing * capHeightMm : bend.radiusMm;
      return radius < capHeightMm / 4 || line.widthMm > 2 * Math.PI * radius;
    });
  return [
    ...(missing.size > 0 ? [{ ...lettersMissing([...missing]), count: missing.size }] : []),
    ...(arc && isTooTight(arc) ? [{ code: 'arc-too-tight' } as const] : []),
  ];
}

/** A letter of a lettering that has other forms, each as an outline on a square of one em. */
export interface LetterChoice {
  readonly index: number;
  readonly letter: string;
  readonly forms: readonly { readonly feature: string | null; readonly curves: Curves }[];
}

/** The letters of a text that the font has other forms for, the plain form first. */
export function letterChoices(text: string, font: Font): LetterChoice[] {
  const known = new Map<string, LetterChoice['forms']>();
  const formsOf = (letter: string) => {
    const before = known.get(letter);
    if (before) return before;
    const [plain] = setLine(font, letter, { kerning: false, ligatures: false, alternates: new Map() }).glyphs;
    const others = plain ? alternatesOf(font, letter) : [];
    const forms = plain && others.length > 0 ? [{ feature: null, curves: outlineOf(plain) }, ...others.map((other) => ({ feature: other.feature, curves: outlineOf(other) }))] : [];
    known.set(letter, forms);
    return forms;
  };
  const choices: LetterChoice[] = [];
  let index = 0;
  for (const letter of text) {
    const forms = letter.trim() === '' ? [] : formsOf(letter);
    if (forms.length > 0) choices.push({ index, letter, forms });
    index += letter.length;
  }
  return choices;
}
