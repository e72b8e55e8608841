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
export const LEFTOVER_RULE: LeftoverRule = {
  leastSideMm: 80,
  leastMm2: 15_000,
  share: 0.7,
  narrowMm: 150,
  narrowShare: 0.4,
};

/** Whether what is left is worth keeping. */
export function isKept(
  { widthMm, lengthMm }: Rectangle,
  { leastSideMm, leastMm2 }: LeftoverRule = LEFTOVER_RULE,
): boolean {
  return Math.min(widthMm, lengthMm) >= leastSideMm && widthMm * lengthMm >= leastMm2;
}

/** What an offcut of this size is worth, in the shop's money; nothing when it is thrown away. */
export function worthOf(rectangle: Rectangle, costPerM2: number, rule: LeftoverRule = LEFTOVER_RULE): number {
  if (!isKept(rectangle, rule)) return 0;
  const { widthMm, lengthMm } = rectangle;
  return (
    ((widthMm * lengthMm) / 1e6) *
    costPerM2 *
    (Math.min(widthMm, lengthMm) < rule.narrowMm ? rule.narrowShare : rule.share)
  );
}

/** The rectangles that are left of a piece beyond what was used from its corner on, cut square in the way in which they are worth more. Empty ones are left out. */
export function leftoversOf(
  piece: Rectangle,
  used: Rectangle,
  costPerM2: number,
  rule: LeftoverRule = LEFTOVER_RULE,
): LaidRectangle[] {
  const [w, l] = [Math.min(used.widthMm, piece.widthMm), Math.min(used.lengthMm, piece.lengthMm)];
  const across: LaidRectangle[] = [
    { xMm: 0, yMm: l, widthMm: piece.widthMm, lengthMm: piece.lengthMm - l },
    { xMm: w, yMm: 0, widthMm: piece.widthMm - w, lengthMm: l },
  ];
  const along: LaidRectangle[] = [
    { xMm: w, yMm: 0, widthMm: piece.widthMm - w, lengthMm: piece.lengthMm },
    { xMm: 0, yMm: l, widthMm: w, lengthMm: piece.lengthMm - l },
  ];
  const worth = worthOfAll(costPerM2, rule);
  return (worth(along) > worth(across) ? along : across).filter(
    ({ widthMm, lengthMm }) => widthMm > 1e-6 && lengthMm > 1e-6,
  );
}

/** No more pieces than these are cut out beside what was used: each has to be measured, numbered and put away. */
const MOST_KEPT = 4;
/** Beside more rectangles than these nothing is looked for: what is left between so many is small. */
const MOST_AROUND = 300;

/**
 * What is left of a piece round some rectangles that were used of it, which may overlap: either as `leftoversOf` has it, beyond all of them, or the free rectangles at its far side and its far end that are worth
 * keeping, the most valuable first, whichever is worth more. A knife reaches them from the edge. They overlap neither each other nor what was used.
 */
export function leftoversAround(
  piece: Rectangle,
  used: readonly LaidRectangle[],
  costPerM2: number,
  rule: LeftoverRule = LEFTOVER_RULE,
): LaidRectangle[] {
  const farthest = {
    widthMm: Math.max(0, ...used.map(({ xMm, widthMm }) => xMm + widthMm)),
    lengthMm: Math.max(0, ...used.map(({ yMm, lengthMm }) => yMm + lengthMm)),
  };
  const beyond = leftoversOf(piece, farthest, costPerM2, rule);
  if (used.length > MOST_AROUND) return beyond;
  const worth = worthOfAll(costPerM2, rule);
  const around: LaidRectangle[] = [];
  while (around.length < MOST_KEPT) {
    const taken = [...used, ...around];
    const atSide = bestAtFarSide(piece, taken, worth);
    const atEnd = bestAtFarSide(turned(piece), taken.map(turnedRectangle), worth);
    const best = atEnd && (!atSide || worth([atEnd]) > worth([atSide])) ? turnedRectangle(atEnd) : atSide;
    if (!best) break;
    around.push(best);
  }
  return worth(around) > worth(beyond) + 1e-9 ? around : beyond;
}

type Worth = (some: readonly Rectangle[]) => number;

function worthOfAll(costPerM2: number, rule: LeftoverRule): Worth {
  return (some) => some.reduce((sum, one) => sum + worthOf(one, costPerM2, rule), 0);
}

/** The free rectangle at the far side of a piece that is worth most, of the widest for every stretch along it between two edges of what is taken; null where none is worth keeping. */
function bestAtFarSide(piece: Rectangle, taken: readonly LaidRectangle[], worth: Worth): LaidRectangle | null {
  const edges = [...new Set([0, piece.lengthMm, ...taken.flatMap(({ yMm, lengthMm }) => [yMm, yMm + lengthMm])])]
    .filter((y) => y >= 0 && y <= piece.lengthMm)
    .sort((a, b) => a - b);
  // How far each stretch from one edge to the next is taken.
  const to = edges
    .slice(1)
    .map((end, i) =>
      taken.reduce(
        (far, { xMm, yMm, widthMm, lengthMm }) =>
          yMm < end - 1e-6 && yMm + lengthMm > edges[i]! + 1e-6 ? Math.max(far, xMm + widthMm) : far,
        0,
      ),
    );
  let [best, most] = [null as LaidRectangle | null, 0];
  for (let i = 0; i < to.length; i += 1) {
    for (let k = i, far = to[i]!; k < to.length; k += 1) {
      far = Math.max(far, to[k]!);
      // A longer stretch leaves nothing either.
      if (far >= piece.widthMm) break;
      const one = { xMm: far, yMm: edges[i]!, widthMm: piece.widthMm - far, lengthMm: edges[k + 1]! - edges[i]! };
      const own = worth([one]);
      if (own > most) [best, most] = [one, own];
    }
  }
  return best;
}

const turned = ({ widthMm, lengthMm }: Rectangle): Rectangle => ({ widthMm: lengthMm, lengthMm: widthMm });
const turnedRectangle = ({ xMm, yMm, ...one }: LaidRectangle): LaidRectangle => ({
  xMm: yMm,
  yMm: xMm,
  ...turned(one),
});
