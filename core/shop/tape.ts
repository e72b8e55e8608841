import { figure, id, name, note, object, oneOf, size, whole, yes } from '../words/schema.js';

export const TACKS = ['low', 'medium', 'high'] as const;

/** Transfer tape: it carries what is cut from its liner to the surface. */
export interface Tape {
  readonly id: string;
  readonly name: string;
  readonly tack: (typeof TACKS)[number];
  readonly matter: 'paper' | 'clear';
  readonly widthMm: number;
  /** How often the piece in hand was used; reused tape has a life. */
  readonly uses: number;
  readonly lastsUses: number;
  readonly costPerM2: number;
  readonly note: string;
  readonly retired: boolean;
}

export const TAPE_MATTERS = ['paper', 'clear'] as const;

export const TAPE_SCHEMA = object({
  id,
  name,
  tack: oneOf(TACKS),
  matter: oneOf(TAPE_MATTERS),
  widthMm: size,
  uses: whole(0, 100_000),
  lastsUses: whole(1, 1000),
  costPerM2: figure(0, 1000),
  note,
  retired: yes,
});
