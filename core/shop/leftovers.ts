/** A rectangle, mm: across the piece and along it. */
export interface Rectangle {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** A rectangle where it lies on a piece, from the piece's own corner. */
export interface LaidRectangle extends Rectangle {
  readonly xMm: number;
  readonly yMm: number;
}

/** When what is left of a piece goes back to the rack, and what it is worth there. */
export interface LeftoverRule {
  /** Neither side may be shorter, nor the area smaller. */
  readonly leastSideMm: number;
  readonly leastMm2: number;
  /** The share of what its film cost that it is still worth; and if one side is narrower than `narrowMm`. */
  readonly share: number;
  readonly narrowMm: number;
  readonly narrowShare: number;
}

/** Source: trade practice. */
export const LEFTOVER_RULE: LeftoverRule = { leastSideMm: 80, leastMm2: 15_000, share: 0.7, narrowMm: 150, narrowShare: 0.4 };

/** Whether what is left is worth keeping. */
export function isKept({ widthMm, lengthMm }: Rectangle, { leastSideMm, leastMm2 }: LeftoverRule = LEFTOVER_RULE): boolean {
  return Math.min(widthMm, lengthMm) >= leastSideMm && widthMm * lengthMm >= leastMm2;
}

/** What an offcut of this size is worth, in the shop's money; nothing when it is thrown away. */
export function worthOf(rectangle: Rectangle, costPerM2: number, rule: LeftoverRule = LEFTOVER_RULE): number {
  if (!isKept(rectangle, rule)) return 0;
  const { widthMm, lengthMm } = rectangle;
  return ((widthMm * lengthMm) / 1e6) * costPerM2 * (Math.min(widthMm, lengthMm) < rule.narrowMm ? rule.narrowShare : rule.share);
}

/** The rectangles that are left of a piece beyond what was used from its corner on, cut square in the way in which they are worth more. Empty ones are left out. */
export function leftoversOf(piece: Rectangle, used: Rectangle, costPerM2: number, rule: LeftoverRule = LEFTOVER_RULE): LaidRectangle[] {
  const [w, l] = [Math.min(used.widthMm, piece.widthMm), Math.min(used.lengthMm, piece.lengthMm)];
  const across: LaidRectangle[] = [
    { xMm: 0, yMm: l, widthMm: piece.widthMm, lengthMm: piece.lengthMm - l },
    { xMm: w, yMm: 0, widthMm: piece.widthMm - w, lengthMm: l },
  ];
  const along: LaidRectangle[] = [
    { xMm: w, yMm: 0, widthMm: piece.widthMm - w, lengthMm: piece.lengthMm },
    { xMm: 0, yMm: l, widthMm: w, lengthMm: piece.lengthMm - l },
  ];
  const worth = (some: readonly LaidRectangle[]) => some.reduce((sum, one) => sum + worthOf(one, costPerM2, rule), 0);
  return (worth(along) > worth(across) ? along : across).filter(({ widthMm, lengthMm }) => widthMm > 1e-6 && lengthMm > 1e-6);
}
