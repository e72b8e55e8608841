import { warpRings, type TaperMap } from '../../engines/surface/index.js';
import { unite } from '../../geometry/index.js';
import type { Regions } from '../artwork/index.js';
import type { Stage } from '../stage.js';

interface WarpRead {
  readonly regions: Regions;
  readonly map: TaperMap;
}

/** The painted areas bent for a taper, before anything is built of them. What was found of them is where it was on the flat design. */
export const warpStage: Stage<WarpRead, WarpRead, Regions> = {
  name: 'warped',
  read: ({ regions, map }) => ({ regions, map }),
  run: ({ regions, map }) => ({
    ...regions,
    regions: regions.regions.map((region) => ({ ...region, rings: unite(warpRings(map, region.rings)) })),
  }),
};
