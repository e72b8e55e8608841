import { bridged, leastBridging } from '../../engines/layers/index.js';
import { areaOf, subtract, unite, type Rings } from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { BuildDecisions } from './decisions.js';
import { withKnockOuts, type MadeKnockOut } from './knock-outs.js';
import { withOutlines, type LaidOutline } from './outlines.js';
import { withContour, type LaidContour } from './print-contour.js';
import type { FramedPaint } from './shown-of.js';

/** A film that lies in one piece under everything. */
export interface LaidBase {
  readonly film: Film;
  /** All of it: what is cut, whether it shows or not. */
  readonly rings: Rings;
  /** How far its pieces were bridged, mm; 0 when all that lies on it is one piece. */
  readonly bridgedMm: number;
  /** What shows of the bridges, mm². */
  readonly shownMm2: number;
}

/** What is painted, by film, once knock-outs, base and outlines are reckoned in. */
export interface Framed {
  readonly paints: readonly FramedPaint[];
  readonly knockOuts: readonly MadeKnockOut[];
  /** Places in the list of those knock-outs that took nothing out: their shapes lie apart from the base. */
  readonly idleKnockOuts: readonly number[];
  readonly contour: LaidContour | null;
  readonly base: LaidBase | null;
  readonly outlines: readonly LaidOutline[];
}

export type FramingDecisions = Pick<BuildDecisions['build'], 'outlines' | 'knockOuts' | 'contour' | 'base'>;

/**
 * Takes knock-outs out of their bases, and lays a base and outlines behind everything. All are then like anything painted: schools, traps and films
 * treat them as they treat the artwork. `paints` are the artwork's own, by film id.
 */
export function framed(
  paints: readonly FramedPaint[],
  decisions: FramingDecisions,
  films: ReadonlyMap<string, Film>,
): Framed {
  const { paints: cutOut, made, idle } = withKnockOuts(paints, decisions.knockOuts, films);
  const printFilm = decisions.contour && films.get(decisions.contour.filmId);
  const print = decisions.contour && printFilm ? withContour(cutOut, decisions.contour, printFilm) : null;
  const baseFilm = decisions.base && films.get(decisions.base.filmId);
  const based = baseFilm?.takesOnTop ? withBase(print?.paints ?? cutOut, baseFilm) : null;
  const { paints: all, laid } = withOutlines(based?.paints ?? print?.paints ?? cutOut, decisions.outlines, films);
  return {
    paints: all,
    knockOuts: made,
    idleKnockOuts: idle,
    contour: print?.laid ?? null,
    base: based?.laid ?? null,
    outlines: laid,
  };
}

function withBase(
  paints: readonly FramedPaint[],
  film: Film,
): { readonly paints: readonly FramedPaint[]; readonly laid: LaidBase } {
  const all = unite(paints.flatMap((paint) => [...paint.rings]));
  const bridgedMm = leastBridging(all, film.thinnestMm);
  const rings = bridgedMm > 0 ? bridged(all, bridgedMm) : all;
  return {
    paints: [{ layer: film.id, rings }, ...paints],
    laid: { film, rings, bridgedMm, shownMm2: bridgedMm > 0 ? areaOf(subtract(rings, all)) : 0 },
  };
}
