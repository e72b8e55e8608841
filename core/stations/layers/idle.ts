import { countPieces, unite } from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { BuildDecisions, KnockOut, Outline } from './decisions.js';
import type { Framed } from './framing.js';
import { decisionFor, type RuledPair } from './pairs.js';
import type { JobLayer } from './stage.js';

/** A decision that has no effect, or not the one it was made for, and why. */
export type Idle =
  | { readonly kind: 'knock-out'; readonly knockOut: KnockOut; readonly why: 'itself' | 'gone' | 'apart' }
  | { readonly kind: 'block-out'; readonly why: 'itself' | 'gone' }
  | { readonly kind: 'outline-gone'; readonly outline: Outline; readonly what: 'film' | 'around' }
  | { readonly kind: 'base'; readonly film: Film | null }
  | { readonly kind: 'film-pairs'; readonly filmId: string }
  | { readonly kind: 'pair'; readonly pair: RuledPair }
  | { readonly kind: 'outline-islands'; readonly film: Film; readonly pieces: number };

interface Ground {
  readonly build: Pick<BuildDecisions['build'], 'knockOuts' | 'outlines' | 'blockOut' | 'pairs' | 'filmPairs' | 'base'>;
  readonly films: ReadonlyMap<string, Film>;
  readonly framed: Framed | null;
  readonly pairs: readonly RuledPair[];
  readonly layers: readonly Pick<JobLayer, 'key' | 'cut' | 'visible'>[];
}

/** The decisions of a build that do nothing, or do it in pieces. */
export function idleDecisions({ build, films, framed, pairs, layers }: Ground): Idle[] {
  const { blockOut } = build;
  const isCut = (id: string) => layers.some((layer) => layer.key === id);
  return [
    ...build.knockOuts.flatMap((knockOut, at): Idle[] => {
      const { shapeFilmId, baseFilmId } = knockOut;
      const why =
        shapeFilmId === baseFilmId
          ? 'itself'
          : !films.has(shapeFilmId) || !films.has(baseFilmId)
            ? 'gone'
            : framed?.idleKnockOuts.includes(at)
              ? 'apart'
              : null;
      return why ? [{ kind: 'knock-out', knockOut, why }] : [];
    }),
    ...(!blockOut
      ? []
      : blockOut.filmId === blockOut.underFilmId
        ? [{ kind: 'block-out', why: 'itself' } as const]
        : !films.has(blockOut.filmId) || !isCut(blockOut.underFilmId)
          ? [{ kind: 'block-out', why: 'gone' } as const]
          : []),
    ...build.outlines.flatMap((outline): Idle[] => {
      const what = !films.has(outline.filmId)
        ? 'film'
        : outline.around !== null && !framed?.outlines.some((laid) => laid.outline.id === outline.id)
          ? 'around'
          : null;
      return what ? [{ kind: 'outline-gone', outline, what }] : [];
    }),
    ...(build.base && !framed?.base ? [{ kind: 'base', film: films.get(build.base.filmId) ?? null } as const] : []),
    // While a film is there and meets others it decides something; all that it meets may be decided pair by pair.
    ...Object.keys(build.filmPairs)
      .filter(
        (filmId) =>
          !pairs.some(({ key, lower, upper }) => (lower.id === filmId || upper.id === filmId) && !build.pairs[key]),
      )
      .map((filmId): Idle => ({ kind: 'film-pairs', filmId })),
    // A lap was asked for under a film that cannot have one.
    ...pairs
      .filter(
        (pair) =>
          (pair.why === 'dyes-mix' || pair.why === 'nothing-sticks') &&
          (decisionFor(build, pair.lower.id, pair.upper.id)?.school ?? 'inlay') !== 'inlay',
      )
      .map((pair): Idle => ({ kind: 'pair', pair })),
    ...inIslands(
      (framed?.outlines ?? []).filter(({ outline, things }) => outline.around === null && things === 1),
      layers,
    ),
  ];
}

/** Outlines that fall into more pieces than the whole work has. The work is only put together for those that are not one piece. */
function inIslands(outlines: Framed['outlines'], layers: Ground['layers']): Idle[] {
  const parted = outlines
    .map(({ film }) => ({ film, pieces: countPieces(layers.find(({ key }) => key === film.id)?.cut ?? []).pieces }))
    .filter(({ pieces }) => pieces > 1);
  if (parted.length === 0) return [];
  const whole = countPieces(unite(layers.flatMap(({ visible }) => [...visible]))).pieces;
  return parted
    .filter(({ pieces }) => pieces > whole)
    .map(({ film, pieces }) => ({ kind: 'outline-islands', film, pieces }));
}
