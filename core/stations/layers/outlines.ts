import { leastForBridges, leastForOnePiece, mostApart, outlineArea } from '../../engines/layers/index.js';
import {
  areaOf,
  boundsOf,
  countPieces,
  intersect,
  longestSide,
  regionsOf,
  ringsOf,
  tolerances,
  unite,
  type Box,
  type Rings,
} from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { Outline } from './decisions.js';
import { keyOf, shownBy, shownOf, type FramedPaint } from './shown-of.js';

/** An outline as it was laid, with the figures of why it is as wide as it is, mm. */
export interface LaidOutline {
  readonly outline: Outline;
  readonly film: Film;
  readonly widthMm: number;
  /** From here on each of what it goes round is one piece; 0 when it is one already. */
  readonly onePieceMm: number;
  /** From here on no bridge of it is too thin to weed: what the app would take, as far as there is room. */
  readonly bridgesMm: number;
  /** What the app takes. */
  readonly ruledMm: number;
  /** How many things get an outline of their own. */
  readonly things: number;
  /** The widest at which outlines of their own stay apart by what the film can weed; null for one outline round all. */
  readonly apartMm: number | null;
  /** How many pieces it is; fewer than things when some met, more when some fell apart. */
  readonly pieces: number;
  /** Its longer side; of several outlines the longest one's. */
  readonly longestMm: number;
  readonly box: Box;
}

/** Lays outlines behind what they go round. What has no film, or nothing to go round, is not laid. */
export function withOutlines(
  paints: readonly FramedPaint[],
  outlines: readonly Outline[],
  films: ReadonlyMap<string, Film>,
) {
  let now = paints;
  let inner: Rings = unite(now.flatMap((paint) => [...paint.rings]));
  const laid: LaidOutline[] = [];
  for (const outline of outlines) {
    const film = films.get(outline.filmId);
    const { around } = outline;
    const shown = around === null ? inner : shownOf(now, around.ids, around.by);
    if (!film || shown.length === 0) continue;
    const { rings, ...figures } = laidRound(thingsOf(shown, now, outline), outline, film);
    // Behind what it goes round, over all that lies below that.
    const at = around === null ? 0 : now.findIndex((paint) => around.ids.includes(keyOf(paint, around.by)));
    now = [...now.slice(0, at), { layer: film.id, rings }, ...now.slice(at)];
    inner = around === null ? rings : unite([...inner, ...rings]);
    laid.push({ outline, film, ...figures });
  }
  return { paints: now, laid };
}

/** What gets an outline of its own. */
function thingsOf(shown: Rings, paints: readonly FramedPaint[], { each, around }: Outline): Rings[] {
  if (each === 'all') return [shown];
  if (each === 'piece') return regionsOf(shown).map((region) => ringsOf([region]));
  const ids = around?.by === 'parts' ? around.ids : [...new Set(paints.flatMap(({ part }) => part ?? []))];
  const ofParts = shownBy(paints, 'parts');
  const things = ids
    .map((id) => intersect(ofParts.get(id) ?? [], shown))
    .filter((rings) => areaOf(rings) > tolerances.CRUMB_MM2);
  // Outlines and a base that lie behind are of no part, and go with all.
  return things.length > 0 ? things : [shown];
}

function laidRound(things: readonly Rings[], outline: Outline, film: Film) {
  const joins = things.map(leastForOnePiece);
  const onePieceMm = Math.max(...joins);
  const bridgesMm = Math.max(
    ...things.map((thing, i) => leastForBridges(thing, Math.max(joins[i]!, film.thinnestMm), film.thinnestMm)),
  );
  // Between two outlines lies a strip of waste, which has to be weeded as well.
  const most = mostApart(things);
  const apartMm = most === null ? null : Math.max(0, Number((most - film.thinnestMm / 2).toFixed(2)));
  const ruledMm = apartMm !== null && apartMm >= film.thinnestMm ? Math.min(bridgesMm, apartMm) : bridgesMm;
  const widthMm = outline.widthMm ?? ruledMm;
  const rings =
    things.length === 1
      ? outlineArea(things[0]!, widthMm, outline.join, outline.fillBelowMm)
      : unite(things.flatMap((thing) => [...outlineArea(thing, widthMm, outline.join, outline.fillBelowMm)]));
  return {
    rings,
    widthMm,
    onePieceMm,
    bridgesMm,
    ruledMm,
    apartMm,
    things: things.length,
    pieces: countPieces(rings).pieces,
    longestMm: Math.max(...things.map((thing) => longestSide(boundsOf(thing)!))) + 2 * widthMm,
    box: boundsOf(rings)!,
  };
}
