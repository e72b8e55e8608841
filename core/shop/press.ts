import { figure, id, name, note, object, oneOf, size, yes } from '../words/schema.js';

export const PRESS_KINDS = ['platen', 'mug'] as const;

/** A heat press. */
export interface Press {
  readonly id: string;
  readonly name: string;
  readonly kind: (typeof PRESS_KINDS)[number];
  /** Of the platen; of a mug press, of its heating mat laid flat. */
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly mostC: number;
  readonly note: string;
  readonly retired: boolean;
}

export const PRESS_SCHEMA = object({
  id,
  name,
  kind: oneOf(PRESS_KINDS),
  widthMm: size,
  lengthMm: size,
  mostC: figure(60, 260),
  note,
  retired: yes,
});
