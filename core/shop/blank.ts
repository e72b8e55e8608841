import { colour, day, figure, id, name, note, object, oneOf, orNull, size, text, yes } from '../words/schema.js';
import { PICTURE_SCHEMA, type Picture } from './picture.js';

export const BLANK_KINDS = ['flat', 'cylinder', 'taper', 'compound', 'garment', 'glass'] as const;
export const MATTERS = [
  'glass',
  'gloss paint',
  'matt paint',
  'powder coat',
  'metal',
  'plastic',
  'low-energy plastic',
  'wood',
  'ceramic',
  'card',
  'cotton',
  'polyester',
  'nylon',
] as const;
/** What is measured of a thing. */
export const MEASURES = [
  'width',
  'height',
  'circumference',
  'diameter',
  'diameter at the top',
  'diameter at the foot',
  'straight height',
  'slant',
  'handle gap',
  'chord',
  'height of the chord',
] as const;
export type Measure = (typeof MEASURES)[number];
export const MEASURED_WITH = ['tape', 'calliper', 'rule', 'template'] as const;
export const HELD = ['well', 'edges lift', 'came off', 'not known yet'] as const;

/** One reading. A blank is measured each time: two of one model differ. */
export interface BlankReading {
  readonly what: Measure;
  readonly mm: number;
  /** "2026-03-01" */
  readonly on: string;
  readonly by: string;
  readonly with: (typeof MEASURED_WITH)[number];
}

/** A size that was put on it, and how that held: worth more than any formula. */
export interface BlankTrial {
  readonly what: string;
  readonly widthMm: number;
  readonly heightMm: number | null;
  readonly on: string;
  readonly held: (typeof HELD)[number];
  readonly note: string;
}

/** A thing that gets decorated, as it is known to the shop. */
export interface Blank {
  readonly id: string;
  readonly name: string;
  readonly kind: (typeof BLANK_KINDS)[number];
  readonly matter: (typeof MATTERS)[number];
  readonly colour: string;
  readonly photo: Picture | null;
  readonly readings: readonly BlankReading[];
  readonly trials: readonly BlankTrial[];
  readonly note: string;
  readonly retired: boolean;
}

export const BLANK_SCHEMA = object({
  id,
  name,
  kind: oneOf(BLANK_KINDS),
  matter: oneOf(MATTERS),
  colour,
  photo: orNull(PICTURE_SCHEMA),
  readings: {
    type: 'array',
    maxItems: 200,
    items: object({ what: oneOf(MEASURES), mm: figure(0.1, 100_000), on: day, by: text, with: oneOf(MEASURED_WITH) }),
  },
  trials: {
    type: 'array',
    maxItems: 200,
    items: object({ what: text, widthMm: size, heightMm: orNull(size), on: day, held: oneOf(HELD), note }),
  },
  note,
  retired: yes,
});

export function newBlank(id: string): Blank {
  return {
    id,
    name: 'New blank',
    kind: 'flat',
    matter: 'plastic',
    colour: '#ffffff',
    photo: null,
    readings: [],
    trials: [],
    note: '',
    retired: false,
  };
}

/** What counts of all readings of a measure: the smallest, since a design must fit each of a kind (docs/shop.md); null when it was never measured. */
export function measureOf({ readings }: Pick<Blank, 'readings'>, what: Measure): number | null {
  const all = readings.filter((reading) => reading.what === what).map(({ mm }) => mm);
  return all.length === 0 ? null : Math.min(...all);
}
