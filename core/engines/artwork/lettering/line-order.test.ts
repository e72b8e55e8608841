import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { boundsOf, flatten, type Box } from '../../../geometry/index.js';
import { newLettering } from '../../../stations/artwork/index.js';
import { withFindings } from '../../../testing/with-findings.js';
import { ArtworkReader, SHIPPED_FONTS, type Artwork, type OtherScript } from '../index.js';
import { directedRuns } from './line-order.js';
import { scriptsIn, setsScriptsOf } from './scripts.js';

const reader = new ArtworkReader(resourcesInNode);
const set = async (text: string, font = 'rubik') =>
  withFindings(await reader.lettering({ ...newLettering(text), font }, null));
const drawn = async (text: string, attributes = '') =>
  withFindings(
    await reader.drawing(
      new TextEncoder().encode(
        `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 100"><text x="200" y="60" font-family="Rubik" font-size="20" font-weight="700" ${attributes}>${text}</text></svg>`,
      ),
      'drawing.svg',
      { joinEndsMm: 0, gradientBands: 1, shines: 'keep', blurs: 'keep', patterns: 'drop', pictures: 'drop', fonts: {} },
    ),
  );
const boxes = ({ paints }: Artwork): Box[] =>
  paints.map((paint) => boundsOf(flatten(paint.curves, paint.matrix, 0.01).map((line) => line.points))!);
/** What letter is seen where, from left to right: found by the outlines' places. */
const seen = (text: string, artwork: Artwork) => {
  const at = boxes(artwork);
  return artwork.paints
    .map((paint, i) => ({ letter: text[paint.elementIndex!]!, x: at[i]!.minX }))
    .sort((a, b) => a.x - b.x)
    .map(({ letter }) => letter)
    .join('');
};
const shown = (line: string, base?: 'ltr' | 'rtl') =>
  directedRuns(line, base)
    .map(({ text, rightToLeft }) => (rightToLeft ? [...text].reverse().join('') : text))
    .join('');

describe('the order of a line', () => {
  // Worked by hand from the rules of UAX 9: the first letter's direction is the line's; figures stay as they are written.
  it.each([
    ['Wick 12', 'Wick 12'],
    ['טל 0123', '0123 לט'],
    ['טל: 0123-456', '0123-456 :לט'],
    ['חנות Wick פתוח', 'חותפ Wick תונח'],
    ['חנות Wick 7', 'Wick 7 תונח'],
    ['Wick חנות 12', 'Wick 12 תונח'],
    ['Wick (חנות)', 'Wick (תונח)'],
    ['חנות (12)', '(12) תונח'],
    ['50% הנחה', 'החנה 50%'],
    ['קו 3.5 ק"ג', 'ג"ק 3.5 וק'],
    ['سعر ١٢٣', '١٢٣ رعس'],
    ['', ''],
  ])('of “%s” is “%s”', (line, expected) => expect(shown(line)).toBe(expected));

  it('is that of the drawing where it states a direction', () => {
    expect(shown('חנות Wick', 'ltr')).toBe('תונח Wick');
    expect(shown('חנות Wick', 'rtl')).toBe('Wick תונח');
  });

  it('is that of Unicode’s own test lines', () => {
    const lines = readFileSync(new URL('conformance/bidi-character-test.txt', import.meta.url), 'utf8')
      .split('\n')
      .filter((line) => line && !line.startsWith('#'));
    expect(lines.length).toBeGreaterThan(900);
    for (const row of lines) {
      const [codePoints, direction, , levels, order] = row.split(';');
      const letters = codePoints!.split(' ').map((hex) => String.fromCodePoint(parseInt(hex, 16)));
      // Every unit of the line, by the letter it belongs to; letters that are not seen have no place.
      const letterAt = letters.flatMap((letter, i) => Array.from(letter.split(''), () => i));
      const isSeen = levels!.split(' ').map((level) => level !== 'x');
      const units = directedRuns(letters.join(''), (['ltr', 'rtl', 'auto'] as const)[Number(direction)]).flatMap(
        ({ text, start, rightToLeft }) => {
          const run = letterAt.slice(start, start + text.length);
          return rightToLeft ? run.reverse() : run;
        },
      );
      const seenAs = units.filter((at, i) => isSeen[at] && at !== units[i - 1]);
      expect(seenAs.join(' '), row).toBe(order);
    }
  });

  it('loses no letter and moves none to another index', () => {
    const letters = ['א', 'ב', 'w', 'K', '1', '2', ' ', '(', ')', '-', 'س', '٣', '😀', '%', '\u200f', '"'];
    let seed = 7;
    const next = (n: number) => (seed = (seed * 48271) % 2147483647) % n;
    for (let round = 0; round < 3000; round++) {
      const line = Array.from({ length: 1 + next(14) }, () => letters[next(letters.length)]!).join('');
      const runs = directedRuns(line);
      expect(runs.map(({ text }) => text.length).reduce((a, b) => a + b, 0)).toBe(line.length);
      const back = [...runs]
        .sort((a, b) => a.start - b.start)
        .map(({ text }) => text)
        .join('');
      const plain = (text: string) => text.replace(/[()]/g, '|');
      expect(plain(back)).toBe(plain(line));
    }
  });
});

describe('a lettering of right-to-left words', () => {
  it.each([
    ['טל 0123', '0123לט'],
    ['חנות Wick 7', 'Wick7תונח'],
    ['Wick חנות', 'Wickתונח'],
  ])('“%s” stands as it is read', async (text, expected) => {
    const artwork = await set(text);
    expect(artwork.findings).toEqual([]);
    expect(seen(text, artwork)).toBe(expected);
  });

  it('turns brackets round', async () => {
    const [plain, turned] = [await set('()'), await set('א()')];
    const widths = (artwork: Artwork) => boxes(artwork).map(({ minX, maxX }) => maxX - minX);
    expect(widths(turned).slice(0, 2)).toEqual(widths(plain).map((width) => expect.closeTo(width, 3)));
    // Seen from the left, the bracket that opens the picture is still “(”.
    const [left] = boxes(turned)
      .map((box, i) => ({ box, paint: turned.paints[i]! }))
      .sort((a, b) => a.box.minX - b.box.minX);
    expect(left!.paint.curves.coords).toEqual(plain.paints[0]!.curves.coords);
  });

  it('joins Arabic letters, also without ligatures', async () => {
    const joined = boxes(await set('ببب', 'cairo'));
    const apart = boxes(await set('ب', 'cairo'));
    expect(joined).toHaveLength(3);
    const width = (all: readonly Box[]) =>
      Math.max(...all.map(({ maxX }) => maxX)) - Math.min(...all.map(({ minX }) => minX));
    expect(width(joined)).toBeLessThan(2.5 * width(apart));
    // Begun, inner and last forms are three outlines.
    expect(new Set((await set('ببب', 'cairo')).paints.map(({ curves }) => curves.coords.join())).size).toBe(3);
  });

  it('colours words as they are read', async () => {
    const artwork = await reader.lettering(
      { ...newLettering('טל 01'), font: 'rubik', colourBy: 'word', colours: ['#111111', '#eeeeee'] },
      null,
    );
    expect(new Map(artwork.paints.map(({ elementIndex, colour }) => [elementIndex, colour]))).toEqual(
      new Map([
        [0, '#111111'],
        [1, '#111111'],
        [3, '#eeeeee'],
        [4, '#eeeeee'],
      ]),
    );
  });

  it('names no mark that is not seen as missing', async () =>
    expect((await set('\u200fטל\u200f 1')).findings).toEqual([]));
});

describe('text of a drawing', () => {
  const middles = (artwork: Artwork) => boxes(artwork).map(({ minX, maxX }) => (minX + maxX) / 2);
  it('from right to left begins at its right end', async () => {
    for (const [attributes, side] of [
      ['', 1],
      ['direction="rtl"', -1],
      ['direction="rtl" text-anchor="end"', 1],
      ['text-anchor="end"', -1],
    ] as const) {
      const artwork = await drawn('טל 0123', attributes);
      expect(artwork.findings).toEqual([]);
      const frame = artwork.widthMm / 400;
      for (const middle of middles(artwork)) expect(Math.sign(middle / frame - 200)).toBe(side);
    }
  });

  it('keeps its order over parts of another style', async () => {
    const plain = await drawn('חנות 12');
    const styled = await drawn('חנ<tspan fill="#ff0000">ות</tspan> <tspan fill="#00ff00">1</tspan>2');
    const sorted = (artwork: Artwork) => middles(artwork).sort((a, b) => a - b);
    expect(sorted(styled)).toHaveLength(6);
    sorted(plain).forEach((middle, i) => expect(sorted(styled)[i]).toBeCloseTo(middle, 1));
    // Red are the two letters that are read last of the word, left of the first two; green is the 1, left of the 2 and of the word.
    const of = (colour: string) => middles(styled).filter((_, i) => styled.paints[i]!.colour === colour);
    expect(Math.max(...of('#ff0000'))).toBeLessThan(Math.max(...middles(styled)));
    expect(of('#00ff00')).toEqual([expect.closeTo(sorted(styled)[0]!, 3)]);
  });

  it('says which letters its font has not, and which fonts have them', async () => {
    const { findings } = await drawn('Wick טל', 'style="font-family: Arvo"');
    expect(findings.map(({ code }) => code)).toEqual(['letters-missing']);
    expect(findings[0]!.message).toContain('Frank Ruhl Libre');
  });
});

describe('fonts', () => {
  const SAMPLES: Readonly<Record<OtherScript, string>> = {
    cyrillic: 'Лавка у реки',
    greek: 'Αγορά',
    hebrew: 'חנות',
    arabic: 'متجر',
  };
  it.each(Object.entries(SAMPLES))('of %s are two at least, and have its letters', async (script, text) => {
    expect(scriptsIn(text)).toEqual([script]);
    const fonts = SHIPPED_FONTS.filter((font) => setsScriptsOf(font, text));
    expect(fonts.length).toBeGreaterThanOrEqual(2);
    for (const font of fonts) expect((await set(text, font.id)).findings, font.id).toEqual([]);
  });

  it.each(SHIPPED_FONTS.map((font) => font.id))('%s is offered for what it has, and for nothing else', async (id) => {
    const font = SHIPPED_FONTS.find((one) => one.id === id)!;
    for (const text of Object.values(SAMPLES)) {
      const isWhole = (await set(text, id)).findings.length === 0;
      if (setsScriptsOf(font, text)) expect(isWhole).toBe(true);
      else expect(isWhole, `${id} could set ${text}`).toBe(false);
    }
  });
});
