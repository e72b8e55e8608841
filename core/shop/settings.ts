import type { CutterProfile } from './cutter.js';
import type { Film } from './film.js';

/** The knife settings of a film on a cutter. */
export function settingsFor(
  film: Film,
  cutter: Pick<CutterProfile, 'bladeOffsetMm' | 'overcutMm'>,
): { forceG: number; speedMmS: number; bladeOffsetMm: number; overcutMm: number } {
  return {
    forceG: film.forceG,
    speedMmS: film.speedMmS,
    bladeOffsetMm: cutter.bladeOffsetMm,
    overcutMm: cutter.overcutMm,
  };
}
