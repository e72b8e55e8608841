import type { Noticed } from '../../engines/artwork/index.js';
import type { PaintTrouble } from '../../engines/layers/index.js';
import type { Finding } from '../../words/index.js';
import type { ArtworkPatch } from './decisions.js';
import type { Repair } from './repair.js';

/*
 * Most artwork is sound. The sentences about what is not are many, so a page fetches them when there is something to say.
 */

/** What was noticed of one file, in words. */
export async function noticedInWords(
  noticed: readonly Noticed[],
  repair: Pick<Repair, 'fonts'>,
): Promise<Finding<ArtworkPatch>[]> {
  return noticed.length === 0 ? [] : (await import('./say-noticed.js')).sayNoticed(noticed, repair);
}

/** What was found in the artwork as it is painted, in words. */
export async function troublesInWords(
  troubles: readonly PaintTrouble[],
  repair: Pick<Repair, 'recolour' | 'noFilm'>,
): Promise<Finding<ArtworkPatch>[]> {
  return troubles.length === 0 ? [] : (await import('./say-checks.js')).sayPaintTroubles(troubles, repair);
}
