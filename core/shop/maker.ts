import { figure, id, name, object, oneOf, orNull, yes } from '../words/schema.js';
import { STRIP_BULK } from './film.js';

export const HANDS = ['right', 'left'] as const;

/** Who is at work. */
export interface Maker {
  readonly id: string;
  readonly name: string;
  readonly hand: (typeof HANDS)[number];
  /** a₀: what this hand stays within when pieces of 100 to 300 mm are laid, with marks and by eye. */
  readonly placementWithMarksMm: number;
  readonly placementByEyeMm: number;
  /** Strips of waste that this hand likes to pull: no larger circle fits into them. Null for as each film says. */
  readonly stripBulkMm: number | null;
  readonly retired: boolean;
}

export const MAKER_SCHEMA = object({
  id,
  name,
  hand: oneOf(HANDS),
  placementWithMarksMm: figure(0.02, 5),
  placementByEyeMm: figure(0.02, 5),
  stripBulkMm: orNull(STRIP_BULK),
  retired: yes,
});

/** A careful hand (docs/trap.md). */
export function newMaker(id: string): Maker {
  return {
    id,
    name: 'New maker',
    hand: 'right',
    placementWithMarksMm: 0.25,
    placementByEyeMm: 0.5,
    stripBulkMm: null,
    retired: false,
  };
}
