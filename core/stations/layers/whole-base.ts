import { cutWhole, type BuiltLayer, type Separation } from '../../engines/layers/index.js';
import type { GangWish } from '../../engines/nesting/index.js';
import { countPieces } from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { Finding } from '../../words/index.js';
import type { BuildDecisions, BuildPatch } from './decisions.js';
import { runsWholeUnder } from './say-idle.js';
import { mayRunWhole, showsThrough, type RuledPair } from './pairs.js';

/** The lowest film of a gang, which could be cut whole under those above it. */
export interface WholeBase {
  readonly film: Film;
  /** How many counters fewer there would be to weed on each strip. */
  readonly counters: number;
}

/**
 * The lowest film of a gang, where cutting it whole under the films above spares counters and nothing speaks against it: no dye, no film
 * that nothing sticks on, no two thick films on cloth, no dark film that would show through. Null where it does not, or where the maker has
 * decided how this film meets another. `layers` are those of one copy, from the surface upwards, built from `separation`.
 */
export function wholeBase(
  separation: Separation,
  layers: readonly BuiltLayer[],
  pairs: readonly RuledPair[],
  gang: GangWish | null,
): WholeBase | null {
  const [base] = layers;
  if (!gang || !base) return null;
  const met = pairs.filter(({ lower }) => lower.id === base.key);
  const suits = ({ lower, upper, school, decidedFor }: RuledPair) =>
    decidedFor === null && school !== 'overlay' && mayRunWhole(lower, upper) && !showsThrough(lower, upper);
  if (met.length === 0 || !met.every(suits)) return null;
  const whole = cutWhole(
    separation,
    layers.map(({ key }) => key),
    base.key,
  );
  const counters = gang.across * gang.down * (countPieces(base.cut).holes - countPieces(whole).holes);
  return counters > 0 ? { film: met[0]!.lower, counters } : null;
}

/** The proposal to cut the base of a gang whole. */
export function sayWholeBase(
  { film, counters }: WholeBase,
  decided: Pick<BuildDecisions['build'], 'pairs' | 'filmPairs'>,
): Finding<BuildPatch> {
  return {
    code: 'base-whole-saves',
    severity: 'note',
    stage: 'build',
    message: `If ${film.name} runs completely under the films above it, each strip has ${counters === 1 ? 'one counter' : `${counters} counters`} fewer to weed. The stickers are a little thicker where films lie on it.`,
    remedies: [{ label: `Let ${film.name} run completely under`, patch: { build: runsWholeUnder(film.id, decided) } }],
  };
}
