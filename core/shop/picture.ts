import { id, object, text } from '../words/schema.js';

/** A picture of something in the shop: a file that was handed in, by its id, its name and what it holds. */
export interface Picture {
  readonly id: string;
  readonly fileName: string;
  readonly sha256: string;
}

export const PICTURE_SCHEMA = object({ id, fileName: text, sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' } });
