import { text } from '../words/schema.js';
import type { Slice } from '../stations/slice.js';

/** What a job is called, for whom it is, and by when. */
export interface Heading {
  readonly title: string;
  readonly customer: string;
  /** ISO date, or null when nobody is waiting. */
  readonly due: string | null;
}

export const headingSlice: Slice<Heading> = {
  schema: {
    title: { ...text, minLength: 1 },
    customer: text,
    due: { anyOf: [{ type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' }, { type: 'null' }] },
  },
  beginning: { title: '', customer: '', due: null },
  upgrades: {},
};
