import { areaOf, boundsOf, boxesTouch, intersect, translateRings } from '../../geometry/index.js';
import { bestOn, laidAnew, lay, scoreOf, type Arrangement, type Laid, type LaidSheet } from './arrange.js';
import { fitTogether } from './fit-together.js';
import type { NoFits } from './no-fit.js';
import { Separation } from './separate.js';
import { isBox, orientationOf, turned } from './shape.js';

/** More than this of a sheet that is filled cannot be filled better. */
const FULL = 0.999;
/** Pieces that overlap by less, mm², or reach over the edge by less, mm, touch: half of what the check of an arrangement lets pass. */
const TOUCH_MM2 = 0.005;
const TOUCH_MM = 5e-5;
/** To draw apart what overlaps by rounding, the whole may become longer by these shares, the least first, in so many rounds each. */
const LONGER = [0.0002, 0.001, 0.004];
const ROUNDS = 60;

export interface WholeSearch {
  readonly spacingMm: number;
  readonly noFits: NoFits;
  readonly random: () => number;
  /** Counts a step; false when no further one may be made. */
  readonly step: () => Promise<boolean>;
}

/** What all lies on one sheet, put together as a puzzle; null where it is more than one, where its pieces do not come from one whole, or lie on less film already. */
export async function asOneWhole(from: Arrangement, search: WholeSearch): Promise<Arrangement | null> {
  const [{ open, laid }] = from.sheets as [LaidSheet];
  if (from.sheets.length > 1 || from.missing.length > 0 || search.spacingMm > 0 || open.sheet.outline) return null;
  if (
    laid.some(({ isPinned, candidate: { item } }) => isPinned || item.group.length > 1) ||
    laid.every(({ candidate: { shape } }) => isBox(shape))
  )
    return null;
  const pieceOf = new Map(
    laid.map(({ candidate: { item } }) => [item, { outline: item.group[0]!.outer, rotations: item.rotations }]),
  );
  const places = await fitTogether(
    laid.map(({ candidate: { item } }) => pieceOf.get(item)!),
    open.sheet.widthMm,
    search.step,
  );
  if (!places) return null;
  const fitted = laid.flatMap((one, i): Laid[] => {
    const place = places[i];
    if (!place) return [];
    const { item, shape, orientations } = one.candidate;
    const orientation =
      orientations.find(({ rotation }) => rotation === place.rotation) ??
      orientationOf([item.group[0]!.outer], place.rotation, shape);
    return [{ ...one, orientation, x: place.x + orientation.originX, y: place.y + orientation.originY }];
  });
  const together = laidAnew(open, fitted, search.noFits, 0);
  for (const one of laid.filter((_, i) => !places[i])) {
    const found = bestOn(together, one.candidate.orientations);
    if (!found) return null;
    lay(together, { ...one, orientation: found.orientation, ...found.spot });
  }
  const apart = await drawnApart(together, search);
  return apart && apart.open.usedLength < open.usedLength - 1e-6
    ? { ...from, sheets: [apart], score: scoreOf([apart], []) }
    : null;
}

/** The same without overlaps; null where they do not come apart. */
async function drawnApart(sheet: LaidSheet, { noFits, random, step }: WholeSearch): Promise<LaidSheet | null> {
  const { open, laid } = sheet;
  const rings = laid.map(({ candidate: { item }, orientation, x, y }) =>
    translateRings(
      [turned(item.group[0]!.outer, orientation.rotation)],
      x - orientation.originX,
      y - orientation.originY,
    ),
  );
  const boxes = rings.map((own) => boundsOf(own)!);
  const isWithin = boxes.every(({ minX, maxX }) => minX >= -TOUCH_MM && maxX <= open.sheet.widthMm + TOUCH_MM);
  if (
    isWithin &&
    rings.every((own, i) =>
      rings
        .slice(0, i)
        .every((other, k) => !boxesTouch(boxes[i]!, boxes[k]!) || areaOf(intersect(own, other)) < TOUCH_MM2),
    )
  )
    return sheet;
  for (const longer of LONGER) {
    const separation = new Separation(
      laid.map(({ orientation }) => [orientation]),
      { widthMm: open.sheet.widthMm, lengthMm: open.usedLength, spacingMm: 0, fixed: [] },
      noFits,
      random,
    );
    separation.begin(laid, open.usedLength * (1 + longer));
    for (let round = 0; round < ROUNDS; round += 1) {
      if (!(await step())) return null;
      if (separation.round() > 0) continue;
      const { layout } = separation;
      return laidAnew(
        open,
        laid.map((one, i) => ({ ...one, ...layout[i]! })),
        noFits,
        0,
      );
    }
  }
  return null;
}

/** Whether no other layout can take less of a sheet. */
export function isFull({ open, laid }: LaidSheet): boolean {
  return laid.reduce((sum, { candidate: { area } }) => sum + area, 0) >= FULL * open.usedLength * open.sheet.widthMm;
}
