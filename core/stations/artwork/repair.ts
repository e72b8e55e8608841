import type { PaintRepair, ReadRepair } from '../../engines/artwork/index.js';
import type { CutRemedies, PaintRemedies } from '../../engines/layers/index.js';
import type { ArtworkPlace, PlaceLists, SparedPlace } from '../../words/index.js';

/** Remedies for what would spoil the cut, applied to the artwork's areas at the size of the job. */
export interface Repair extends ReadRepair, PaintRepair, PaintRemedies, CutRemedies {
  /** Remedies that act at these places and nowhere else. */
  readonly only: PlaceLists<ArtworkPlace>;
  /** Places that a remedy leaves alone, with the maker's reason. */
  readonly spared: PlaceLists<SparedPlace>;
  /** Findings, by code, that were seen and are let be, with the maker's reason. */
  readonly letBe: Readonly<Record<string, string>>;
}

/** Nothing put right. */
export const NO_REPAIR: Repair = {
  recolour: {},
  noFilm: [],
  tidy: false,
  speckMm2: 0,
  thickenMm: 0,
  closeGapsMm: 0,
  simplifyMm: 0,
  hairlines: 'keep',
  fillCrossings: false,
  joinEndsMm: 0,
  gradientBands: 1,
  shines: 'drop',
  blurs: 'keep',
  beyondArtboard: 'cut',
  patterns: 'drop',
  pictures: 'drop',
  fonts: {},
  only: {},
  spared: {},
  letBe: {},
};
