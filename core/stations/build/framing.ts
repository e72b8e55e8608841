import { knockedOut, leastForBridges, leastForOnePiece, outlineArea, separate, type LayerPaint } from '../../engines/layers/index.js';
import { areaOf, boundsOf, grow, longestSide, tolerances, unite, type Box, type Rings } from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { BuildDecisions, Contour, KnockOut, Outline } from './decisions.js';

/** An outline as it was laid, with the figures of why it is as wide as it is, mm. */
export interface LaidOutline {
  readonly outline: Outline;
  readonly film: Film;
  readonly widthMm: number;
  /** From here on all parts are one piece; 0 when what it goes round is one already. */
  readonly onePieceMm: number;
  /** From here on no bridge of it is too thin to weed: what the app would take. */
  readonly bridgesMm: number;
  /** Its longer side. */
  readonly longestMm: number;
  readonly box: Box;
}

/** What is painted, by film, once knock-outs and outlines are reckoned in. */
export interface Framed {
  readonly paints: readonly LayerPaint[];
  readonly knockOuts: readonly { readonly knockOut: KnockOut; readonly shape: Film; readonly base: Film }[];
  /** Knock-outs that took nothing out: their shapes lie apart from the base. */
  readonly idleKnockOuts: readonly KnockOut[];
  readonly contour: { readonly contour: Contour; readonly film: Film } | null;
  readonly outlines: readonly LaidOutline[];
}

/**
 * Takes knock-outs out of their bases and lays outlines behind everything. Both are then like anything painted: schools, traps and films
 * treat them as they treat the artwork. `paints` are the artwork's own, by film id.
 */
export function framed(paints: readonly LayerPaint[], decisions: Pick<BuildDecisions['build'], 'outlines' | 'knockOuts' | 'contour'>, films: ReadonlyMap<string, Film>): Framed {
  let now: readonly LayerPaint[] = paints;
  const knockOuts: Framed['knockOuts'][number][] = [];
  const idleKnockOuts: KnockOut[] = [];
  const areaOfFilm = (id: string) => now.reduce((sum, paint) => sum + (paint.layer === id ? areaOf(paint.rings) : 0), 0);
  for (const knockOut of decisions.knockOuts) {
    const [shape, base] = [films.get(knockOut.shapeFilmId), films.get(knockOut.baseFilmId)];
    if (!shape || !base || shape === base) continue;
    // Only what shows of the shapes counts, wherever in the order they lie.
    const visible = shownOf(now, [shape.id]);
    const before = areaOfFilm(base.id);
    now = now.map((paint) => (paint.layer === base.id ? { ...paint, rings: knockedOut(paint.rings, visible, { ...knockOut, dropBelowMm2: knockOut.dropBelowMm2 ?? base.thinnestMm ** 2 }) } : paint)).filter((paint) => paint.rings.length > 0);
    if (Math.abs(areaOfFilm(base.id) - before) <= tolerances.CRUMB_MM2) idleKnockOuts.push(knockOut);
    else knockOuts.push({ knockOut, shape, base });
  }
  const printed = decisions.contour && films.get(decisions.contour.filmId);
  const contour = decisions.contour && printed ? { contour: decisions.contour, film: printed } : null;
  if (contour) {
    const { side, byMm } = contour.contour;
    const cut = grow(unite(now.flatMap((paint) => [...paint.rings])), side === 'inside' ? -byMm : byMm);
    now = cut.length > 0 ? [{ layer: contour.film.id, rings: cut }] : [];
  }
  let inner: Rings = unite(now.flatMap((paint) => [...paint.rings]));
  const outlines: LaidOutline[] = [];
  for (const outline of decisions.outlines) {
    const film = films.get(outline.filmId);
    const around = outline.around === null ? inner : shownOf(now, outline.around);
    if (!film || around.length === 0) continue;
    const onePieceMm = leastForOnePiece(around);
    const bridgesMm = leastForBridges(around, Math.max(onePieceMm, film.thinnestMm), film.thinnestMm);
    const widthMm = outline.widthMm ?? bridgesMm;
    const longestMm = longestSide(boundsOf(grow(around, widthMm))!);
    const rings = outlineArea(around, widthMm, outline.join, outline.fillBelowMm);
    // Behind what it goes round, over all that lies below that.
    const at = outline.around === null ? 0 : now.findIndex(({ layer }) => outline.around!.includes(layer));
    now = [...now.slice(0, at), { layer: film.id, rings }, ...now.slice(at)];
    inner = outline.around === null ? rings : unite([...inner, ...rings]);
    outlines.push({ outline, film, widthMm, onePieceMm, bridgesMm, longestMm, box: boundsOf(rings)! });
  }
  return { paints: now, knockOuts, idleKnockOuts, contour, outlines };
}

/** What shows of some films. */
function shownOf(paints: readonly LayerPaint[], filmIds: readonly string[]): Rings {
  return unite(separate(paints).layers.filter(({ key }) => filmIds.includes(key)).flatMap(({ visible }) => [...visible]));
}
