import { checkLayers } from '../../engines/layers/index.js';
import { areaOf, boundsOf, grow, type Box } from '../../geometry/index.js';
import { durableMm, type Lives } from '../../shop/index.js';
import type { Finding } from '../../words/index.js';
import type { ArtworkPatch } from '../artwork/index.js';
import type { Stage } from '../stage.js';
import type { BuildDecisions } from './decisions.js';
import type { RuledPair } from './pairs.js';
import { sayClosesUnder } from './say.js';
import type { BuildOut } from './stage.js';

export interface Checks {
  /** What would spoil the cut of the layers: put right in the artwork. */
  readonly artwork: readonly Finding<ArtworkPatch>[];
  /** The build, with what is wrong with it. */
  readonly build: BuildOut;
}

/** What would spoil the cut in the layers as they are built. */
export const checkStage: Stage<
  { readonly build: BuildOut; readonly recipe: BuildDecisions },
  { readonly build: BuildOut; readonly lives: Lives },
  Checks
> = {
  name: 'checks',
  read: ({ build, recipe }) => ({ build, lives: recipe.build.lives }),
  async run({ build, lives }) {
    const { layers, pairs } = build;
    const nameOf = new Map(layers.map(({ key, film }) => [key, film.name]));
    const troubles = checkLayers(
      layers.map(({ key, film, cut }) => ({
        key,
        thinnestMm: film.thinnestMm,
        durableMm: durableMm(film, lives),
        cut,
      })),
    );
    // Most layers are sound: the sentences are fetched when there is something to say.
    const artwork =
      troubles.length === 0
        ? []
        : (await import('../artwork/say-checks.js')).sayLayerTroubles(troubles, (key) => nameOf.get(key)!);
    return {
      artwork,
      build: {
        ...build,
        findings: [...build.findings, ...closingUnder(layers, pairs).map(({ pair, box }) => sayClosesUnder(pair, box))],
      },
    };
  },
};

/** Upper layers that are narrower than twice the trap over most of their length: what lies under them is not parted any more. */
function closingUnder(
  layers: BuildOut['layers'],
  pairs: readonly RuledPair[],
): { readonly pair: RuledPair; readonly box: Box }[] {
  const widest = new Map<string, RuledPair>();
  for (const pair of pairs)
    if (pair.school === 'trapped' && pair.trapMm > (widest.get(pair.upper.id)?.trapMm ?? 0))
      widest.set(pair.upper.id, pair);
  return [...widest].flatMap(([id, pair]) => {
    const { visible } = layers.find((layer) => layer.film.id === id)!;
    return areaOf(grow(grow(visible, -pair.trapMm), pair.trapMm)) >= 0.5 * areaOf(visible)
      ? []
      : [{ pair, box: boundsOf(visible)! }];
  });
}
