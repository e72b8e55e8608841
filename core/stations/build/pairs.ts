import { colourLightness } from '../../engines/artwork/index.js';
import { trapWidth, type LayerContact, type PairBuild, type TrapTerms, type TrapWidth } from '../../engines/layers/index.js';
import { layOutMarks, type MarkWish } from '../../engines/marks/index.js';
import type { Box } from '../../geometry/index.js';
import type { Film } from '../../shop/index.js';
import type { BuildDecisions } from './decisions.js';

/** Two heat-applied films together thicker than this are stiff on cloth, µm. */
const STIFF_UM = 160;
/** A lower film darker than a translucent one over it by this much (CIELAB lightness) shows through as a ghost. */
const DARKER = 10;

/** Why two layers meet as they do. */
export type PairReason = 'dyes-mix' | 'nothing-sticks' | 'stiff' | 'ghost' | 'as-job';

/** Two layers that meet, and how the one runs under the other. */
export interface RuledPair {
  readonly key: string;
  readonly lower: Film;
  readonly upper: Film;
  readonly school: PairBuild['school'];
  readonly trapMm: number;
  /** What the app would do. */
  readonly ruledSchool: PairBuild['school'];
  readonly ruledTrapMm: number;
  readonly why: PairReason;
  readonly overridden: boolean;
  readonly terms: TrapTerms;
  readonly width: TrapWidth;
}

export const pairKey = (lower: string, upper: string) => `${lower} > ${upper}`;

/** Whether what runs under the upper film of a pair shows through it as a line. */
export function showsThrough(lower: Film, upper: Film): boolean {
  return upper.finish === 'translucent' && colourLightness(lower.colour) < colourLightness(upper.colour) - DARKER;
}

/** What the rules of pairs look at besides the films. */
export interface PairRules {
  /** Film ids from the surface upwards. */
  readonly order: readonly string[];
  readonly contacts: readonly LayerContact[];
  /** Round all that shows, mm. */
  readonly art: Box;
  readonly build: Pick<BuildDecisions['build'], 'school' | 'trapMm' | 'placementErrorMm' | 'trapForm' | 'pairs'>;
  /** Null when layers are laid by eye. */
  readonly marks: MarkWish | null;
  readonly repeatabilityMm: number;
}

/** Every pair of layers that meet, ruled by their films (docs/trap.md, docs/schools.md), the maker's own decisions laid over it. */
export function rulePairs({ order, contacts, art, build, marks, repeatabilityMm }: PairRules, filmOf: (key: string) => Film): RuledPair[] {
  const rank = new Map(order.map((key, i) => [key, i]));
  const markDistanceMm = marks && layOutMarks(art, marks).distanceMm;
  const found = contacts.map(({ a, b, box }) => {
    const [low, high] = rank.get(a)! < rank.get(b)! ? [a, b] : [b, a];
    const [lower, upper] = [filmOf(low), filmOf(high)];
    const common = Math.max(box.maxX - box.minX, box.maxY - box.minY, 1);
    const terms: TrapTerms = {
      placementErrorMm: build.placementErrorMm,
      shrinkDifference: Math.abs(lower.shrinkPct - upper.shrinkPct) / 100,
      reachMm: common / 2,
      markDistanceMm: markDistanceMm ?? common,
      repeatabilityMm,
    };
    return { key: pairKey(low, high), lower, upper, terms, width: trapWidth(terms, build.trapForm), rule: ruleOf(lower, upper, build.school) };
  });
  // One width for the job, the widest that any pair needs, so that a layer's laps are alike; a ghost shows less the narrower it is.
  const widest = Math.max(0, ...found.filter(({ rule }) => rule.school === 'trapped' && rule.why !== 'ghost').map(({ width }) => width.mm));
  return found.map(({ key, lower, upper, terms, width, rule }): RuledPair => {
    const own = build.pairs[key];
    const isGhost = rule.why === 'ghost';
    const ruledTrapMm = isGhost ? Math.min(width.mm, leastTrap(terms)) : widest;
    return {
      key,
      lower,
      upper,
      school: own?.school ?? rule.school,
      trapMm: own?.trapMm ?? (isGhost ? ruledTrapMm : (build.trapMm ?? ruledTrapMm)),
      ruledSchool: rule.school,
      ruledTrapMm,
      why: rule.why,
      overridden: (own?.school ?? null) !== null || (own?.trapMm ?? null) !== null,
      terms,
      width,
    };
  });
}

/** The least that hides the cutter's own error and the films' shrink. */
function leastTrap(terms: TrapTerms): number {
  return trapWidth({ ...terms, placementErrorMm: 0 }).mm;
}

function ruleOf(lower: Film, upper: Film, school: PairBuild['school']): { readonly school: PairBuild['school']; readonly why: PairReason } {
  if (lower.family === 'dyeTransfer' || upper.family === 'dyeTransfer') return { school: 'inlay', why: 'dyes-mix' };
  if (!lower.takesOnTop) return { school: 'inlay', why: 'nothing-sticks' };
  const isHot = (film: Film) => film.family === 'heatTransfer' || film.family === 'flock';
  if (school === 'overlay' && isHot(lower) && isHot(upper) && lower.thicknessUm + upper.thicknessUm > STIFF_UM) return { school: 'trapped', why: 'stiff' };
  if (school !== 'inlay' && showsThrough(lower, upper)) return { school: 'trapped', why: 'ghost' };
  return { school, why: 'as-job' };
}

/** The pair that sets the job's trap: of those that are trapped the one that needs most, or of all when none is. */
export function widestPair(pairs: readonly RuledPair[]): RuledPair | null {
  const takes = pairs.filter((pair) => pair.lower.takesOnTop && pair.ruledSchool !== 'inlay');
  const candidates = takes.length > 0 ? takes : pairs.filter((pair) => pair.lower.takesOnTop);
  return candidates.reduce<RuledPair | null>((best, pair) => (!best || pair.width.exactMm > best.width.exactMm ? pair : best), null);
}
