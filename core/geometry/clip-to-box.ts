import { boundsOf, type Box, type Ring } from './rings.js';

/**
 * A ring cut down to a box (Sutherland and Hodgman): inside the box it winds round every point as before, outside it is nowhere. Where it
 * leaves the box and comes back, it runs along the box's edge, so it may touch itself there; it is meant for areas that lie well inside.
 * Comes back as it is when it lies in the box; empty when it does not reach it. Linear in its points: far cheaper than an operation of
 * the kernel that would have to look at all of it.
 */
export function clipRingToBox(ring: Ring, box: Box, ringBox: Box = boundsOf([ring])!): Ring {
  if (ringBox.minX >= box.minX && ringBox.maxX <= box.maxX && ringBox.minY >= box.minY && ringBox.maxY <= box.maxY)
    return ring;
  // Each cut adds at most half as many points as cross its line; two buffers take turns.
  const room = 2 * ring.length + 16;
  if (buffers[0].length < room) buffers = [new Float64Array(2 * room), new Float64Array(2 * room)];
  let from: Ring = ring;
  let size = ring.length;
  let turn = 0;
  const cutAt = (axis: 0 | 1, sign: 1 | -1, at: number) => {
    if (size === 0) return;
    const to = buffers[turn]!;
    size = cut(from, size, to, axis, sign, at);
    from = to;
    turn = 1 - turn;
  };
  if (ringBox.minX < box.minX) cutAt(0, 1, box.minX);
  if (ringBox.maxX > box.maxX) cutAt(0, -1, box.maxX);
  if (ringBox.minY < box.minY) cutAt(1, 1, box.minY);
  if (ringBox.maxY > box.maxY) cutAt(1, -1, box.maxY);
  return from.slice(0, size);
}

/** Kept from one ring to the next: to lay out new ones costs more than the cuts. */
let buffers: [Float64Array, Float64Array] = [new Float64Array(4096), new Float64Array(4096)];

/** Keeps what lies on one side of a line across `axis`: above `at` for sign 1, below for -1. Gives how many figures it wrote. */
function cut(points: Ring, size: number, out: Float64Array, axis: 0 | 1, sign: 1 | -1, at: number): number {
  let n = 0;
  let lastX = points[size - 2]!;
  let lastY = points[size - 1]!;
  let last = sign * ((axis === 0 ? lastX : lastY) - at);
  for (let i = 0; i < size; i += 2) {
    const x = points[i]!;
    const y = points[i + 1]!;
    const here = sign * ((axis === 0 ? x : y) - at);
    if (here >= 0 !== last >= 0) {
      const t = last / (last - here);
      out[n] = axis === 0 ? at : lastX + (x - lastX) * t;
      out[n + 1] = axis === 0 ? lastY + (y - lastY) * t : at;
      n += 2;
    }
    if (here >= 0) {
      out[n] = x;
      out[n + 1] = y;
      n += 2;
    }
    lastX = x;
    lastY = y;
    last = here;
  }
  return n;
}
