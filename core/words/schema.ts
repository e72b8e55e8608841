/*
 * Pieces of JSON schema that records share. All numbers are mm, degrees, or counts, and none is without bounds.
 */

/** An object with exactly these fields. */
export function object(properties: Readonly<Record<string, unknown>>) {
  return { type: 'object', additionalProperties: false, required: Object.keys(properties), properties };
}

/** What may also be left to the app, or not be known. */
export function orNull(schema: object) {
  return { anyOf: [schema, { type: 'null' }] };
}

export const text = { type: 'string', maxLength: 200 } as const;
/** A name, which is never empty. */
export const name = { type: 'string', minLength: 1, maxLength: 80 } as const;
/** What somebody wrote down in their own words. */
export const note = { type: 'string', maxLength: 2000 } as const;
/** A name that the app gave. */
export const id = { type: 'string', minLength: 1, maxLength: 64, pattern: '^[A-Za-z0-9_.-]+$' } as const;
export const yes = { type: 'boolean' } as const;
export const colour = { type: 'string', pattern: '^#[0-9a-f]{6}$' } as const;
/** A day, as "2026-03-01". */
export const day = { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' } as const;
/** A length or a margin. */
export const mm = { type: 'number', minimum: 0, maximum: 100_000 } as const;
/** A side of something that is there. */
export const size = { type: 'number', minimum: 1, maximum: 100_000 } as const;
/** A place on a design. */
export const coordinate = { type: 'number', minimum: -100_000, maximum: 100_000 } as const;
/** A remedy's or a clearance's few mm. */
export const few = { type: 'number', minimum: 0, maximum: 50 } as const;

/** A figure between two bounds. */
export function figure(minimum: number, maximum: number) {
  return { type: 'number', minimum, maximum } as const;
}

/** A count between two bounds. */
export function whole(minimum: number, maximum: number) {
  return { type: 'integer', minimum, maximum } as const;
}

/** One word of a few. */
export function oneOf<T extends string>(words: readonly T[]) {
  return { enum: words } as const;
}
