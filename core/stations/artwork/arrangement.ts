import {
  compose,
  IDENTITY,
  joinBoxes,
  rotation,
  scaling,
  transformBox,
  translation,
  type Box,
  type Matrix,
} from '../../geometry/index.js';
import type { ArtworkPart, Placement } from './artwork-part.js';

/*
 * Arranging finished parts on a design: where each lies, and the ways to bring them into order. Positions are mm before the surface
 * sizes the whole, y down.
 */

/** A part's own size, before it is placed. */
export interface OwnSize {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A part's placement and the box it takes up. */
export interface PlacedPart {
  readonly id: string;
  /** Parts of one group are one thing to arrange. */
  readonly group: string | null;
  readonly place: Placement;
  readonly box: Box;
}

/** From a part's own mm (its top left corner at 0, 0) to the design's. */
export function placementMatrix(place: Placement, own: OwnSize): Matrix {
  const { xMm, yMm, scale, turnDeg, mirrored } = place;
  return [
    rotation(turnDeg),
    scaling(mirrored ? -scale : scale, scale),
    translation(-own.widthMm / 2, -own.heightMm / 2),
  ].reduce(compose, translation(xMm, yMm));
}

/** What a part takes up at its own size, mm from its middle, turned and mirrored as it stood when that was looked at. */
export interface PartExtent {
  readonly box: Box;
  readonly turnDeg: number;
  readonly mirrored: boolean;
}

/** The box that a placed part takes up. Turned or mirrored otherwise than its extent was taken, it is a box that holds it, with room to spare. */
export function placedBox({ xMm, yMm, scale, turnDeg, mirrored }: Placement, extent: PartExtent): Box {
  const mirror = (isMirrored: boolean) => scaling(isMirrored ? -1 : 1, 1);
  const turn =
    turnDeg === extent.turnDeg && mirrored === extent.mirrored
      ? IDENTITY
      : [rotation(turnDeg), mirror(mirrored), mirror(extent.mirrored), rotation(-extent.turnDeg)].reduce(compose);
  return transformBox(extent.box, [translation(xMm, yMm), scaling(scale), turn].reduce(compose));
}

export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** The box round several; null for none. */
export function boxRound(boxed: readonly { readonly box: Box }[]): Box | null {
  return boxed.reduce<Box | null>((sum, { box }) => joinBoxes(sum, box), null);
}

/** The ends of a box along an axis. */
const ENDS = { x: ['minX', 'maxX'], y: ['minY', 'maxY'] } as const;

/** A part by itself, or those of a group, and the box round them. */
interface Unit {
  readonly parts: readonly PlacedPart[];
  readonly box: Box;
}

function unitsOf(parts: readonly PlacedPart[]): Unit[] {
  const units = new Map<string, PlacedPart[]>();
  for (const part of parts) {
    const key = part.group === null ? `part ${part.id}` : `group ${part.group}`;
    const unit = units.get(key);
    if (unit) unit.push(part);
    else units.set(key, [part]);
  }
  return [...units.values()].map((own) => ({ parts: own, box: boxRound(own)! }));
}

/** The ids of parts with all others of their groups. */
export function withGroups(parts: readonly Pick<PlacedPart, 'id' | 'group'>[], ids: readonly string[]): string[] {
  const groups = new Set(parts.flatMap(({ id, group }) => (ids.includes(id) && group !== null ? [group] : [])));
  return parts.filter(({ id, group }) => ids.includes(id) || (group !== null && groups.has(group))).map(({ id }) => id);
}

/** The placements of parts brought to one line: an edge or the middle of `frame`, by default of the box round all of them. */
export function aligned(parts: readonly PlacedPart[], to: Alignment, frame?: Box): Map<string, Placement> {
  const all = frame ?? boxRound(parts);
  return new Map(
    unitsOf(parts).flatMap((unit) =>
      unit.parts.map(
        (part) => [part.id, moved(part.place, all ? shiftTo(unit.box, all, to) : { x: 0, y: 0 })] as const,
      ),
    ),
  );
}

function shiftTo(box: Box, all: Box, to: Alignment): { x: number; y: number } {
  switch (to) {
    case 'left':
      return { x: all.minX - box.minX, y: 0 };
    case 'centre':
      return { x: (all.minX + all.maxX - box.minX - box.maxX) / 2, y: 0 };
    case 'right':
      return { x: all.maxX - box.maxX, y: 0 };
    case 'top':
      return { x: 0, y: all.minY - box.minY };
    case 'middle':
      return { x: 0, y: (all.minY + all.maxY - box.minY - box.maxY) / 2 };
    case 'bottom':
      return { x: 0, y: all.maxY - box.maxY };
  }
}

/**
 * The placements of three or more parts set out along an axis between the first and the last of them: with equal gaps, or with their
 * middles equally far apart. Fewer parts stay where they are.
 */
export function distributed(
  parts: readonly PlacedPart[],
  axis: 'x' | 'y',
  by: 'gaps' | 'middles',
): Map<string, Placement> {
  const { row, low, high, middle } = inOrder(parts, axis);
  if (row.length < 3) return new Map(parts.map((part) => [part.id, part.place]));
  const [first, last] = [row[0]!, row.at(-1)!];
  const taken = row.reduce((sum, unit) => sum + unit.box[high] - unit.box[low], 0);
  const gap = (last.box[high] - first.box[low] - taken) / (row.length - 1);
  const step = (middle(last) - middle(first)) / (row.length - 1);
  return by === 'gaps'
    ? spacedBy(row, axis, gap)
    : new Map(row.flatMap((unit, i) => shifted(unit, axis, middle(first) + i * step - middle(unit))));
}

/** The placements of parts set out along an axis with the same gap between each two, mm; the first stays, and they keep their order. */
export function spaced(parts: readonly PlacedPart[], axis: 'x' | 'y', gapMm: number): Map<string, Placement> {
  return spacedBy(inOrder(parts, axis).row, axis, gapMm);
}

function inOrder(parts: readonly PlacedPart[], axis: 'x' | 'y') {
  const [low, high] = ENDS[axis];
  const middle = (unit: Unit) => (unit.box[low] + unit.box[high]) / 2;
  return { row: unitsOf(parts).sort((a, b) => middle(a) - middle(b)), low, high, middle };
}

function spacedBy(row: readonly Unit[], axis: 'x' | 'y', gapMm: number): Map<string, Placement> {
  const [low, high] = ENDS[axis];
  const out = new Map<string, Placement>();
  let next = row[0]?.box[low] ?? 0;
  for (const unit of row) {
    for (const [id, place] of shifted(unit, axis, next - unit.box[low])) out.set(id, place);
    next += unit.box[high] - unit.box[low] + gapMm;
  }
  return out;
}

function shifted(unit: Unit, axis: 'x' | 'y', by: number): [string, Placement][] {
  return unit.parts.map((part) => [part.id, moved(part.place, axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by })]);
}

export function moved(place: Placement, by: { readonly x: number; readonly y: number }): Placement {
  return { ...place, xMm: place.xMm + by.x, yMm: place.yMm + by.y };
}

/** A line that a moved box came to lie on, mm. */
export interface SnapLine {
  readonly axis: 'x' | 'y';
  readonly at: number;
}

/**
 * The shift nearest to `by` at which an edge or the middle of the moved box falls on an edge or middle of another, when one is within
 * `reachMm`; each axis by itself. `lines` are those it then lies on.
 */
export function snapped(
  box: Box,
  by: { readonly x: number; readonly y: number },
  others: readonly Box[],
  reachMm: number,
): { readonly by: { x: number; y: number }; readonly lines: SnapLine[] } {
  const out = { x: by.x, y: by.y };
  const lines: SnapLine[] = [];
  for (const axis of ['x', 'y'] as const) {
    const places = (b: Box) =>
      axis === 'x' ? [b.minX, (b.minX + b.maxX) / 2, b.maxX] : [b.minY, (b.minY + b.maxY) / 2, b.maxY];
    let best = { apart: reachMm, shift: by[axis], at: NaN };
    for (const own of places(box)) {
      for (const at of others.flatMap(places)) {
        const shift = at - own;
        const apart = Math.abs(shift - by[axis]);
        if (apart < best.apart) best = { apart, shift, at };
      }
    }
    out[axis] = best.shift;
    if (!Number.isNaN(best.at)) lines.push({ axis, at: best.at });
  }
  return { by: out, lines };
}

/** The parts with one moved so many places up (positive) or down among those it lies over. */
export function reordered(parts: readonly ArtworkPart[], id: string, by: number): ArtworkPart[] {
  const from = parts.findIndex((part) => part.id === id);
  if (from < 0) return [...parts];
  const rest = parts.filter((part) => part.id !== id);
  rest.splice(Math.min(rest.length, Math.max(0, from + by)), 0, parts[from]!);
  return rest;
}

/** The parts with new placements for those named. */
export function withPlaces(parts: readonly ArtworkPart[], places: ReadonlyMap<string, Placement>): ArtworkPart[] {
  return parts.map((part) => ({ ...part, place: places.get(part.id) ?? part.place }));
}

/**
 * The parts as large as the surface has made them, so that the design can be kept at its own size from then on and a figure given for
 * one part is what is cut.
 */
export function atTrueSize(parts: readonly ArtworkPart[], scale: number): ArtworkPart[] {
  if (scale === 1) return [...parts];
  return parts.map((part) => ({
    ...part,
    place: { ...part.place, xMm: part.place.xMm * scale, yMm: part.place.yMm * scale, scale: part.place.scale * scale },
  }));
}
