import {
  leftoversAround,
  LEFTOVER_RULE,
  worthOf,
  type LaidRectangle,
  type LeftoverRule,
  type Rectangle,
} from '../shop/index.js';
import { smallestFirst } from './loadable.js';

/** A piece in the rack that the cutter can take. */
export interface RackPiece extends Rectangle {
  readonly id: string;
  readonly kind: 'roll' | 'sheet' | 'offcut';
  readonly costPerM2: number;
  /** Pieces of one stack are alike: any of them is as good as another. */
  readonly stack: string;
}

/** How much of a piece some work takes, from the corner that the cutter counts from: nothing of it where it has a width of 0. */
export interface Used extends Rectangle {
  /** What of that each group takes, its margin with it. */
  readonly groups: readonly LaidRectangle[];
}

/** The same of one of several pieces. */
export interface UsedOf extends Used {
  readonly pieceId: string;
}

/** All of a rectangle at a piece's corner. */
export function usedAtCorner(rectangle: Rectangle): Used {
  return { ...rectangle, groups: [{ xMm: 0, yMm: 0, widthMm: rectangle.widthMm, lengthMm: rectangle.lengthMm }] };
}

/** Work laid on some pieces, in the order in which they were given. */
export interface LaidOut<T> {
  readonly used: readonly UsedOf[];
  /** How much of the work found no place, by area, mm². */
  readonly leftOverMm2: number;
  readonly layout: T;
}

export interface Choice<T> {
  /** The pieces that are used, in the order of laying. */
  readonly pieces: readonly RackPiece[];
  /** What of their film is spent, in the shop's money. */
  readonly value: number;
  readonly layout: T;
}

/** What is spent of a piece by using so much of it: what it was worth, less what goes back to the rack. The rest of a roll is worth what it was. */
export function spentOf(
  piece: Omit<RackPiece, 'id' | 'stack'>,
  used: Used,
  rule: LeftoverRule = LEFTOVER_RULE,
): number {
  if (used.widthMm <= 0 || used.lengthMm <= 0) return 0;
  const { costPerM2, widthMm } = piece;
  const taken: Rectangle =
    piece.kind === 'roll' ? { widthMm, lengthMm: Math.min(used.lengthMm, piece.lengthMm) } : piece;
  const whole = ((taken.widthMm * taken.lengthMm) / 1e6) * costPerM2;
  const was = piece.kind === 'offcut' ? worthOf(piece, costPerM2, rule) : whole;
  return (
    was -
    leftoversAround(taken, used.groups, costPerM2, rule).reduce((sum, one) => sum + worthOf(one, costPerM2, rule), 0)
  );
}

/** Of alike choices the one with fewer pieces is taken, then the one with more offcuts; money that nobody counts. */
const ALIKE = 0.005;

/** What is known of the work before it is laid out. */
interface Work {
  /** How large all of it is, mm². */
  readonly areaMm2: number;
  /** So many sets of pieces are laid out at most; where there are more, one is made better step by step. */
  readonly mostSets: number;
}

/**
 * The pieces on which some work spends the least film. Sets of them are laid out one after the other (`layOut` is given them in order, offcuts first, each kind from the smallest; of a stack the first ones): all of them
 * where there are few; of more, single pieces are added, taken out and exchanged while that helps. What finds no place counts above all else.
 */
export async function choosePieces<T>(
  pieces: readonly RackPiece[],
  layOut: (pieces: readonly RackPiece[]) => Promise<LaidOut<T>>,
  { areaMm2, mostSets }: Work,
  rule: LeftoverRule = LEFTOVER_RULE,
): Promise<Choice<T> | null> {
  const sorted = [...pieces].sort(smallestFirst);
  const stacks = [...new Set(sorted.map(({ stack }) => stack))].map((stack) =>
    sorted.filter((one) => one.stack === stack),
  );
  const known = new Map<string, Tried<T>>();
  /** Lays out up to so many pieces of each stack. */
  const attempt = async (counts: readonly number[]): Promise<Tried<T>> => {
    const key = counts.join(' ');
    const before = known.get(key);
    if (before) return before;
    const chosen = new Set(stacks.flatMap((stack, i) => stack.slice(0, counts[i])));
    const given = sorted.filter((one) => chosen.has(one));
    const laid = await layOut(given);
    const spent = laid.used
      .map((used) => ({ piece: given.find(({ id }) => id === used.pieceId)!, used }))
      .filter(({ used }) => used.widthMm > 0 && used.lengthMm > 0);
    const used = new Set(spent.map(({ piece }) => piece));
    const made: Tried<T> = {
      limits: counts,
      counts: stacks.map((stack) => stack.filter((one) => used.has(one)).length),
      pieces: [...used],
      leftOverMm2: laid.leftOverMm2,
      value: spent.reduce((sum, one) => sum + spentOf(one.piece, one.used, rule), 0),
      layout: laid.layout,
    };
    known.set(key, made);
    return made;
  };
  if (sorted.length === 0) return null;
  // Of a stack no more are looked at than hold all of the work by themselves, or as much of it as can be; all of one on which nothing can lie without others.
  const most: number[] = [];
  for (const [i, { length }] of stacks.entries())
    most.push(length === 1 ? 1 : (await attempt(stacks.map((_, k) => (k === i ? length : 0)))).counts[i]! || length);
  let best = await attempt(most);
  const consider = async (counts: readonly number[]) => {
    if (counts.every((count) => count === 0) || (known.size >= mostSets && !known.has(counts.join(' ')))) return;
    // What is smaller than the work leaves some of it over.
    if (
      best.leftOverMm2 <= 1e-6 &&
      counts.reduce(
        (sum, count, i) =>
          sum + stacks[i]!.slice(0, count).reduce((own, piece) => own + piece.widthMm * piece.lengthMm, 0),
        0,
      ) < areaMm2
    )
      return;
    const made = await attempt(counts);
    if (isBetter(made, best)) best = made;
  };
  if (most.reduce((sets, count) => sets * (count + 1), 1) <= mostSets) {
    const every = most.reduce<readonly (readonly number[])[]>(
      (some, many) => some.flatMap((counts) => Array.from({ length: many + 1 }, (_, count) => [...counts, count])),
      [[]],
    );
    for (const counts of every) await consider(counts);
    return best;
  }
  // A piece of each by itself, then what a change of one stack makes better: fewer or more of it, while the others fill up; or one piece that is used against one that is not.
  for (let i = 0; i < stacks.length; i += 1) await consider(stacks.map((_, k) => (k === i ? 1 : 0)));
  for (let isChanged = true; isChanged;) {
    const from = best;
    const { limits, counts } = from;
    for (let i = 0; i < stacks.length; i += 1) {
      const count = counts[i]!;
      for (const limit of [0, Math.floor(count / 2), count - 1, count + 1, count + 2, most[i]!])
        if (limit >= 0 && limit <= most[i]!) await consider(limits.with(i, limit));
      if (count > 0)
        for (let k = 0; k < stacks.length; k += 1)
          if (k !== i && counts[k]! < most[k]!) await consider(counts.with(i, count - 1).with(k, counts[k]! + 1));
    }
    isChanged = best !== from;
  }
  return best;
}

interface Tried<T> extends Choice<T> {
  /** How many of each stack might be used, and are. */
  readonly limits: readonly number[];
  readonly counts: readonly number[];
  readonly leftOverMm2: number;
}

function isBetter<T>(one: Tried<T>, other: Tried<T>): boolean {
  if (Math.abs(one.leftOverMm2 - other.leftOverMm2) > 1e-6) return one.leftOverMm2 < other.leftOverMm2;
  if (Math.abs(one.value - other.value) > ALIKE) return one.value < other.value;
  if (one.pieces.length !== other.pieces.length) return one.pieces.length < other.pieces.length;
  const offcuts = ({ pieces }: Tried<T>) => pieces.filter(({ kind }) => kind === 'offcut').length;
  return offcuts(one) > offcuts(other);
}
