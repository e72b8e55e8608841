import { colourDifference, type PaintedRegion } from '../../engines/artwork/index.js';
import { checkPaints, putRight, unseenAreas, type PaintRemedies } from '../../engines/layers/index.js';
import type { Matrix } from '../../geometry/index.js';
import type { Finding, PlaceRemedy } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { ArtworkPatch } from './decisions.js';
import type { Repair } from './repair.js';
import type { PaintedPart } from './paint-part.js';
import { placeRules, spotsOf, type PlaceSpots } from './places.js';
import { troublesInWords } from './said-late.js';

export interface PutRightContext {
  readonly painted: readonly PaintedPart[];
  readonly repair: Repair;
  readonly matrices: ReadonlyMap<string, Matrix>;
}

interface PutRightRead {
  readonly painted: readonly PaintedPart[];
  readonly repair: PaintRemedies;
  readonly spots: PlaceSpots;
}

/** The painted areas of the whole design. */
export interface Regions {
  /** After the maker's remedies. */
  readonly regions: readonly PaintedRegion[];
  /** Before them. */
  readonly asDrawn: readonly PaintedRegion[];
  /** Parts, by their ids, of which nothing shows: others lie over all of them. */
  readonly hiddenParts: readonly string[];
  readonly findings: readonly Finding<ArtworkPatch>[];
}

const REMEDIES: readonly PlaceRemedy[] = ['tidy', 'simplify', 'bare'];

/** Takes the remedies that need know nothing of films, and looks for what would still spoil the cut. */
export const putRightStage: Stage<PutRightContext, PutRightRead, Regions> = {
  name: 'put right',
  read: ({ painted, repair: { recolour, noFilm, tidy, simplifyMm, ...repair }, matrices }) => ({
    painted,
    repair: { recolour, noFilm, tidy, simplifyMm },
    spots: spotsOf(repair, REMEDIES, (part) => matrices.get(part)),
  }),
  async run({ painted, repair, spots }) {
    const asDrawn = painted.flatMap((part) => part.regions);
    const regions = putRight(asDrawn, repair, placeRules(spots));
    const unseen = unseenAreas(regions);
    const isUnseen = new Set(unseen.map(({ index }) => index));
    const seen = new Set(
      regions.flatMap(({ part }, index) => (part === undefined || isUnseen.has(index) ? [] : [part])),
    );
    const hiddenParts = new Set(asDrawn.flatMap(({ part }) => (part === undefined || seen.has(part) ? [] : [part])));
    return {
      regions,
      asDrawn,
      hiddenParts: [...hiddenParts],
      findings: await troublesInWords(
        checkPaints(
          regions,
          painted.map((part) => part.frame),
          colourDifference,
          // A part that is hidden as a whole is named by itself.
          unseen.filter(({ index }) => !hiddenParts.has(regions[index]!.part ?? '')),
        ),
        repair,
      ),
    };
  },
};
