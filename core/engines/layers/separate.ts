import Flatbush from 'flatbush';
import {
  boundsOf,
  boxesTouch,
  clipRingToBox,
  joinBoxes,
  signedArea,
  subtract,
  unite,
  widenBox,
  type Box,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { LayerPaint, Separation, StackedPaint, VisibleLayer } from './layer.js';

/**
 * The paints in z-order, each knowing what may cover it; empty ones are left out. Paints of one layer become one where nothing that
 * lies between them touches the upper: the order among things that do not meet means nothing, and the kernel then does them in one go.
 */
function stackPaints(paints: readonly LayerPaint[]): StackedPaint[] {
  const boxed = paints.flatMap((paint) => {
    const box = boundsOf(paint.rings);
    return box ? [{ ...paint, box }] : [];
  });
  if (boxed.length === 0) return [];
  const touching = boxIndex(boxed.map((paint) => paint.box));
  const runs: { layer: string; box: Box; rings: Ring[]; at: number; paints: number; shapes: Set<string> }[] = [];
  const lastOf = new Map<string, (typeof runs)[number]>();
  const runOf: (typeof runs)[number][] = [];
  boxed.forEach((paint, i) => {
    const run = lastOf.get(paint.layer);
    // It may sink down to its layer's last run if that lies above everything of other layers that it touches.
    const sinks =
      run &&
      (run.at === runs.length - 1 ||
        touching(paint.box, (j) => j < i && boxed[j]!.layer !== paint.layer && runOf[j]!.at > run.at).length === 0);
    if (sinks) {
      // One and the same shape again adds nothing, and thousands on one spot would cost their square.
      const shape = shapeKey(paint);
      if (!run.shapes.has(shape)) run.rings.push(...paint.rings);
      run.shapes.add(shape);
      run.box = joinBoxes(run.box, paint.box)!;
      run.paints += 1;
    } else {
      const fresh = {
        layer: paint.layer,
        box: paint.box,
        rings: [...paint.rings],
        at: runs.length,
        paints: 1,
        shapes: new Set([shapeKey(paint)]),
      };
      lastOf.set(paint.layer, fresh);
      runs.push(fresh);
    }
    runOf.push(sinks ? run : runs.at(-1)!);
  });
  const over = boxIndex(runs.map((run) => run.box));
  return runs.map(({ layer, box, rings, at, paints: merged }) => ({
    layer,
    box,
    rings,
    ringBoxes: rings.map((ring) => boundsOf([ring])!),
    ringSlopes: rings.map(slopesOf),
    merged,
    coveredBy: over(box, (j) => j > at && runs[j]!.layer !== layer).sort((x, y) => x - y),
  }));
}

/** Equal for areas that are the same to the last digit, and for hardly any others. */
export function shapeKey({ rings, box }: { readonly rings: Rings; readonly box: Box }): string {
  let [sum, turns] = [0, 0];
  for (const ring of rings) {
    sum += signedArea(ring);
    turns += ring.length;
  }
  return `${box.minX} ${box.minY} ${box.maxX} ${box.maxY} ${sum} ${turns} ${rings[0]?.[0]} ${rings[0]?.[1]}`;
}

export function boxIndex(boxes: readonly Box[]): (box: Box, filter: (i: number) => boolean) => number[] {
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  return ({ minX, minY, maxX, maxY }, filter) => index.search(minX, minY, maxX, maxY, filter);
}

/**
 * Painted areas to layers: what shows of each, and how many shapes of one layer were joined.
 * A layer that others cover wholly is left out.
 */
export function separate(paints: readonly LayerPaint[]): Separation {
  const stack = stackPaints(paints);
  const layers = visibleLayers(stack).filter((layer) => layer.visible.length > 0);
  return { stack, layers, joined: joinedCount(stack, layers) };
}

/** The same separation under other keys. `label` must give every layer a key of its own: layers that share one have to be separated anew. */
export function relabelled(separation: Separation, label: (key: string) => string): Separation {
  return {
    ...separation,
    stack: separation.stack.map((paint) => ({ ...paint, layer: label(paint.layer) })),
    layers: separation.layers.map((layer) => ({ ...layer, key: label(layer.key) })),
  };
}

/**
 * For each layer the area that shows: every paint less the paints of other layers above it, joined per layer.
 * Layers come in the order in which the artwork first paints them, which puts what lies at the back nearest the surface.
 * The visible areas do not overlap and together cover what the paints cover.
 *
 * Cost: each paint meets only the rings above that its own box touches, so far-apart detail never meets.
 */
function visibleLayers(stack: readonly StackedPaint[]): VisibleLayer[] {
  const shown = new Map<string, { paints: number[]; parts: Rings[] }>();
  stack.forEach((paint, i) => {
    const layer = shown.get(paint.layer) ?? { paints: [], parts: [] };
    shown.set(paint.layer, layer);
    layer.paints.push(i);
    const cover = ringsNear(
      paint.coveredBy.map((j) => stack[j]!),
      paint.box,
      paint,
    );
    const visible =
      cover.length > 0 ? subtract(paint.rings, cover) : paint.merged > 1 ? unite(paint.rings) : paint.rings;
    if (visible.length > 0) layer.parts.push(visible);
  });
  return [...shown].map(([key, { paints, parts }]) => ({ key, paints, visible: joinParts(parts) }));
}

/** Clear room round a reach, mm: what is cut down to it must not touch what lies in it. */
const ROOM_MM = 0.05;

/** Figures (two a point) that a ring must have for it to be cheaper to cut down than to hand over whole. */
const WORTH_CLIPPING = 120;

/**
 * The rings of the paints as far as a reach goes: a ring that does not touch it can neither cover nor uncover anything in it, and of one
 * that does only the near part matters. With `covered`, rings that touch none of its own are left out as well. The outline drawn last over a whole picture thus costs each shape beneath it only what lies there.
 */
export function ringsNear(
  paints: readonly StackedPaint[],
  reach: Box,
  covered?: Pick<StackedPaint, 'ringBoxes' | 'ringSlopes'>,
): Ring[] {
  const room = widenBox(reach, ROOM_MM);
  const near: Ring[] = [];
  for (const paint of paints) {
    if (!boxesTouch(paint.box, reach)) continue;
    paint.rings.forEach((ring, i) => {
      const box = paint.ringBoxes[i]!;
      if (!boxesTouch(box, reach) || (covered && !touchesAny(covered, box, paint.ringSlopes[i]!))) return;
      const clipped = ring.length > WORTH_CLIPPING ? clipRingToBox(ring, room, box) : ring;
      if (clipped.length >= 6) near.push(clipped);
    });
  }
  return near;
}

function touchesAny(
  { ringBoxes, ringSlopes }: Pick<StackedPaint, 'ringBoxes' | 'ringSlopes'>,
  box: Box,
  slopes: Box,
): boolean {
  return ringBoxes.some((own, i) => boxesTouch(own, box) && boxesTouch(ringSlopes[i]!, slopes));
}

/** The box of a ring turned by an eighth: the span of x + y and of x − y. It tells round things apart whose boxes touch at a corner only. */
function slopesOf(ring: Ring): Box {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < ring.length; i += 2) {
    const [up, down] = [ring[i]! + ring[i + 1]!, ring[i]! - ring[i + 1]!];
    if (up < minX) minX = up;
    if (up > maxX) maxX = up;
    if (down < minY) minY = down;
    if (down > maxY) maxY = down;
  }
  return { minX, minY, maxX, maxY };
}

/** The union of kernel-clean parts: only those whose boxes touch are given to the kernel, the others pass through as they are. */
export function joinParts(parts: readonly Rings[]): Rings {
  if (parts.length <= 1) return parts[0] ?? [];
  const boxes = parts.map((part) => boundsOf(part)!);
  const index = new Flatbush(parts.length);
  for (const b of boxes) index.add(b.minX, b.minY, b.maxX, b.maxY);
  index.finish();
  const seen = new Uint8Array(parts.length);
  const joined: Ring[] = [];
  for (let start = 0; start < parts.length; start += 1) {
    if (seen[start]) continue;
    seen[start] = 1;
    const cluster = [start];
    for (let c = 0; c < cluster.length; c += 1) {
      const b = boxes[cluster[c]!]!;
      for (const other of index.search(b.minX, b.minY, b.maxX, b.maxY)) {
        if (!seen[other]) {
          seen[other] = 1;
          cluster.push(other);
        }
      }
    }
    joined.push(...(cluster.length === 1 ? parts[start]! : unite(cluster.flatMap((i) => parts[i]!))));
  }
  return joined;
}

/** How many shapes disappeared into others of their film: what a blade would have cut through had they stayed apart. */
function joinedCount(
  stack: readonly StackedPaint[],
  layers: readonly { readonly key: string; readonly visible: Rings }[],
): number {
  const outers = (rings: Rings) => rings.reduce((n, ring) => n + (signedArea(ring) > 0 ? 1 : 0), 0);
  const before = new Map<string, number>();
  for (const paint of stack) before.set(paint.layer, (before.get(paint.layer) ?? 0) + outers(paint.rings));
  return layers.reduce((sum, layer) => sum + Math.max(0, before.get(layer.key)! - outers(layer.visible)), 0);
}
