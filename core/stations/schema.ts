/*
 * Pieces of JSON schema that stations share. All numbers are mm, degrees, or counts, and none is without bounds.
 */

/** An object with exactly these fields. */
export function object(properties: Readonly<Record<string, unknown>>) {
  return { type: 'object', additionalProperties: false, required: Object.keys(properties), properties };
}

/** What may also be left to the app. */
export function orNull(schema: object) {
  return { anyOf: [schema, { type: 'null' }] };
}

export const text = { type: 'string', maxLength: 200 } as const;
export const colour = { type: 'string', pattern: '^#[0-9a-f]{6}$' } as const;
/** A length or a margin. */
export const mm = { type: 'number', minimum: 0, maximum: 100_000 } as const;
/** A side of something that is there. */
export const size = { type: 'number', minimum: 1, maximum: 100_000 } as const;
/** A place on a design. */
export const coordinate = { type: 'number', minimum: -100_000, maximum: 100_000 } as const;
/** A remedy's or a clearance's few mm. */
export const few = { type: 'number', minimum: 0, maximum: 50 } as const;
