import {
  boundsOf,
  boxesTouch,
  edgeIndex,
  edgesOf,
  grow,
  perimeter,
  regionsOf,
  ringsOf,
  squareToEdge,
  subtract,
  tolerances,
  unite,
  widenBox,
  type Box,
  type Edge,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { isCrumb } from './crumbs.js';
import type { Separation, StackedPaint, VisibleLayer } from './layer.js';
import { BARE } from './put-right.js';
import { boxIndex } from './separate.js';

/** A separation in which nothing shows that no blade can cut. */
export interface CuttableSeparation extends Separation {
  /** The layers of which nothing was left, by their keys. */
  readonly tooFine: readonly string[];
}

/** A shred along an edge is longer than this, mm; what is shorter is the tip of a corner. */
const SHRED_MM = 1;
/** What is taken out of a layer goes this far over its edge, so that rounding leaves no thread, mm. */
const EDGE_MM = 0.002;
/** Edges no further apart than this are shared, mm. */
const SHARED_MM = tolerances.HAIRLINE_MM;

/** A part of a layer that is too fine to cut. */
interface FinePart {
  readonly from: number;
  readonly region: Region;
}

/**
 * Takes out of what shows whatever vanishes when it is moved in by CRUMB_MM all round: whole pieces, and the shreds that two lines leave between them where they should coincide.
 * Each goes to the layer with which it shares most of its edge, so that no bare slit is left; what borders on none stays out. Must come before layers grow under others: a shred
 * would grow into a strip as wide as the trap. Cost: two offsets of the layers that others cover; more only where something is found.
 */
export function withoutFineParts(separation: Separation): CuttableSeparation {
  const { stack, layers } = separation;
  const fine: FinePart[] = [];
  const left = layers.map((layer, i): VisibleLayer => {
    if (layer.key === BARE) return layer;
    const parts = finePartsOf(layer, stack);
    fine.push(...parts.regions.map((region) => ({ from: i, region })));
    return parts.regions.length === 0 ? layer : { ...layer, visible: parts.visible };
  });
  if (fine.length === 0) return { ...separation, tooFine: [] };
  const given = homesOf(fine, left);
  // One after the other: two parts that touch may go to two layers, and must not lie on each other there.
  const whole = [...left];
  for (const [i, parts] of given) whole[i] = withParts(whole[i]!, parts, whole);
  return {
    ...separation,
    layers: whole.filter(({ visible }) => visible.length > 0),
    tooFine: whole.flatMap(({ key, visible }) => (visible.length > 0 ? [] : [key])),
  };
}

/** The parts of a layer that are too fine, and the layer without them. */
function finePartsOf(
  { visible, paints }: VisibleLayer,
  stack: readonly StackedPaint[],
): { readonly visible: Rings; readonly regions: Region[] } {
  const regions = regionsOf(visible);
  const pieces = regions.filter(isCrumb);
  const gone = new Set(pieces);
  const rest = pieces.length === 0 ? visible : ringsOf(regions.filter((region) => !gone.has(region)));
  // Only where something covers it can two lines have met that should coincide.
  const shreds = paints.some((i) => stack[i]!.coveredBy.length > 0) ? shredsOf(rest) : [];
  if (shreds.length === 0) return { visible: rest, regions: pieces };
  return {
    visible: subtract(
      rest,
      shreds.flatMap((shred) => grow(ringsOf([shred]), EDGE_MM)),
    ),
    regions: [...pieces, ...shreds],
  };
}

/** Stretches along an edge that are thinner than a blade can leave, and longer than the tip of a corner. */
function shredsOf(rings: Rings): Region[] {
  if (rings.length === 0) return [];
  const open = grow(grow(rings, -tolerances.CRUMB_MM), tolerances.CRUMB_MM + EDGE_MM);
  return regionsOf(subtract(rings, open)).filter(({ outer }) => perimeter(outer) / 2 > SHRED_MM);
}

/** For each layer, by its place, the parts that it shares more of their edges with than any other does. */
function homesOf(fine: readonly FinePart[], layers: readonly VisibleLayer[]): Map<number, Region[]> {
  const edges = edgesNear(
    fine.map(({ region }) => boundsOf([region.outer])!),
    layers,
  );
  const homes = new Map<number, Region[]>();
  if (edges.length === 0) return homes;
  const index = edgeIndex(edges.map(({ edge }) => edge));
  for (const { from, region } of fine) {
    const shared = new Map<number, number>();
    for (const ring of [region.outer, ...region.holes])
      eachStep(ring, (midX, midY, lengthMm) => {
        const near = index.search(midX - SHARED_MM, midY - SHARED_MM, midX + SHARED_MM, midY + SHARED_MM, (e) => {
          const { edge, layer } = edges[e]!;
          return layer !== from && squareToEdge(midX, midY, ...edge) <= SHARED_MM * SHARED_MM;
        });
        for (const layer of new Set(near.map((e) => edges[e]!.layer)))
          shared.set(layer, (shared.get(layer) ?? 0) + lengthMm);
      });
    const [home] = [...shared].sort(([, a], [, b]) => b - a)[0] ?? [];
    if (home !== undefined) homes.set(home, [...(homes.get(home) ?? []), region]);
  }
  return homes;
}

/** The edges of films that pass by some boxes, and of which layer each is. */
function edgesNear(
  boxes: readonly Box[],
  layers: readonly VisibleLayer[],
): readonly { readonly edge: Edge; readonly layer: number }[] {
  const near = boxIndex(boxes);
  const passesBy = ([x, y, endX, endY]: Edge) => {
    const box = {
      minX: Math.min(x, endX),
      minY: Math.min(y, endY),
      maxX: Math.max(x, endX),
      maxY: Math.max(y, endY),
    };
    return near(widenBox(box, SHARED_MM), () => true).length > 0;
  };
  // Ring by ring: of a large drawing few edges are kept.
  return layers.flatMap(({ key, visible }, layer) =>
    key === BARE
      ? []
      : visible.flatMap((ring) =>
          edgesOf([ring], [])
            .filter(passesBy)
            .map((edge) => ({ edge, layer })),
        ),
  );
}

/** Edges are looked at in steps of this length, mm: one edge may run along two layers. */
const STEP_MM = 0.5;
const MOST_STEPS = 200;

/** The middle and the length of each step along a ring. */
function eachStep(ring: Ring, act: (midX: number, midY: number, lengthMm: number) => void): void {
  for (const [x, y, endX, endY] of edgesOf([ring], [])) {
    const lengthMm = Math.hypot(endX - x, endY - y);
    const steps = Math.min(MOST_STEPS, Math.ceil(lengthMm / STEP_MM));
    for (let k = 0; k < steps; k += 1) {
      const at = (k + 0.5) / steps;
      act(x + (endX - x) * at, y + (endY - y) * at, lengthMm / steps);
    }
  }
}

/** A layer with parts that it is given. They reach a hair into it, so that they join, and into nothing else that shows. */
function withParts(layer: VisibleLayer, parts: readonly Region[], all: readonly VisibleLayer[]): VisibleLayer {
  const grown = parts.flatMap((part) => grow(ringsOf([part]), EDGE_MM));
  const box = boundsOf(grown);
  // Thinner than the kernel's own grid.
  if (!box) return layer;
  const others = all
    .filter((other) => other !== layer)
    .flatMap(({ visible }) => visible.filter((ring) => boxesTouch(boundsOf([ring])!, box)));
  const given = others.length > 0 ? subtract(unite(grown), others) : unite(grown);
  return { ...layer, visible: unite([...layer.visible, ...given]), given };
}
