import type { Box } from '../../core/geometry/index.js';

/** Where the picture is: px per mm, and where its origin lies, px. */
export interface Camera {
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

const PADDING_PX = 34;
const SMALLEST = 0.02;
const LARGEST = 400;

function clamp(zoom: number): number {
  return Math.min(LARGEST, Math.max(SMALLEST, zoom));
}

/** All of a box in view, in the middle of what the rulers leave free. */
export function fitted(box: Box, { width, height }: Size, rulerPx: number): Camera {
  const room = {
    width: Math.max(80, width - rulerPx - 2 * PADDING_PX),
    height: Math.max(60, height - rulerPx - 2 * PADDING_PX),
  };
  const zoom = clamp(
    Math.min(room.width / Math.max(box.maxX - box.minX, 1e-3), room.height / Math.max(box.maxY - box.minY, 1e-3)),
  );
  return {
    zoom,
    x: rulerPx + (width - rulerPx) / 2 - (zoom * (box.minX + box.maxX)) / 2,
    y: rulerPx + (height - rulerPx) / 2 - (zoom * (box.minY + box.maxY)) / 2,
  };
}

export function shifted(camera: Camera, byX: number, byY: number): Camera {
  return { ...camera, x: camera.x + byX, y: camera.y + byY };
}

/** Nearer or further by a factor; what lies under the point, px, stays there. */
export function zoomedAt(camera: Camera, factor: number, at: Point): Camera {
  const zoom = clamp(camera.zoom * factor);
  const k = zoom / camera.zoom;
  return { zoom, x: at.x - (at.x - camera.x) * k, y: at.y - (at.y - camera.y) * k };
}

/** Two fingers that went from one pair of points to another, px: what lay under each lies under it still, but for a turn. */
export function pinched(camera: Camera, before: readonly [Point, Point], after: readonly [Point, Point]): Camera {
  const [from, to] = [middle(before), middle(after)];
  const factor =
    Math.hypot(after[1].x - after[0].x, after[1].y - after[0].y) /
    Math.max(1, Math.hypot(before[1].x - before[0].x, before[1].y - before[0].y));
  return zoomedAt(shifted(camera, to.x - from.x, to.y - from.y), factor, to);
}

/** The window has another size: zoom, and what lies in the middle, stay. */
export function resized(camera: Camera, from: Size, to: Size): Camera {
  return shifted(camera, (to.width - from.width) / 2, (to.height - from.height) / 2);
}

/** What moves a picture that was drawn for one camera to where another one has it: a factor about the origin, then a shift, px. */
export function between(
  drawn: Camera,
  now: Camera,
): { readonly factor: number; readonly x: number; readonly y: number } {
  const factor = now.zoom / drawn.zoom;
  return { factor, x: now.x - drawn.x * factor, y: now.y - drawn.y * factor };
}

function middle([a, b]: readonly [Point, Point]): Point {
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
}
