import type { Noticed } from '../engines/artwork/index.js';
import { sayNoticed, type ArtworkPatch } from '../stations/artwork/index.js';
import type { Finding } from '../words/index.js';

/** What was read or painted, with what was noticed of it in words too. */
export function withFindings<T extends { readonly noticed: readonly Noticed[] }>(
  made: T,
): T & { readonly findings: Finding<ArtworkPatch>[] } {
  return { ...made, findings: sayNoticed(made.noticed, { fonts: {} }) };
}
