import {
  boundsOf,
  compose,
  CurvesBuilder,
  flatten,
  joinBoxes,
  rotation,
  scaling,
  translation,
  type Box,
  type Curves,
  type Matrix,
} from '../../../geometry/index.js';
import type { Noticed } from '../noticed.js';
import type { Lettering } from './lettering.js';
import type { Artwork, Clip, Paint } from '../artwork.js';
import { letterColours, letterStarts } from './letter-colours.js';
import { joinWords, type JoinedWord } from './join-words.js';
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
  /** Its words whose letters were moved together. */
  readonly joined: readonly JoinedWord[];
}

/**
 * A lettering as an artwork: one paint per letter, its outline placed in mm, the frame as large as what is seen of it.
 * Letters that overlap stay letters here; those of one film become one piece when layers are made.
 */
export function setLettering(given: Lettering, font: Font): Artwork {
  // Fonts have one letter for a letter and an accent that is typed after it.
  const lettering = { ...given, text: given.text.normalize('NFC') };
  const { capHeightMm, trackingPct } = lettering;
  const emMm = capHeightMm / capHeightEm(font);
  const trackingMm = (trackingPct / 100) * capHeightMm;
  const missing = new Set<string>();
  const lines = linesOf(lettering, font, { emMm, trackingMm, missing });
  const place = placer(lettering, lines);
  const bandsOf = letterColours(lettering);
  const reachOf = bandReach(lettering, font, lines);
  const paints: Paint[] = [];
  lines.forEach((line, row) => {
    let x = 0;
    for (const set of line.glyphs) {
      const curves = outlineOf(set);
      if (curves.ops.length > 0) {
        const middle = x + (set.advance * emMm) / 2;
        const onBaseline = place(row, line, middle);
        const matrix = [translation(set.dx * emMm - (set.advance * emMm) / 2, -set.dy * emMm), scaling(emMm)].reduce(
          compose,
          onBaseline,
        );
        const index = line.start + set.index;
        for (const { colour, from, to } of bandsOf(index)) {
          const clips =
            from === -Infinity && to === Infinity
              ? []
              : [bandClip(from, to, reachOf(index), compose(onBaseline, scaling(emMm)))];
          paints.push({
            colour,
            curves,
            matrix,
            how: { kind: 'fill', rule: 'nonzero' },
            clips,
            element: `the letter “${lettering.text[index] ?? ''}”`,
            elementIndex: index,
            mayCross: true,
          });
        }
      }
      x += set.advance * emMm + trackingMm;
    }
  });
  const joined = lines.flatMap((line) => line.joined.map(({ word, byEm }) => ({ word, byMm: byEm * emMm })));
  return {
    ...framed(paints, capHeightMm, noticedOf(lettering, lines, missing), lettering.arc === null),
    ...(joined.length > 0 ? { joined } : {}),
  };
}

/** Heights over the baseline that bands of a letter are measured by, ems. */
interface BandReach {
  readonly bottomEm: number;
  readonly topEm: number;
}

/** Gives what the bands of the letter at an index are measured by: its own outline with its accents, or a flat capital's height. */
function bandReach(
  { bands, colourBy, text }: Lettering,
  font: Font,
  lines: readonly Line[],
): (index: number) => BandReach {
  const capital: BandReach = { bottomEm: 0, topEm: capHeightEm(font) };
  if (colourBy !== 'band' || bands.along === 'line') return () => capital;
  const startOf = letterStarts(text);
  const reaches = new Map<number, BandReach>();
  for (const line of lines) {
    for (const set of line.glyphs) {
      const box = boundsOf(flatten(outlineOf(set), translation(0, -set.dy), FRAME_SHARE).map(({ points }) => points));
      const start = startOf(line.start + set.index);
      const before = reaches.get(start);
      if (box)
        reaches.set(start, {
          bottomEm: Math.min(-box.maxY, before?.bottomEm ?? Infinity),
          topEm: Math.max(-box.minY, before?.topEm ?? -Infinity),
        });
    }
  }
  return (index) => reaches.get(startOf(index)) ?? capital;
}

/** No letter reaches so far from its place, ems. */
const FAR_EM = 20;

/** All between two shares of a letter's height. `matrix` is from ems on its baseline to mm. */
function bandClip(from: number, to: number, { bottomEm, topEm }: BandReach, matrix: Matrix): Clip {
  const at = (share: number) => Math.min(FAR_EM, Math.max(-FAR_EM, bottomEm + share * (topEm - bottomEm)));
  const [low, high] = [-at(from), -at(to)];
  const curves = new CurvesBuilder()
    .add('M', -FAR_EM, high)
    .add('L', FAR_EM, high)
    .add('L', FAR_EM, low)
    .add('L', -FAR_EM, low)
    .add('Z')
    .build();
  return { outlines: [{ curves, matrix, rule: 'nonzero', clips: [] }], clips: [] };
}

function linesOf(
  lettering: Lettering,
  font: Font,
  { emMm, trackingMm, missing }: { emMm: number; trackingMm: number; missing: Set<string> },
): Line[] {
  let start = 0;
  return lettering.text.split('\n').map((text) => {
    const alternates = new Map(
      Object.entries(lettering.alternates).map(([key, feature]) => [Number(key) - start, feature]),
    );
    const { glyphs: set, missing: left } = setLine(font, text, {
      kerning: lettering.kerning,
      ligatures: lettering.ligatures && lettering.trackingPct === 0,
      alternates,
    });
    for (const letter of left) missing.add(letter);
    const { glyphs, joined } = lettering.joinWords
      ? joinWords(text, set, {
          overlapEm: Math.max(OVERLAP_MM, OVERLAP_SHARE * lettering.capHeightMm) / emMm,
          trackingEm: trackingMm / emMm,
          spreadPerEm: spreadOf(lettering, emMm),
        })
      : { glyphs: set, joined: [] };
    const widthMm =
      glyphs.reduce((sum, set) => sum + set.advance * emMm + trackingMm, 0) - (glyphs.length > 0 ? trackingMm : 0);
    const line = { text, start, glyphs, widthMm, joined };
    start += text.length + 1;
    return line;
  });
}

/** Letters that are joined run into each other by this, and by so much of the cap height: where they only touched, a blade would part them. */
const OVERLAP_MM = 0.3;
const OVERLAP_SHARE = 0.015;

/** How much wider letters on an arc stand over their baseline, per em of height. */
function spreadOf({ arc }: Lettering, emMm: number): number {
  return arc ? ((arc.bend === 'up' ? 1 : -1) * emMm) / arc.radiusMm : 0;
}

/** Where a letter's middle on its baseline lies, and how it is turned there. */
function placer(
  { capHeightMm, lineSpacing, align, arc }: Lettering,
  lines: readonly Line[],
): (row: number, line: Line, middleMm: number) => Matrix {
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

function framed(
  paints: readonly Paint[],
  capHeightMm: number,
  noticed: readonly Noticed[],
  isStraight: boolean,
): Artwork {
  // Bands of one letter share its outline.
  const letters = paints.filter(
    (paint, i) => paint.curves !== paints[i - 1]?.curves || paint.matrix !== paints[i - 1]?.matrix,
  );
  const box = letters.reduce<Box | null>(
    (sum, { curves, matrix }) =>
      joinBoxes(sum, boundsOf(flatten(curves, matrix, capHeightMm * FRAME_SHARE).map((line) => line.points))),
    null,
  );
  if (!box) return { widthMm: capHeightMm, heightMm: capHeightMm, paints: [], noticed };
  const toFrame = translation(-box.minX, -box.minY);
  return {
    widthMm: box.maxX - box.minX,
    heightMm: box.maxY - box.minY,
    paints: paints.map((paint) => ({
      ...paint,
      matrix: compose(toFrame, paint.matrix),
      clips: paint.clips.map((clip) => movedClip(clip, toFrame)),
    })),
    ...(isStraight ? { baselineMm: -box.minY } : {}),
    noticed,
  };
}

function movedClip({ outlines, clips }: Clip, matrix: Matrix): Clip {
  return { outlines: outlines.map((outline) => ({ ...outline, matrix: compose(matrix, outline.matrix) })), clips };
}

function noticedOf(
  { arc, lineSpacing, capHeightMm }: Lettering,
  lines: readonly Line[],
  missing: ReadonlySet<string>,
): Noticed[] {
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
export function letterChoices(given: string, font: Font): LetterChoice[] {
  const text = given.normalize('NFC');
  const known = new Map<string, LetterChoice['forms']>();
  const formsOf = (letter: string) => {
    const before = known.get(letter);
    if (before) return before;
    const [plain] = setLine(font, letter, { kerning: false, ligatures: false, alternates: new Map() }).glyphs;
    const others = plain ? alternatesOf(font, letter) : [];
    const forms =
      plain && others.length > 0
        ? [
            { feature: null, curves: outlineOf(plain) },
            ...others.map((other) => ({ feature: other.feature, curves: outlineOf(other) })),
          ]
        : [];
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
