/** What every write of a job says: the revision that it was made from, and a name of its own, so that it is not done twice when it is sent twice. */
export const EDIT_PROPERTIES = {
  revision: { type: 'integer', minimum: 0 },
  edit: { type: 'string', minLength: 1, maxLength: 64 },
} as const;

export const EDIT_SCHEMA = {
  type: 'object',
  additionalProperties: false,
  required: ['revision'],
  properties: EDIT_PROPERTIES,
} as const;
