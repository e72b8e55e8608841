import Flatbush from 'flatbush';
import {
  areaOf,
  boundsOf,
  boxesTouch,
  grow,
  intersect,
  joinBoxes,
  perimeter,
  squareToEdge,
  type Box,
} from '../../geometry/index.js';
import type { Separation, StackedPaint, VisibleLayer } from './layer.js';
import { ringsNear } from './separate.js';

/** Two layers whose visible areas meet, the one named first lying first in the separation. */
export interface LayerContact {
  readonly a: string;
  readonly b: string;
  /** Round the edge that they share, mm. */
  readonly box: Box;
  /** From the middle of all layers' box to the farthest point of that edge, mm. */
  readonly farthestMm: number;
}

/** Edges no further apart than this meet: half a cutter's step and a little. */
const REACH_MM = 0.02;

/**
 * Which layers meet, and where. Visible areas do not overlap, so two meet just where a corner of the one lies on an edge of the other: all
 * edges stand in one index, and each looks only at what is within reach.
 */
export function contactsOf(layers: readonly VisibleLayer[]): LayerContact[] {
  const boxes = layers.map((layer) => boundsOf(layer.visible)!);
  const all = boxes.reduce<Box | null>(joinBoxes, null);
  const edges = edgesNearOthers(layers, boxes);
  if (!all || edges.count === 0) return [];
  const { at, layerOf, count } = edges;
  const index = new Flatbush(count);
  for (let i = 0; i < count; i += 1) {
    const [x, y, endX, endY] = [at[4 * i]!, at[4 * i + 1]!, at[4 * i + 2]!, at[4 * i + 3]!];
    index.add(Math.min(x, endX), Math.min(y, endY), Math.max(x, endX), Math.max(y, endY));
  }
  index.finish();
  const middle = { x: (all.minX + all.maxX) / 2, y: (all.minY + all.maxY) / 2 };
  const found = new Map<number, { minX: number; minY: number; maxX: number; maxY: number; farthestMm: number }>();
  const meet = (pair: number, x: number, y: number) => {
    let known = found.get(pair);
    if (!known) found.set(pair, (known = { minX: x, minY: y, maxX: x, maxY: y, farthestMm: 0 }));
    if (x < known.minX) known.minX = x;
    if (x > known.maxX) known.maxX = x;
    if (y < known.minY) known.minY = y;
    if (y > known.maxY) known.maxY = y;
    known.farthestMm = Math.max(known.farthestMm, Math.hypot(x - middle.x, y - middle.y));
  };
  for (let i = 0; i < count; i += 1) {
    const [x, y, layer] = [at[4 * i]!, at[4 * i + 1]!, layerOf[i]!];
    // Every edge asks whether its first corner lies on another layer's edge; its last is the first of the next.
    index.search(x - REACH_MM, y - REACH_MM, x + REACH_MM, y + REACH_MM, (j) => {
      const other = layerOf[j]!;
      if (other !== layer && isOnEdge(x, y, at, j))
        meet(Math.min(layer, other) * layers.length + Math.max(layer, other), x, y);
      return false;
    });
  }
  return [...found]
    .sort(([one], [other]) => one - other)
    .map(([pair, { farthestMm, ...box }]) => ({
      a: layers[Math.floor(pair / layers.length)]!.key,
      b: layers[pair % layers.length]!.key,
      box,
      farthestMm,
    }));
}

/** All edges that lie in the box of another layer, as x, y, x, y, each with its layer's place in the list. */
function edgesNearOthers(
  layers: readonly VisibleLayer[],
  boxes: readonly Box[],
): { readonly at: readonly number[]; readonly layerOf: readonly number[]; readonly count: number } {
  const at: number[] = [];
  const layerOf: number[] = [];
  layers.forEach(({ visible }, i) => {
    const others = boxes.filter((box, j) => j !== i && boxesTouch(box, boxes[i]!, REACH_MM));
    if (others.length === 0) return;
    for (const ring of visible) {
      for (let k = 0, j = ring.length - 2; k < ring.length; j = k, k += 2) {
        const [x, y, endX, endY] = [ring[j]!, ring[j + 1]!, ring[k]!, ring[k + 1]!];
        const edge = {
          minX: Math.min(x, endX),
          minY: Math.min(y, endY),
          maxX: Math.max(x, endX),
          maxY: Math.max(y, endY),
        };
        if (!others.some((box) => boxesTouch(box, edge, REACH_MM))) continue;
        at.push(x, y, endX, endY);
        layerOf.push(i);
      }
    }
  });
  return { at, layerOf, count: layerOf.length };
}

function isOnEdge(px: number, py: number, at: readonly number[], i: number): boolean {
  return squareToEdge(px, py, at[4 * i]!, at[4 * i + 1]!, at[4 * i + 2]!, at[4 * i + 3]!) <= REACH_MM * REACH_MM;
}

/** How layers lie to each other: which meet, and which the artwork paints over which. */
export interface Neighbours {
  readonly contacts: readonly LayerContact[];
  /** Lower and upper layer of every two that overlap, once each way that they do. */
  readonly overlaps: readonly (readonly [lower: string, upper: string])[];
}

export function neighboursOf({ stack, layers }: Separation): Neighbours {
  const known = new Map<string, readonly [string, string]>();
  for (const paint of stack) {
    for (const j of paint.coveredBy) {
      const upper = stack[j]!;
      const key = `${paint.layer} > ${upper.layer}`;
      if (!known.has(key) && overlap(paint, upper)) known.set(key, [paint.layer, upper.layer]);
    }
  }
  return { contacts: contactsOf(layers), overlaps: [...known.values()] };
}

/** Whether two paints share an area; those that only abut do not. */
function overlap(a: StackedPaint, b: StackedPaint): boolean {
  const [width, height] = [
    Math.min(a.box.maxX, b.box.maxX) - Math.max(a.box.minX, b.box.minX),
    Math.min(a.box.maxY, b.box.maxY) - Math.max(a.box.minY, b.box.minY),
  ];
  if (width < REACH_MM || height < REACH_MM) return false;
  const common = {
    minX: Math.max(a.box.minX, b.box.minX),
    minY: Math.max(a.box.minY, b.box.minY),
    maxX: Math.min(a.box.maxX, b.box.maxX),
    maxY: Math.min(a.box.maxY, b.box.maxY),
  };
  const [near, far] = [ringsNear([a], common, b), ringsNear([b], common, a)];
  if (near.length === 0 || far.length === 0) return false;
  const both = intersect(near, far);
  // Edges that should coincide overlap by hairs, which are no overlap. An area that no disc of a radius fits into is at most about that
  // radius times its outline, so most need no closer look.
  return (
    both.length > 0 &&
    (areaOf(both) > 2 * REACH_MM * both.reduce((sum, ring) => sum + perimeter(ring), 0) ||
      grow(both, -REACH_MM).length > 0)
  );
}
