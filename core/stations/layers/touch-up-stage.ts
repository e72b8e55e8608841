import type { CutRemedies } from '../../engines/layers/index.js';
import type { TaperMap } from '../../engines/surface/index.js';
import type { Matrix } from '../../geometry/index.js';
import { durableMm, type Lives } from '../../shop/index.js';
import type { PlaceRemedy } from '../../words/index.js';
import { placeRules, spotsOf, type PlaceSpots, type Regions, type Repair } from '../artwork/index.js';
import type { FilmsOut } from '../films/index.js';
import type { Stage } from '../stage.js';
import type { BuildOut } from './stage.js';

interface TouchUpContext {
  readonly regions: Regions;
  readonly films: FilmsOut;
  readonly build: BuildOut;
  readonly repair: Repair;
  readonly lives: Lives;
  readonly matrices: ReadonlyMap<string, Matrix>;
  /** How the design is bent after that. */
  readonly map: TaperMap | null;
}

interface TouchUpRead {
  readonly regions: Regions;
  readonly films: FilmsOut;
  readonly build: BuildOut;
  readonly repair: CutRemedies;
  readonly lives: Lives;
  readonly spots: PlaceSpots;
}

const REMEDIES: readonly PlaceRemedy[] = ['specks', 'thicken', 'gaps'];

/** Whether any remedy is taken that touches up. */
export function touchesUp({ speckMm2, thickenMm, closeGapsMm }: CutRemedies): boolean {
  return speckMm2 > 0 || thickenMm > 0 || closeGapsMm > 0;
}

/** The painted areas with what would spoil the cut of the layers put right; null when there is nothing to do. */
export const touchUpStage: Stage<TouchUpContext, TouchUpRead, Regions | null> = {
  name: 'touched up',
  read: ({ regions, films, build, repair: { speckMm2, thickenMm, closeGapsMm, ...repair }, lives, matrices, map }) => ({
    regions,
    films,
    build,
    repair: { speckMm2, thickenMm, closeGapsMm },
    lives,
    spots: spotsOf(repair, REMEDIES, (part) => matrices.get(part), map),
  }),
  async run({ regions, films, build, repair, lives, spots }) {
    const filmOf = new Map(films.colours.map((use) => [use.colour, use.film.id]));
    const layers = build.layers.map(({ key, film, cut, visible }) => ({
      key,
      thinnestMm: film.thinnestMm,
      durableMm: durableMm(film, lives),
      cut,
      visible,
    }));
    // Many jobs need none of it: it is fetched with the first remedy.
    const { touchUp } = await import('../../engines/layers/touch-up.js');
    const touched = touchUp(regions.regions, layers, (colour) => filmOf.get(colour), repair, placeRules(spots));
    return touched && { ...regions, regions: touched };
  },
};
