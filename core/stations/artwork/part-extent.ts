import { paintedBox, type PaintRepair } from '../../engines/artwork/index.js';
import { BARE, meantColour, type PaintRemedies } from '../../engines/layers/index.js';
import { longestSide, transformBox, type Box } from '../../geometry/index.js';
import type { PlaceRemedy } from '../../words/index.js';
import type { Stage } from '../stage.js';
import { placementMatrix, type PartExtent } from './arrangement.js';
import type { ArtworkPart } from './artwork-part.js';
import { placeRules, spotsOf, type PlaceSpots } from './places.js';
import type { ReadPart } from './read-part.js';
import type { Repair } from './repair.js';

/** What counts as the size of a design: what is cut of it, or the artboards it was drawn on. */
export type SizeOf = 'cut' | 'artboard';

/** What a part takes up, by what counts. */
export type PartExtents = Readonly<Record<SizeOf, PartExtent>>;

export interface PartExtentContext {
  readonly part: ArtworkPart;
  readonly read: ReadPart;
  readonly repair: Repair;
}

interface PartExtentRead {
  readonly read: ReadPart;
  readonly turnDeg: number;
  readonly mirrored: boolean;
  readonly repair: PaintRepair & Pick<PaintRemedies, 'recolour' | 'noFilm'>;
  readonly spots: PlaceSpots;
}

const REMEDIES: readonly PlaceRemedy[] = ['hairlines', 'crossings', 'bare'];
/** A box is found to this share of its longer side, so that a design made a hundred times as large still has its size to a millimetre in a hundred metres. */
const TRUE_SHARE = 1e-5;

/** Finds what a part takes up. A picture takes up its frame, which was laid round what is kept of it. */
export const partExtentStage: Stage<PartExtentContext, PartExtentRead, PartExtents> = {
  name: 'part extent',
  read({ part, read, repair: { hairlines, fillCrossings, joinEndsMm, beyondArtboard, recolour, noFilm, ...repair } }) {
    const {
      id,
      place: { turnDeg, mirrored },
    } = part;
    // Where a place lies is asked for in the part's own turned mm; those of other parts mean nothing here.
    const matrix = placementMatrix({ xMm: 0, yMm: 0, scale: 1, turnDeg, mirrored }, read.artwork);
    return {
      read,
      turnDeg,
      mirrored,
      repair: { hairlines, fillCrossings, joinEndsMm, beyondArtboard, recolour, noFilm },
      spots: spotsOf(repair, REMEDIES, (other) => (other === id ? matrix : undefined)),
    };
  },
  run({ read: { artwork, reduced }, turnDeg, mirrored, repair, spots }) {
    const matrix = placementMatrix({ xMm: 0, yMm: 0, scale: 1, turnDeg, mirrored }, artwork);
    const artboard = transformBox({ minX: 0, minY: 0, maxX: artwork.widthMm, maxY: artwork.heightMm }, matrix);
    const extents = (box: Box | null) => ({
      cut: { box: box ?? artboard, turnDeg, mirrored },
      artboard: { box: artboard, turnDeg, mirrored },
    });
    if (reduced) return extents(null);
    const rules = placeRules(spots);
    const mayBeBare = repair.noFilm.length > 0 || (spots.only.bare ?? []).length > 0;
    return extents(
      paintedBox(
        artwork,
        { matrix, toleranceMm: longestSide(artboard) * TRUE_SHARE, repair, rules },
        mayBeBare ? (area) => meantColour(area, repair, rules) === BARE : null,
      ),
    );
  },
};
