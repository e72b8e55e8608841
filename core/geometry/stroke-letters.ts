import numbersOf from 'hershey/lib/characterNumbers.js';
import fontOf from 'hershey/lib/rowmans.js';

/** A letter in single strokes: where it begins and ends on its line, and its strokes; x right, y down, in the font's own units, capitals from −12 to 9. */
interface StrokeLetter {
  readonly left: number;
  readonly right: number;
  readonly strokes: readonly (readonly (readonly [number, number])[])[];
}

/** A bundler gives what a module of the older kind exports by itself, Node in a wrapper. */
const numbers = 'default' in numbersOf ? (numbersOf.default as Readonly<Record<string, number>>) : numbersOf;
const font = typeof fontOf === 'string' ? fontOf : fontOf.default;

/** Coordinates are letters counted from this one; a pair of a blank and this one lifts the pen. */
const ZERO = 'R'.charCodeAt(0);

let letters: ReadonlyMap<number, StrokeLetter> | null = null;

/** The font: each line holds the letter's number, how many pairs follow, and the pairs, of which the first is where it begins and ends. */
function allLetters(): ReadonlyMap<number, StrokeLetter> {
  const lines = atob(font)
    .split('\n')
    .filter((line) => line.trim() !== '');
  return new Map(
    lines.map((line) => {
      const at = (i: number): [number, number] => [
        line.charCodeAt(8 + 2 * i) - ZERO,
        line.charCodeAt(9 + 2 * i) - ZERO,
      ];
      const pairs = Array.from({ length: Number(line.slice(5, 8)) - 1 }, (_, i) => at(i + 1));
      const strokes: [number, number][][] = [[]];
      for (const [x, y] of pairs) {
        if (x === ' '.charCodeAt(0) - ZERO && y === 0) strokes.push([]);
        else strokes.at(-1)!.push([x, y]);
      }
      const [left, right] = at(0);
      return [
        Number(line.slice(0, 5)),
        { left, right, strokes: strokes.filter((stroke) => stroke.length > 1) },
      ] as const;
    }),
  );
}

/** The strokes of some words in one line, from 0 on; letters that the font lacks leave a gap as wide as a blank. */
export function strokesOf(words: string): (readonly (readonly [number, number])[])[] {
  const known = (letters ??= allLetters());
  let x = 0;
  return [...words].flatMap((character) => {
    const letter = known.get(numbers[character] ?? numbers[' ']!) ?? known.get(numbers[' ']!)!;
    const from = x - letter.left;
    x += letter.right - letter.left;
    return letter.strokes.map((stroke) => stroke.map(([px, py]) => [from + px, py] as const));
  });
}
