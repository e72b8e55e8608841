import type { Rectangle } from './leftovers.js';
import { figure, id, name, object, size, whole, yes } from '../words/schema.js';

/** A sticky carrier that takes a sheet or an offcut through the cutter. */
export interface Mat {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** Its rim, which does not hold film. The lower left corner of the field within is where a piece's lower left corner is laid. */
  readonly edgeMm: number;
}

/** The field of a mat that holds film: all of it inside its rim, mm. */
export function fieldOf({ widthMm, lengthMm, edgeMm }: Mat): Rectangle {
  return { widthMm: widthMm - 2 * edgeMm, lengthMm: lengthMm - 2 * edgeMm };
}

/** A mat as the shop keeps it. */
export interface MatCard extends Mat {
  /** How often it had been used before the app began to count. */
  readonly usesBefore: number;
  readonly retired: boolean;
}

export const MAT_SCHEMA = object({
  id,
  name,
  widthMm: size,
  lengthMm: size,
  edgeMm: figure(0, 100),
  usesBefore: whole(0, 1_000_000),
  retired: yes,
});
