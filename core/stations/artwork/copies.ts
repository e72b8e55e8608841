import type { Box } from '../../geometry/index.js';
import { moved } from './arrangement.js';
import type { ArtworkPart } from './artwork-part.js';

/** How parts are repeated: in rows and columns, each copy with words or a colour of its own where that is wanted. */
export interface Repeat {
  readonly columns: number;
  readonly rows: number;
  /** Between the boxes of two copies. */
  readonly gapMm: number;
  /** What the lettering says in the first, the second …; empty to leave it. */
  readonly words: readonly string[];
  /** A colour that is another one in each; null to leave all. */
  readonly colours: { readonly from: string; readonly to: readonly string[] } | null;
}

/** More copies than this are copies of a whole job. */
export const MOST_COPIES = 100;

/** How many there will be, with those that are there: as many as there are words or colours, else as rows and columns hold. */
export function countOf({
  columns,
  rows,
  words,
  colours,
}: Pick<Repeat, 'columns' | 'rows' | 'words' | 'colours'>): number {
  return Math.max(words.length, colours?.to.length ?? 0) || columns * rows;
}

/**
 * Parts and their copies, each where the first stands: they take the words and colours in turn. `newId` names the copies and their groups. Copies of several
 * parts, or of a group, are a group each.
 */
export function variantsOf(parts: readonly ArtworkPart[], how: Repeat, newId: () => string): ArtworkPart[][] {
  const isGroup = parts.length > 1 || parts.some(({ group }) => group !== null);
  const at = (i: number) => parts.map((part) => varied(part, i, how, parts));
  const own = isGroup ? (parts.find(({ group }) => group !== null)?.group ?? newId()) : null;
  const copies = Array.from({ length: countOf(how) - 1 }, (_, k) => {
    const group = isGroup ? newId() : null;
    return at(k + 1).map((part) => ({ ...part, id: newId(), group }));
  });
  return [at(0).map((part) => ({ ...part, group: own })), ...copies];
}

/** Variants set out in rows of so many columns, the first staying; `boxes` are round each where the first stands, and the widest and highest sets the step. */
export function setOut(
  variants: readonly (readonly ArtworkPart[])[],
  boxes: readonly Box[],
  { columns, gapMm }: Pick<Repeat, 'columns' | 'gapMm'>,
): ArtworkPart[] {
  const stepX = Math.max(...boxes.map((box) => box.maxX - box.minX)) + gapMm;
  const stepY = Math.max(...boxes.map((box) => box.maxY - box.minY)) + gapMm;
  return variants.flatMap((parts, i) =>
    parts.map((part) => ({
      ...part,
      place: moved(part.place, { x: (i % columns) * stepX, y: Math.floor(i / columns) * stepY }),
    })),
  );
}

/** A part as it is in the copy of that number. Words are those of the first lettering among the parts. */
function varied(part: ArtworkPart, i: number, { words, colours }: Repeat, parts: readonly ArtworkPart[]): ArtworkPart {
  const word = part === parts.find(({ kind }) => kind === 'lettering') ? words[i] : undefined;
  const said =
    part.kind === 'lettering' && word !== undefined
      ? { ...part, lettering: { ...part.lettering, text: word, alternates: {} } }
      : part;
  const to = colours?.to[i % Math.max(1, colours.to.length)];
  return colours && to !== undefined ? inColour(said, colours.from, to) : said;
}

/** A part in which one colour is another. */
export function inColour(part: ArtworkPart, from: string, to: string): ArtworkPart {
  if (part.kind === 'lettering')
    return {
      ...part,
      lettering: {
        ...part.lettering,
        colours: part.lettering.colours.map((colour) => (colour === from ? to : colour)),
      },
    };
  // What was made this colour before is made the new one; what is drawn in it is too.
  const before = Object.entries(part.recolour).map(([drawn, shown]) => [drawn, shown === from ? to : shown] as const);
  return {
    ...part,
    recolour: Object.fromEntries([...before, ...(from in part.recolour ? [] : [[from, to] as const])]),
  };
}

/** Words of a list, one a line; a line such as 7-12 counts. */
export function wordsOf(text: string): string[] {
  return text.split(/\r?\n/).flatMap((line) => {
    const range = /^\s*(\d{1,6})\s*[-–]\s*(\d{1,6})\s*$/.exec(line);
    if (!range) return line.trim() === '' ? [] : [line.trim()];
    const [from, to] = [Number(range[1]), Number(range[2])];
    const many = Math.abs(to - from) + 1;
    // A number that is written with noughts before it keeps its length.
    return many > MOST_COPIES
      ? [line.trim()]
      : Array.from({ length: many }, (_, i) =>
          String(from + (to < from ? -i : i)).padStart(range[1]!.startsWith('0') ? range[1]!.length : 0, '0'),
        );
  });
}
