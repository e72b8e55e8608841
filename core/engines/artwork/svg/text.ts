import {
  compose,
  IDENTITY,
  rotation,
  scaling,
  translation,
  type Curves,
  type Matrix,
} from '../../../geometry/index.js';
import type { Font } from '../lettering/font.js';
import type { DirectedRun } from '../lettering/line-order.js';
import type { ReadGiven, Typesetter } from '../read-given.js';
import type { Styles } from './style-rules.js';
import { parseNumbers, parseSvgLength, parseSvgLengths } from './lengths.js';
import { computeStyle, type ComputedStyle } from './style.js';
import { standingOn, type Baseline } from './text-path.js';
import type { XmlElement } from './xml.js';

export { baselineOf } from './text-path.js';

/** A letter of a drawing's text: its outline in ems, its place in user space, and the style it is painted in. */
export interface TextLetter {
  readonly curves: Curves;
  readonly matrix: Matrix;
  readonly style: ComputedStyle;
  readonly element: XmlElement;
}

export interface LaidOutText {
  readonly letters: readonly TextLetter[];
  /** Families that no font is known for. */
  readonly missing: readonly string[];
  /** Fonts that are here in another weight than is asked for: the name, the weight there is, the weight asked for. */
  readonly otherWeights: readonly (readonly [name: string, here: number, asked: number])[];
  /** Letters that their font has not. */
  readonly missingLetters: readonly string[];
}

/** What laying out text needs beside the text itself. */
export interface TextGiven extends ReadGiven {
  readonly styles: Styles;
  /** What percentages are of. */
  readonly viewport: { readonly width: number; readonly height: number };
  /** The path that a textPath names; null when there is none. */
  readonly baselineOf: (element: XmlElement) => Baseline | null;
}

/** A character with all that decides where it goes. */
interface Character {
  readonly text: string;
  readonly style: ComputedStyle;
  readonly element: XmlElement;
  readonly x: number | null;
  readonly y: number | null;
  readonly dx: number;
  readonly dy: number;
  readonly turnDeg: number;
  /** The path it stands on; undefined for text in straight lines, null for a path that is not there. */
  readonly along?: Baseline | null;
}

/** Positions that an element gives to the characters in it, from the first on. */
interface Positions {
  readonly lists: Readonly<Record<'x' | 'y' | 'dx' | 'dy' | 'rotate', readonly number[]>>;
  at: number;
}

/**
 * A `text` element laid out in the fonts at hand, as SVG lays out text: chunks begin where a position is given, or a path, and are
 * anchored at their start, middle or end; between them letters follow each other. Letters beyond the ends of their path are not shown.
 */
export function layOutText(element: XmlElement, style: ComputedStyle, given: TextGiven): LaidOutText {
  const characters = charactersOf(element, style, given, { outer: [], afterBlank: { is: true } });
  // A blank at the very end is none.
  while (characters.at(-1)?.text === ' ' && !keepsBlanks(characters.at(-1)!.element)) characters.pop();
  const lacks: Lacks = { fonts: new Set(), weights: new Map(), letters: new Set() };
  const letters: TextLetter[] = [];
  let [x, y] = [0, 0];
  for (const chunk of chunksOf(characters)) {
    x = chunk[0]!.x ?? x;
    y = chunk[0]!.y ?? y;
    const set = setChunk(chunk, given, lacks);
    const anchor = anchorOf(chunk[0]!.style);
    const { along } = chunk[0]!;
    for (const { at, middle, drop, own, ...letter } of set.letters) {
      const start =
        along === undefined
          ? translation(x + anchor * set.width + at, y + drop)
          : along && standingOn(along, anchor * set.width + at, middle);
      // On a path a letter moved up or down stands off it.
      if (start)
        letters.push({ ...letter, matrix: [along ? translation(0, drop) : IDENTITY, own].reduce(compose, start) });
    }
    if (along !== undefined) continue;
    x += set.width + anchor * set.width;
    y += set.drop;
  }
  return {
    letters,
    missing: [...lacks.fonts],
    otherWeights: [...lacks.weights.values()],
    missingLetters: [...lacks.letters],
  };
}

/** Where a chunk begins, in widths of it from its anchor; text from right to left starts at its right end. */
function anchorOf(style: ComputedStyle): number {
  const fromLeft = { start: 0, middle: -0.5, end: -1 }[style['text-anchor'] as 'start' | 'middle' | 'end'] ?? 0;
  return baseOf(style) === 'rtl' ? -1 - fromLeft : fromLeft;
}

function baseOf(style: ComputedStyle): 'ltr' | 'rtl' {
  return style['direction'] === 'rtl' ? 'rtl' : 'ltr';
}

/** More letters than this in one text are no lettering. */
const MOST_LETTERS = 5000;

/** Whether an element holds more text than anyone cuts. */
export function isTooLong(element: XmlElement): boolean {
  const count = (at: XmlElement): number =>
    at.content.reduce((sum, part) => sum + (typeof part === 'string' ? part.length : count(part)), 0);
  return count(element) > MOST_LETTERS;
}

/** Where the characters of an element come in the text around them. */
interface Within {
  /** Positions that the elements around it give, the nearest first. */
  readonly outer: readonly Positions[];
  /** Whether the character before was a blank, or there was none: a blank after it is none. */
  readonly afterBlank: { is: boolean };
  readonly along?: Baseline | null;
}

/** Whether blanks are kept as they are typed. */
function keepsBlanks(element: XmlElement | null): boolean {
  const own = element?.attributes['xml:space'];
  return own === undefined ? element !== null && keepsBlanks(element.parent) : own === 'preserve';
}

/** White space runs become one blank, with none at the beginning, unless it is kept; what goes takes no position with it. */
function charactersOf(
  element: XmlElement,
  style: ComputedStyle,
  given: TextGiven,
  { outer, afterBlank, along }: Within,
): Character[] {
  const em = Number(style['font-size']);
  const list = (name: string, whole: number) => parseSvgLengths(element.attributes[name] ?? '', whole, em) ?? [];
  const { width, height } = given.viewport;
  const own: Positions = {
    lists: {
      x: list('x', width),
      y: list('y', height),
      dx: list('dx', width),
      dy: list('dy', height),
      rotate: parseNumbers(element.attributes['rotate'] ?? ''),
    },
    at: 0,
  };
  const within = [own, ...outer];
  const keeps = keepsBlanks(element);
  const find = (name: 'x' | 'y' | 'dx' | 'dy') => within.map((p) => p.lists[name][p.at]).find((v) => v !== undefined);
  const turn = () =>
    within.map((p) => p.lists.rotate[Math.min(p.at, p.lists.rotate.length - 1)]).find((v) => v !== undefined) ?? 0;
  const out: Character[] = [];
  for (const part of element.content) {
    if (typeof part !== 'string') {
      if (part.name !== 'tspan' && part.name !== 'a' && part.name !== 'textPath') continue;
      const inner = computeStyle(part, style, given.styles);
      if (inner['display'] !== 'none')
        out.push(
          ...charactersOf(part, inner, given, {
            outer: within,
            afterBlank,
            ...(part.name === 'textPath' ? { along: given.baselineOf(part) } : along === undefined ? {} : { along }),
          }),
        );
      continue;
    }
    for (const text of part.replace(/\r\n|[\r\n\t]/g, ' ')) {
      if (text === ' ' && afterBlank.is && !keeps) continue;
      afterBlank.is = text === ' ';
      const composed = composedWith(out.at(-1), text, element);
      if (composed !== null) {
        out[out.length - 1] = { ...out.at(-1)!, text: composed };
        for (const positions of within) positions.at += 1;
        continue;
      }
      out.push({
        text,
        style,
        element,
        x: find('x') ?? null,
        y: find('y') ?? null,
        dx: find('dx') ?? 0,
        dy: find('dy') ?? 0,
        turnDeg: turn(),
        ...(along === undefined ? {} : { along }),
      });
      for (const positions of within) positions.at += 1;
    }
  }
  return out;
}

/** A letter and an accent typed after it as the one letter that fonts have for both; null where there is none. */
function composedWith(before: Character | undefined, text: string, element: XmlElement): string | null {
  if (!before || before.element !== element || !/^\p{M}$/u.test(text)) return null;
  const composed = `${before.text}${text}`.normalize('NFC');
  return [...composed].length === 1 ? composed : null;
}

function chunksOf(characters: readonly Character[]): Character[][] {
  const chunks: Character[][] = [];
  for (const character of characters) {
    const isElsewhere =
      (character.along === undefined && (character.x !== null || character.y !== null)) ||
      character.along !== chunks.at(-1)?.at(-1)?.along;
    if (chunks.length === 0 || isElsewhere) chunks.push([]);
    chunks.at(-1)!.push(character);
  }
  return chunks;
}

/** A letter of a chunk: how far along and down its origin stands, the middle of its advance, and its own map from ems. */
interface ChunkLetter extends Omit<TextLetter, 'matrix'> {
  readonly at: number;
  readonly drop: number;
  readonly middle: number;
  readonly own: Matrix;
}

/** What a text asks for and there is not, gathered as it is set. */
interface Lacks {
  readonly fonts: Set<string>;
  readonly weights: Map<string, LaidOutText['otherWeights'][number]>;
  readonly letters: Set<string>;
}

function setChunk(
  chunk: readonly Character[],
  given: ReadGiven,
  lacks: Lacks,
): { letters: ChunkLetter[]; width: number; drop: number } {
  const letters: ChunkLetter[] = [];
  let [x, y] = [0, 0];
  if (!given.typesetter) {
    // What fonts it asks for is all that can be said of it.
    for (const { style } of chunk) fontFor(style['font-family']!, given, lacks.fonts);
    return { letters, width: 0, drop: 0 };
  }
  for (const run of runsOf(chunk, given.typesetter)) {
    const { style, element, dx, dy, turnDeg } = run.first;
    x += dx;
    y += dy;
    const font = fontFor(style['font-family']!, given, lacks.fonts);
    if (!font) continue;
    const [asked, here] = [Number(style['font-weight']), font.weight];
    if (here !== null && Math.abs(asked - here) > LIKE_WEIGHT)
      lacks.weights.set(`${font.name} ${asked}`, [font.name, here, asked]);
    const em = Number(style['font-size']);
    const spacing = parseSvgLength(style['letter-spacing'] === 'normal' ? '0' : style['letter-spacing'], em, em) ?? 0;
    const set = given.typesetter.lettersOf(font, run);
    for (const letter of set.missing) lacks.letters.add(letter);
    for (const letter of set.letters) {
      const own = [rotation(turnDeg), scaling(em)].reduce(compose, translation(letter.dx * em, -letter.dy * em));
      if (letter.curves.ops.length > 0)
        letters.push({ curves: letter.curves, at: x, drop: y, middle: (letter.advance * em) / 2, own, style, element });
      x += letter.advance * em + spacing;
    }
  }
  return { letters, width: x, drop: y };
}

/** Characters that are set together: in one direction, of one style, and none of them moved or turned by itself. */
interface StyledRun extends DirectedRun {
  readonly first: Character;
}

/** A chunk's runs, from left to right as they are seen. */
function runsOf(chunk: readonly Character[], { directedRuns }: Typesetter): StyledRun[] {
  const line = chunk.map((c) => c.text).join('');
  const at = new Map<number, Character>();
  chunk.reduce((index, character) => {
    at.set(index, character);
    return index + character.text.length;
  }, 0);
  return directedRuns(line, baseOf(chunk[0]!.style)).flatMap((directed) => {
    const runs: StyledRun[] = [];
    let index = directed.start;
    for (const text of directed.text) {
      const character = at.get(index)!;
      const last = runs.at(-1);
      const moves = character.dx !== 0 || character.dy !== 0 || character.turnDeg !== 0;
      if (!last || moves || last.first.turnDeg !== 0 || last.first.style !== character.style)
        runs.push({ text, start: index, rightToLeft: directed.rightToLeft, first: character });
      else runs[runs.length - 1] = { ...last, text: last.text + text };
      index += text.length;
    }
    return directed.rightToLeft ? runs.reverse() : runs;
  });
}

/** Weights that differ by no more than this look alike. */
const LIKE_WEIGHT = 150;

/** What a family is called that a drawing leaves open. */
const UNNAMED = 'any font';

function fontFor(families: string, given: ReadGiven, missing: Set<string>): Font | null {
  const names = (families || UNNAMED)
    .split(',')
    .map((name) => name.trim().replace(/^["']|["']$/g, ''))
    .filter(Boolean);
  const known = names.find((name) => given.hasFont(name));
  if (known !== undefined) return given.fontOf(known);
  missing.add(names[0] ?? UNNAMED);
  return null;
}

/** Shipped fonts near to what a family's name promises, by id: what can stand in for it. */
export function standIns(family: string): readonly string[] {
  const name = family.toLowerCase();
  if (/script|hand|brush|cursive|callig|swash/.test(name)) return ['pacifico', 'courgette', 'great-vibes'];
  if (/stencil/.test(name)) return ['stardos-stencil', 'saira-stencil-one'];
  if (/slab|mono|courier|typewriter/.test(name)) return ['zilla-slab', 'arvo'];
  if (/round/.test(name)) return ['varela-round', 'nunito', 'fredoka'];
  if (/cond|narrow|compress/.test(name)) return ['barlow-condensed', 'oswald'];
  if (/serif|roman|times|georgia|garamond|bodoni/.test(name) && !/sans/.test(name))
    return ['playfair-display', 'cinzel'];
  return ['archivo', 'work-sans', 'zilla-slab'];
}
