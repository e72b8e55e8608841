import type { PieceKind } from './piece.js';

/*
 * The stock book: every change of what is left of a piece is a line, and no line is ever changed. What is left is the sum of its lines: of a
 * roll in mm, of sheets and offcuts how many.
 */

/** Why what is left changed. */
export const STOCK_WHYS = [
  'received',
  'counted',
  'corrected',
  'used',
  'returned',
  'thrown away',
  'taken back',
] as const;
export type StockWhy = (typeof STOCK_WHYS)[number];

/** What a hand can write into the book; the rest is written by the cutter, or by taking a line back. */
export const STOCK_ACTS = [
  'received',
  'counted',
  'corrected',
  'used',
  'returned',
  'thrown away',
] as const satisfies readonly StockWhy[];
export type StockAct = (typeof STOCK_ACTS)[number];

export interface StockLine {
  readonly id: number;
  readonly pieceId: string;
  readonly at: string;
  /** The maker's name as it was then; empty when nobody had said who is at work. */
  readonly who: string;
  readonly why: StockWhy;
  /** More or less by so much. */
  readonly amount: number;
  readonly note: string;
  /** The sheet that was cut of it. */
  readonly sheetId: string | null;
  /** The line that this one takes back. */
  readonly takesBack: number | null;
}

/**
 * By how much an act changes what is left. `figure` is what the hand wrote: how much came, went or is there by count; for a correction with its sign,
 * for what is thrown away all there is when it is null.
 */
export function amountOf(act: StockAct, figure: number | null, left: number): number {
  return toThousandth(changeOf(act, figure, left));
}

/** Figures are kept to a thousandth: a micrometre of a roll. Never −0. */
export function toThousandth(figure: number): number {
  return Math.round(figure * 1000) / 1000 + 0;
}

function changeOf(act: StockAct, figure: number | null, left: number): number {
  switch (act) {
    case 'received':
    case 'returned':
      return figure ?? 0;
    case 'used':
      return -(figure ?? 0);
    case 'thrown away':
      return -(figure ?? left);
    case 'corrected':
      return figure ?? 0;
    case 'counted':
      return (figure ?? 0) - left;
    default:
      return assertNever(act);
  }
}

function assertNever(value: never): never {
  throw new Error(`Not a stock act: ${String(value)}`);
}

/** The most that one line can be: 10 km of a roll, ten thousand sheets. */
export const MOST: Readonly<Record<PieceKind, number>> = { roll: 10_000_000, sheet: 10_000, offcut: 10_000 };
