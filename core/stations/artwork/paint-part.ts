import { flattenTolerance, paintPlaced, type PaintedRegion, type PaintRepair } from '../../engines/artwork/index.js';
import { transformBox, type Box, type Matrix } from '../../geometry/index.js';
import type { Finding, PlaceRemedy } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { ArtworkPatch } from './decisions.js';
import type { Repair } from './repair.js';
import { placeRules, spotsOf, type PlaceSpots } from './places.js';
import type { ReadPart } from './read-part.js';
import { noticedInWords } from './said-late.js';

export interface PaintPartContext {
  readonly id: string;
  /** Colours that this part is made in others. */
  readonly recolour: Readonly<Record<string, string>>;
  readonly read: ReadPart;
  /** From each part's own mm to the design's at its final size. */
  readonly matrices: ReadonlyMap<string, Matrix>;
  /** The longer side of the design at its final size. */
  readonly longestMm: number;
  readonly repair: Repair;
}

interface PaintPartRead {
  readonly id: string;
  readonly recolour: Readonly<Record<string, string>>;
  readonly part: ReadPart;
  readonly matrix: Matrix;
  readonly toleranceMm: number;
  readonly repair: PaintRepair;
  readonly spots: PlaceSpots;
}

/** A part's areas where it lies on the design, and what was noticed of it, its places on the design. */
export interface PaintedPart {
  readonly regions: readonly PaintedRegion[];
  /** What the part takes up, mm. */
  readonly frame: Box;
  readonly findings: readonly Finding<ArtworkPatch>[];
}

const REMEDIES: readonly PlaceRemedy[] = ['hairlines', 'crossings'];

/** Paints a part where it lies on the design, at its final size. */
export const paintPartStage: Stage<PaintPartContext, PaintPartRead, PaintedPart> = {
  name: 'part painted',
  read: ({
    id,
    recolour,
    read,
    matrices,
    longestMm,
    repair: { hairlines, fillCrossings, joinEndsMm, beyondArtboard, ...repair },
  }) => ({
    id,
    recolour,
    part: read,
    matrix: matrices.get(id)!,
    toleranceMm: flattenTolerance(longestMm),
    repair: { hairlines, fillCrossings, joinEndsMm, beyondArtboard },
    spots: spotsOf(repair, REMEDIES, (part) => matrices.get(part)),
  }),
  async run({ id, recolour, part: { artwork, findings }, matrix, toleranceMm, repair, spots }) {
    const { regions, noticed } = paintPlaced(artwork, { matrix, toleranceMm, repair, rules: placeRules(spots) });
    return {
      regions: regions.map((region) => ({
        ...region,
        colour: Object.hasOwn(recolour, region.colour) ? recolour[region.colour]! : region.colour,
        part: id,
      })),
      frame: transformBox({ minX: 0, minY: 0, maxX: artwork.widthMm, maxY: artwork.heightMm }, matrix),
      findings: [
        ...findings.map((finding) => placedFinding(finding, matrix)),
        ...(await noticedInWords(noticed, { fonts: {} })),
      ],
    };
  },
};

/** A finding of a part in its own mm with its places where they are on the design. */
export function placedFinding(finding: Finding<ArtworkPatch>, matrix: Matrix): Finding<ArtworkPatch> {
  return {
    ...finding,
    ...(finding.where ? { where: transformBox(finding.where, matrix) } : {}),
    ...(finding.places ? { places: finding.places.map((box) => transformBox(box, matrix)) } : {}),
  };
}
