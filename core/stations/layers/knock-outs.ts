import { joinPieces, knockedOut } from '../../engines/layers/index.js';
import {
  areaOf,
  intersect,
  reversed,
  signedArea,
  subtract,
  tolerances,
  unite,
  type Rings,
} from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { KnockOut } from './decisions.js';
import { shownOf, type FramedPaint } from './shown-of.js';

/** A cut-out as it was made. */
export interface MadeKnockOut {
  readonly knockOut: KnockOut;
  readonly shape: Film;
  readonly base: Film;
  /** Words whose letters were moved together, and the most that two of them were. */
  readonly joined: { readonly words: number; readonly mostMm: number };
}

/** Letters of a word that is joined run into each other by this share of what their film can weed, and never less than the figure, mm. */
const OVERLAP = { share: 0.25, leastMm: 0.2 } as const;

/** Takes cut-outs out of their bases, one after the other. Idle ones took nothing out: their shapes lie apart from the base. */
export function withKnockOuts(
  paints: readonly FramedPaint[],
  knockOuts: readonly KnockOut[],
  films: ReadonlyMap<string, Film>,
) {
  let now = paints;
  const made: MadeKnockOut[] = [];
  const idle: number[] = [];
  for (const [at, knockOut] of knockOuts.entries()) {
    const [shape, base] = [films.get(knockOut.shapeFilmId), films.get(knockOut.baseFilmId)];
    if (!shape || !base || shape === base) continue;
    // Only what shows of the shapes counts, wherever in the order they lie.
    const before = shownOf(now, [shape.id]);
    const words = knockOut.joinWords
      ? joinPieces(before, Math.max(OVERLAP.leastMm, OVERLAP.share * shape.thinnestMm))
      : { rings: before, words: 0, mostMm: 0, moved: [] };
    if (words.words > 0) now = withMovedWords(now, shape.id, base.id, words);
    const area = areaOfFilm(now, base.id);
    const cut = now
      .map((paint) =>
        paint.layer === base.id
          ? {
              ...paint,
              rings: knockedOut(paint.rings, words.rings, {
                ...knockOut,
                dropBelowMm2: knockOut.dropBelowMm2 ?? base.thinnestMm ** 2,
              }),
            }
          : paint,
      )
      .filter((paint) => paint.rings.length > 0);
    if (Math.abs(areaOfFilm(cut, base.id) - area) <= tolerances.CRUMB_MM2) idle.push(at);
    else made.push({ knockOut, shape, base, joined: words });
    now = cut;
  }
  return { paints: now, made, idle };
}

function areaOfFilm(paints: readonly FramedPaint[], id: string): number {
  return paints.reduce((sum, paint) => sum + (paint.layer === id ? areaOf(paint.rings) : 0), 0);
}

/** The shapes where their words were moved to, and the base closed where letters stood: a traced picture has nothing under them. */
function withMovedWords(
  paints: readonly FramedPaint[],
  shapeId: string,
  baseId: string,
  { rings, moved }: { readonly rings: Rings; readonly moved: Rings },
): readonly FramedPaint[] {
  const top = paints.findLastIndex(({ layer }) => layer === shapeId);
  const lowestBase = paints.findIndex(({ layer }) => layer === baseId);
  return paints.flatMap((paint, i): FramedPaint[] => {
    if (paint.layer === shapeId) return i === top ? [{ ...paint, rings }] : [];
    if (i !== lowestBase) return [paint];
    const within = unite(paint.rings.map((ring) => (signedArea(ring) < 0 ? reversed(ring) : ring)));
    return [{ ...paint, rings: unite([...paint.rings, ...subtract(intersect(moved, within), paint.rings)]) }];
  });
}
