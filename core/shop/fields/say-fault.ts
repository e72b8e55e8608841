/** What a schema found wrong: as Ajv tells it. */
export interface Fault {
  readonly instancePath: string;
  readonly keyword: string;
  readonly params: Readonly<Record<string, unknown>>;
  /** The schema that was not met. */
  readonly parentSchema?: Readonly<Record<string, unknown>>;
}

/** A schema's fault as a person reads it, without the field's name. */
export function sayFault({ keyword, params, parentSchema = {} }: Fault): string {
  const [least, most] = [parentSchema['minimum'], parentSchema['maximum']];
  switch (keyword) {
    case 'minimum':
    case 'maximum':
      return least !== undefined && most !== undefined
        ? `It must be from ${String(least)} to ${String(most)}.`
        : `It must be ${keyword === 'minimum' ? 'at least' : 'at most'} ${String(params['limit'])}.`;
    case 'minLength':
      return 'It must not be empty.';
    case 'maxLength':
      return `It must have at most ${String(params['limit'])} signs.`;
    case 'enum':
      return `It must be one of these: ${(params['allowedValues'] as unknown[]).filter((word) => word !== null).join(', ')}.`;
    case 'pattern':
      return 'It has signs in it that cannot be used here.';
    case 'maxItems':
      return `There can be at most ${String(params['limit'])}.`;
    case 'type':
      return params['type'] === 'integer'
        ? 'Write a whole number.'
        : params['type'] === 'number'
          ? 'Write a number.'
          : 'It is not what is expected here.';
    case 'required':
      return 'It is missing.';
    default:
      return 'It is not what is expected here.';
  }
}

/** The fault that says most: of "this or nothing", what is wrong with this. */
export function worst(faults: readonly Fault[]): Fault | null {
  return (
    faults.find(({ keyword, params }) => keyword !== 'anyOf' && !(keyword === 'type' && params['type'] === 'null')) ??
    faults[0] ??
    null
  );
}
