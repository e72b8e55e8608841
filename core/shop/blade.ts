import { figure, id, name, note, object, oneOf, yes } from '../words/schema.js';

export const BLADE_ANGLES = ['30', '45', '60'] as const;

/** A drag knife. */
export interface Blade {
  readonly id: string;
  readonly name: string;
  /** Of its edge, degrees: the steeper, the thicker the film. */
  readonly angleDeg: (typeof BLADE_ANGLES)[number];
  /** How far its tip trails its holder. */
  readonly offsetMm: number;
  /** What it had cut before the app began to count, m. */
  readonly metresBefore: number;
  readonly note: string;
  readonly retired: boolean;
}

export const BLADE_SCHEMA = object({
  id,
  name,
  angleDeg: oneOf(BLADE_ANGLES),
  offsetMm: figure(0.05, 2),
  metresBefore: figure(0, 1_000_000),
  note,
  retired: yes,
});
