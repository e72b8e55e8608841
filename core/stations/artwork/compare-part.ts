import type { ArtworkReader } from '../../engines/artwork/index.js';
import type { Finding } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { ArtworkPatch } from './decisions.js';
import type { ReadPart } from './read-part.js';
import { noticedInWords } from './said-late.js';

export interface ComparePartContext {
  readonly read: ReadPart;
  readonly bytes: Uint8Array;
}

interface ComparePartRead {
  readonly bytes: Uint8Array;
  readonly read: ReadPart;
}

/** Where a drawing is not read as it is drawn, its places in its own mm. */
export function comparePartStage(
  reader: ArtworkReader,
): Stage<ComparePartContext, ComparePartRead, readonly Finding<ArtworkPatch>[]> {
  return {
    name: 'part compared',
    read: ({ read, bytes }) => ({ bytes, read }),
    run: async ({ bytes, read }) => noticedInWords(await reader.notAsDrawn(bytes, read.artwork), { fonts: {} }),
  };
}
