/**
 * Bad input, refused: a stable code, a sentence a maker can act on, and the place it happened.
 * The API turns it into problem+json, the command line into one line and exit code 2.
 */
export class InputError extends Error {
  readonly source: string | undefined;
  readonly path: string | undefined;

  constructor(
    readonly code: string,
    message: string,
    place: { source?: string; path?: string; cause?: unknown } = {},
  ) {
    super(message, { cause: place.cause });
    this.name = 'InputError';
    this.source = place.source;
    this.path = place.path;
  }
}
