import { leastForBridges, leastForOnePiece, thinParts } from '../../engines/layers/index.js';
import { boundsOf, countPieces, grow, longestSide, unite, type Box, type Rings } from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { Contour } from './decisions.js';
import type { FramedPaint } from './shown-of.js';

/** The cut line of a print, with the figures of why it lies where it lies, mm. */
export interface LaidContour {
  readonly contour: Contour;
  readonly film: Film;
  readonly byMm: number;
  /** What the app would take. */
  readonly ruledMm: number;
  /** From here on outside, all is one piece whose bridges can be weeded. */
  readonly bridgesMm: number;
  /** In how many pieces the print lies, and in how many it is cut. */
  readonly printedPieces: number;
  readonly pieces: number;
  /** Where it is too thin to weed, but for what was as thin before. */
  readonly thin: Box | null;
  /** All of the print lies inside what is cut away from its edges: nothing is left. */
  readonly isNothingLeft: boolean;
}

/** By the longer side of the print, mm: how far inside it is cut, how far a border reaches, and how far a bleed (trade practice, docs/outline.md). */
const BY_SIZE = [
  { upToMm: 60, inside: 0.3, outside: 1, bleed: 1 },
  { upToMm: 200, inside: 0.5, outside: 2, bleed: 1 },
  { upToMm: 500, inside: 1, outside: 2, bleed: 2 },
  { upToMm: Infinity, inside: 2, outside: 3, bleed: 2 },
] as const;
/** A border is made wider so that all is one piece, unless that takes more than this share of the longer side: what lies so far apart is several prints. */
const JOINED_SHARE = 0.05;

/** The print of all that is painted, and where it is cut. */
export function withContour(
  paints: readonly FramedPaint[],
  contour: Contour,
  film: Film,
): { readonly paints: readonly FramedPaint[]; readonly laid: LaidContour } {
  const printed = unite(paints.flatMap((paint) => [...paint.rings]));
  const box = boundsOf(printed);
  if (!box)
    return {
      paints: [],
      laid: {
        contour,
        film,
        byMm: contour.byMm ?? 0,
        ruledMm: 0,
        bridgesMm: 0,
        printedPieces: 0,
        pieces: 0,
        thin: null,
        isNothingLeft: false,
      },
    };
  const sizeMm = longestSide(box);
  const usual = BY_SIZE.find(({ upToMm }) => sizeMm <= upToMm)!;
  const onePieceMm = leastForOnePiece(printed);
  const bridgesMm = leastForBridges(printed, Math.max(onePieceMm, usual.outside), film.thinnestMm);
  const ruledMm =
    contour.side !== 'outside'
      ? usual[contour.side]
      : bridgesMm <= Math.max(usual.outside, JOINED_SHARE * sizeMm)
        ? bridgesMm
        : usual.outside;
  const byMm = contour.byMm ?? ruledMm;
  const cut = contour.side === 'bleed' ? printed : grow(printed, contour.side === 'inside' ? -byMm : byMm);
  return {
    paints: cut.length > 0 ? [{ layer: film.id, rings: cut }] : [],
    laid: {
      contour,
      film,
      byMm,
      ruledMm,
      bridgesMm,
      printedPieces: countPieces(printed).pieces,
      pieces: countPieces(cut).pieces,
      thin: thinnerThanBefore(printed, cut, film.thinnestMm),
      isNothingLeft: cut.length === 0,
    },
  };
}

function thinnerThanBefore(before: Rings, after: Rings, thinnestMm: number): Box | null {
  const [was, is] = [thinParts(before, thinnestMm), thinParts(after, thinnestMm)];
  return is.length > was.length ? boundsOf(is.map(({ outer }) => outer)) : null;
}
