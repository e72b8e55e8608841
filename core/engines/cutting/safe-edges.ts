import { turningStrip } from './drag-knife.js';

/** What must be left free on a piece, mm; at the bottom, where it begins, also room to turn the knife. */
export interface Edges {
  readonly sides: number;
  readonly bottom: number;
  readonly top: number;
}

/** The knife needs this much more than its turning, mm. */
const TURN_MARGIN_MM = 1;

/** What must stay free on a piece whose own edge is given: film lifts there, the knife may run off it, and before anything is cut it is turned. */
export function safeEdges(edgeMm: number, bladeOffsetMm: number): Edges {
  const sides = Math.max(edgeMm, bladeOffsetMm);
  return { sides, bottom: Math.max(edgeMm, turningStrip(bladeOffsetMm) + TURN_MARGIN_MM), top: sides };
}
