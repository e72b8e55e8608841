import { smallestFirst } from '../stations/sheets/index.js';
import { leftoversAround, LEFTOVER_RULE, worthOf, type LaidRectangle, type LeftoverRule, type Rectangle } from '../shop/index.js';

/** A piece in the rack that the cutter can take. */
export interface RackPiece extends Rectangle {
  readonly id: string;
  readonly kind: 'roll' | 'sheet' | 'offcut';
  readonly costPerM2: number;
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
export function spentOf(piece: RackPiece, used: Used, rule: LeftoverRule = LEFTOVER_RULE): number {
  if (used.widthMm <= 0 || used.lengthMm <= 0) return 0;
  const { costPerM2, widthMm } = piece;
  const taken: Rectangle = piece.kind === 'roll' ? { widthMm, lengthMm: Math.min(used.lengthMm, piece.lengthMm) } : piece;
  const whole = ((taken.widthMm * taken.lengthMm) / 1e6) * costPerM2;
  const was = piece.kind === 'offcut' ? worthOf(piece, costPerM2, rule) : whole;
  return was - leftoversAround(taken, used.groups, costPerM2, rule).reduce((sum, one) => sum + worthOf(one, costPerM2, rule), 0);
}

/** With so many pieces all sets of them are tried. */
const MOST_SETS = 7;
/** Of alike choices the one with fewer pieces is taken, then the one with more offcuts; money that nobody counts. */
const ALIKE = 0.005;

/**
 * The pieces on which some work spends the least film. Sets of them are laid out one after the other (`layOut` is given them in order, offcuts first, each kind from the smallest), all
 * sets of up to seven pieces; of more, single pieces are added, taken out and exchanged while that helps. What finds no place counts above all else.
 */
export async function choosePieces<T>(pieces: readonly RackPiece[], layOut: (pieces: readonly RackPiece[]) => Promise<LaidOut<T>>, rule: LeftoverRule = LEFTOVER_RULE): Promise<Choice<T> | null> {
  const sorted = [...pieces].sort(smallestFirst);
  const known = new Map<string, Tried<T>>();
  const attempt = async (set: readonly boolean[]): Promise<Tried<T>> => {
    const key = set.map(Number).join('');
    const before = known.get(key);
    if (before) return before;
    const given = sorted.filter((_, i) => set[i]);
    const laid = await layOut(given);
    const spent = laid.used.map((used) => ({ piece: given.find(({ id }) => id === used.pieceId)!, used })).filter(({ used }) => used.widthMm > 0 && used.lengthMm > 0);
    const made: Tried<T> = { set, pieces: [...new Set(spent.map(({ piece }) => piece))], leftOverMm2: laid.leftOverMm2, value: spent.reduce((sum, { piece, used }) => sum + spentOf(piece, used, rule), 0), layout: laid.layout };
    known.set(key, made);
    return made;
  };
  if (sorted.length === 0) return null;
  let best = await attempt(sorted.map(() => true));
  const consider = (made: Tried<T>) => {
    if (isBetter(made, best)) best = made;
  };
  if (sorted.length <= MOST_SETS) {
    for (let bits = 1; bits < 1 << sorted.length; bits += 1) consider(await attempt(sorted.map((_, i) => (bits & (1 << i)) !== 0)));
    return best;
  }
  // Each piece by itself, then what a change of one piece makes better.
  for (let i = 0; i < sorted.length; i += 1) consider(await attempt(sorted.map((_, k) => k === i)));
  for (let isChanged = true; isChanged; ) {
    const from = best;
    for (let i = 0; i < sorted.length; i += 1) {
      consider(await attempt(from.set.map((has, k) => (k === i ? !has : has))));
      // One that is used against one that is not.
      if (from.set[i] && from.pieces.includes(sorted[i]!)) for (let k = 0; k < sorted.length; k += 1) if (!from.set[k]) consider(await attempt(from.set.map((has, m) => (m === i ? false : m === k ? true : has))));
    }
    isChanged = best !== from;
  }
  return best;
}

interface Tried<T> extends Choice<T> {
  readonly set: readonly boolean[];
  readonly leftOverMm2: number;
}

function isBetter<T>(one: Tried<T>, other: Tried<T>): boolean {
  if (Math.abs(one.leftOverMm2 - other.leftOverMm2) > 1e-6) return one.leftOverMm2 < other.leftOverMm2;
  if (Math.abs(one.value - other.value) > ALIKE) return one.value < other.value;
  if (one.pieces.length !== other.pieces.length) return one.pieces.length < other.pieces.length;
  const offcuts = ({ pieces }: Tried<T>) => pieces.filter(({ kind }) => kind === 'offcut').length;
  return offcuts(one) > offcuts(other);
}
