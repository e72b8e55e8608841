import {
  edgeIndex,
  edgesOf,
  perimeter,
  squareToEdge,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { weedingBorders } from './border.js';
import type { BorderKind } from './border-kinds.js';
import { settledLine } from './drawn-relief.js';
import { centreTicks, labelLines, type LabelWish } from './labels.js';
import type { WeedingWork } from './minutes.js';
import { reliefLines } from './relief.js';
import { RELIEF, type ReliefLine } from './relief-wish.js';
import { stripsOf, type Strip } from './strips.js';
import { insideOf, wasteOf, type Waste } from './waste.js';
import { loosePartsOf, stencilMap, weedMap, type LoosePart, type WeedMap } from './weed-map.js';

/** What is prepared of one layer, and what it takes to weed it. */
export interface LayerWeeding {
  readonly border: readonly Ring[];
  readonly relief: readonly ReliefLine[];
  /** Of each of them the line as the maker drew it; null for those that the app laid. */
  readonly asDrawn: readonly (ReliefLine | null)[];
  /** What is written into the waste, and ticks at the middle of the border's sides. */
  readonly labels: readonly ReliefLine[];
  /** Drawn lines that would run into what stays: they are not cut. */
  readonly refused: readonly ReliefLine[];
  readonly strips: readonly Strip[];
  readonly map: WeedMap;
  readonly looseParts: readonly LoosePart[];
  readonly work: WeedingWork;
}

export interface LayerWeedingWish {
  /** A border of the layer's own, or one that all layers share. */
  readonly border: { readonly kind: BorderKind; readonly gapMm: number } | { readonly rings: readonly Ring[] };
  /** Whether the waste is parted by relief lines, and how bulky strips may be. */
  readonly relief: boolean;
  readonly bulkMm: number;
  /** Lines that the maker drew, and places at which no line is wanted. */
  readonly drawn: readonly ReliefLine[];
  readonly gone: readonly { readonly xMm: number; readonly yMm: number }[];
  /** What is written into the waste, if anything is. */
  readonly label?: LabelWish | null;
  readonly onProgress?: (done: number) => void;
  /** The thinnest stroke that the film can be weeded in. */
  readonly thinnestMm: number;
  /** What is cut comes out, and the film round it is used. */
  readonly isStencil?: boolean;
}

/** A part smaller than this takes as long as a counter, nearly, mm². Source: trade practice. */
const SMALL_MM2 = 30;

/**
 * Prepares a layer's cut (kernel-clean rings) for weeding. `marks` stay in the film like parts, and are enclosed by the border, but are not counted.
 * `thin` are the parts of it that are thinner than twice what the film can weed.
 */
export function layerWeeding(
  cut: Rings,
  marks: Rings,
  thin: readonly Region[],
  {
    border: wish,
    relief: wanted,
    bulkMm,
    drawn,
    gone,
    label,
    thinnestMm,
    isStencil = false,
    onProgress,
  }: LayerWeedingWish,
): LayerWeeding {
  const stays = [...cut, ...marks];
  const border = 'rings' in wish ? wish.rings : weedingBorders(wish.kind, stays, wish.gapMm);
  const waste = wasteOf(border, stays);
  // Of a design in panels each line lies on one of them.
  const holds = insideOf(border);
  const here = drawn.filter((line) =>
    edgesOf([], [line]).some(([x0, y0, x1, y1]) => holds((x0 + x1) / 2, (y0 + y1) / 2)),
  );
  // Round what is cut out of a stencil all film stays.
  const settled = here.map((line) => (isStencil ? null : settledLine(line, waste, RELIEF.clearMm)));
  const taken = settled.filter((line) => line !== null);
  const ruled =
    wanted && !isStencil
      ? reliefLines(waste, { ...RELIEF, bulkMm }, { taken, ...(onProgress && { onProgress }) }).filter(
          (line) => !gone.some(({ xMm, yMm }) => passes(line, xMm, yMm)),
        )
      : [];
  const relief = [...taken, ...ruled];
  // Round a stencil nothing is waste.
  const strips = border.length > 0 && !isStencil ? stripsOf(waste, relief) : [];
  const looseParts = loosePartsOf(cut, thinnestMm);
  const map = isStencil ? stencilMap(cut, looseParts) : weedMap(cut, looseParts);
  return {
    border,
    relief,
    asDrawn: [...here.filter((_, i) => settled[i] !== null), ...ruled.map(() => null)],
    labels: label && !isStencil ? withTicks(waste, relief, label) : [],
    refused: here.filter((_, i) => settled[i] === null),
    strips,
    map,
    looseParts,
    work: {
      sheets: 1,
      // What is cut out of a stencil is lifted as counters are.
      counters: isStencil ? looseParts.length : map.counters,
      looseParts: isStencil ? 0 : looseParts.length,
      smallParts: isStencil ? 0 : looseParts.filter(({ areaMm2 }) => areaMm2 < SMALL_MM2).length,
      strips: strips.length,
      outlineMm: cut.reduce((sum, ring) => sum + perimeter(ring), 0),
      thinMm: outlineIn(cut, thin),
    },
  };
}

function withTicks(waste: Waste, relief: readonly ReliefLine[], label: LabelWish): ReliefLine[] {
  const ticks = centreTicks(waste, RELIEF.clearMm);
  return [...ticks, ...labelLines(waste, [...relief, ...ticks], label)];
}

/** A line passes a place that is nearer than this, mm. */
const PASSES_MM = 2;

function passes(line: ReliefLine, x: number, y: number): boolean {
  return edgesOf([], [line]).some((edge) => squareToEdge(x, y, ...edge) < PASSES_MM ** 2);
}

/** Edges of thin parts that lie so near an outline are the outline's, mm. */
const ON_OUTLINE_MM = 0.02;

/** How much of an outline belongs to some parts of its area. */
function outlineIn(cut: Rings, parts: readonly Region[]): number {
  if (parts.length === 0) return 0;
  const edges = edgesOf(cut, []);
  const index = edgeIndex(edges);
  const isOnOutline = (x: number, y: number) =>
    index
      .search(x - ON_OUTLINE_MM, y - ON_OUTLINE_MM, x + ON_OUTLINE_MM, y + ON_OUTLINE_MM)
      .some((i) => squareToEdge(x, y, ...edges[i]!) < ON_OUTLINE_MM ** 2);
  return edgesOf(
    parts.flatMap(({ outer, holes }) => [outer, ...holes]),
    [],
  ).reduce(
    (sum, [x0, y0, x1, y1]) => (isOnOutline((x0 + x1) / 2, (y0 + y1) / 2) ? sum + Math.hypot(x1 - x0, y1 - y0) : sum),
    0,
  );
}
