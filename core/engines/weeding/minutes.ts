import { WEEDING_FIGURES, type WeedingFigures } from './figures.js';

/** What there is to weed. */
export interface WeedingWork {
  readonly sheets: number;
  readonly counters: number;
  /** All separate parts, and those of them that are easily lost. */
  readonly looseParts: number;
  readonly smallParts: number;
  readonly strips: number;
  readonly outlineMm: number;
  /** Of the outline, what belongs to strokes thinner than twice what the film can weed. */
  readonly thinMm: number;
}

/** How many of each figure's units some work has, in the order of the figures. */
export function unitsOf({
  sheets,
  counters,
  looseParts,
  smallParts,
  strips,
  outlineMm,
  thinMm,
}: WeedingWork): Readonly<Record<keyof WeedingFigures, number>> {
  return {
    sheetS: sheets,
    counterS: counters,
    smallPartS: smallParts,
    partS: Math.max(0, looseParts - smallParts),
    stripS: strips,
    metreS: outlineMm / 1000,
    thinMetreS: thinMm / 1000,
  };
}

/** How long it takes, minutes. */
export function weedingMinutes(work: WeedingWork, figures: WeedingFigures = WEEDING_FIGURES): number {
  const units = unitsOf(work);
  return (Object.keys(units) as (keyof WeedingFigures)[]).reduce((sum, key) => sum + units[key] * figures[key], 0) / 60;
}
