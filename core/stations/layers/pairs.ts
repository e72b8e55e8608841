import { colourLightness } from '../../engines/artwork/index.js';
import {
  CAREFUL_MM,
  placementErrorMm,
  trapWidth,
  type LayerContact,
  type Laying,
  type PairBuild,
  type TrapTerms,
  type TrapWidth,
} from '../../engines/layers/index.js';
import { layOutMarks, type MarkWish } from '../../engines/marks/index.js';
import { longestSide, type Box } from '../../geometry/index.js';
import { drawBackMm, wayOf, type Film } from '../../shop/index.js';
import type { BuildDecisions, PairDecision } from './decisions.js';

/** Two heat-applied films together thicker than this are stiff on cloth, µm. */
const STIFF_UM = 160;
/** Films that differ by less in lightness (CIELAB L*) are alike: a lap of one under the other does not show. */
export const ALIKE_LIGHTNESS = 10;
/** Two pressed films never shrink alike: the lower one is heated again with every press. Their difference counts at least this much. */
const LEAST_SHRINK = 0.002;

/** Why two layers meet as they do. */
export type PairReason = 'dyes-mix' | 'nothing-sticks' | 'stiff' | 'ghost' | 'shadow' | 'base' | 'as-job';

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
  /** Whether the maker decided it otherwise: for this pair, or for one of its films against all others. */
  readonly decidedFor: 'pair' | 'lower' | 'upper' | null;
  readonly terms: TrapTerms;
  readonly width: TrapWidth;
  /** Round the edge that they share. */
  readonly box: Box;
}

export const pairKey = (lower: string, upper: string) => `${lower} > ${upper}`;

/** Whether a lap of the lower film shows through the upper one as a darker line: it is darker, and nothing hides fully but what says so. */
export function showsThrough(lower: Film, upper: Film): boolean {
  return upper.opacityPct < 100 && colourLightness(lower.colour) <= colourLightness(upper.colour) - ALIKE_LIGHTNESS;
}

/** By how much more the lower of two films shrinks as a whole under the press, as a fraction; 0 where one is not pressed. */
export function shrinkBetween(lower: Film, upper: Film): number {
  if (wayOf(lower) !== 'press' || wayOf(upper) !== 'press') return 0;
  const more = (lower.shrinkPct - upper.shrinkPct) / 100;
  return Math.abs(more) < LEAST_SHRINK ? LEAST_SHRINK : more;
}

/** a₀: the maker's own figure, or a careful hand's, with marks and by eye. */
export function carefulMm(build: Pick<BuildDecisions['build'], 'placementErrorMm'>, hasMarks: boolean): number {
  return build.placementErrorMm ?? (hasMarks ? CAREFUL_MM.marked : CAREFUL_MM.byEye);
}

/** What the maker decided for two films: for the pair by itself, else for the lower film against all others, else for the upper one. */
export function decisionFor(
  { pairs, filmPairs }: Pick<BuildDecisions['build'], 'pairs' | 'filmPairs'>,
  lower: string,
  upper: string,
): (PairDecision & { readonly for: NonNullable<RuledPair['decidedFor']> }) | null {
  const found = (
    [
      ['pair', pairs[pairKey(lower, upper)]],
      ['lower', filmPairs[lower]],
      ['upper', filmPairs[upper]],
    ] as const
  ).find(([, decision]) => decision);
  return found ? { ...found[1]!, for: found[0] } : null;
}

/** What the rules of pairs look at besides the films. */
export interface PairRules {
  /** Film ids from the surface upwards. */
  readonly order: readonly string[];
  /** The film that is laid first: all others are aligned to it. */
  readonly first: string;
  readonly contacts: readonly LayerContact[];
  /** Round all that shows of what is laid in one piece, mm. */
  readonly art: Box;
  readonly build: Pick<
    BuildDecisions['build'],
    'school' | 'trapMm' | 'placementErrorMm' | 'trapForm' | 'lives' | 'pairs' | 'filmPairs'
  >;
  /** The film that lies in one piece under all others, if one does. */
  readonly baseId: string | null;
  /** Null when layers are laid by eye. */
  readonly marks: MarkWish | null;
  readonly laying: Laying;
  readonly repeatabilityMm: number;
}

/** Every pair of layers that meet, ruled by their films (docs/trap.md, docs/schools.md), the maker's own decisions laid over it. */
export function rulePairs(
  { order, first, contacts, art, build, baseId, marks, laying, repeatabilityMm }: PairRules,
  filmOf: (key: string) => Film,
): RuledPair[] {
  const rank = new Map(order.map((key, i) => [key, i]));
  const markDistanceMm = marks && layOutMarks(art, marks).distanceMm;
  const a0 = carefulMm(build, marks !== null);
  const halfDiagonal = Math.hypot(art.maxX - art.minX, art.maxY - art.minY) / 2;
  const found = contacts.map(({ a, b, box, farthestMm }) => {
    const [low, high] = rank.get(a)! < rank.get(b)! ? [a, b] : [b, a];
    const [lower, upper] = [filmOf(low), filmOf(high)];
    const edgeMm = Math.max(Math.min(longestSide(box), longestSide(art)), 1);
    const terms: TrapTerms = {
      placementErrorMm: placementErrorMm(a0, longestSide(art), laying),
      bothLaid: low !== first && high !== first,
      shrinkDifference: Math.abs(shrinkBetween(lower, upper)),
      drawBackMm: drawBackMm(lower, build.lives) + drawBackMm(upper, build.lives),
      // In a panel no edge is further from the middle of its marks than its corners.
      reachMm: markDistanceMm === null ? edgeMm / 2 : Math.min(farthestMm, Math.max(halfDiagonal, 1)),
      markDistanceMm: markDistanceMm ?? edgeMm,
      repeatabilityMm,
    };
    return {
      key: pairKey(low, high),
      lower,
      upper,
      terms,
      box,
      width: trapWidth(terms, build.trapForm),
      rule: ruleOf(lower, upper, build.school, low === baseId),
    };
  });
  // One width for the job, the widest that any pair needs, so that a layer's laps are alike; what shows through shows less the narrower it is.
  const widest = Math.max(
    0,
    ...found.filter(({ rule }) => rule.school === 'trapped' && !isSeen(rule.why)).map(({ width }) => width.mm),
  );
  return found.map(({ rule, ...pair }): RuledPair => {
    const own = decisionFor(build, pair.lower.id, pair.upper.id);
    // A faint line under a film that hides nearly all is better than a gap; one that lets light through shows it plainly.
    const ruledTrapMm = rule.why === 'ghost' ? leastTrap(pair.terms) : rule.why === 'shadow' ? pair.width.mm : widest;
    return {
      ...pair,
      school: own?.school ?? rule.school,
      // Through a translucent film a lap shows whatever its colour: the job's width set by hand does not go for it.
      trapMm: own?.trapMm ?? (rule.why === 'ghost' ? ruledTrapMm : (build.trapMm ?? ruledTrapMm)),
      ruledSchool: rule.school,
      ruledTrapMm,
      why: rule.why,
      decidedFor: (own?.school ?? own?.trapMm ?? null) === null ? null : own!.for,
    };
  });
}

/** Whether what runs under the upper film of a pair can be seen, so that it is to be no wider than it must. */
function isSeen(why: PairReason): boolean {
  return why === 'ghost' || why === 'shadow';
}

/** The least that hides the cutter's own error and what the films do by themselves. */
function leastTrap(terms: TrapTerms): number {
  return trapWidth({ ...terms, placementErrorMm: 0 }).mm;
}

/** Whether a film may run completely under another: they are no dyes, something sticks on it, and together they are not stiff on cloth. */
export function mayRunWhole(lower: Film, upper: Film): boolean {
  return ruleOf(lower, upper, 'overlay', false).school === 'overlay';
}

function ruleOf(
  lower: Film,
  upper: Film,
  school: PairBuild['school'],
  isBase: boolean,
): { readonly school: PairBuild['school']; readonly why: PairReason } {
  if (lower.family === 'dyeTransfer' || upper.family === 'dyeTransfer') return { school: 'inlay', why: 'dyes-mix' };
  if (!lower.takesOnTop) return { school: 'inlay', why: 'nothing-sticks' };
  if (isBase) return { school: 'overlay', why: 'base' };
  if (
    school === 'overlay' &&
    wayOf(lower) === 'press' &&
    wayOf(upper) === 'press' &&
    lower.thicknessUm + upper.thicknessUm > STIFF_UM
  )
    return { school: 'trapped', why: 'stiff' };
  if (school !== 'inlay' && upper.finish === 'translucent' && showsThrough(lower, upper))
    return { school: 'trapped', why: 'ghost' };
  // Laid over it whole, an opaque film is a little darker all over, which nobody sees; only the edge of a lap is seen.
  if (school === 'trapped' && showsThrough(lower, upper)) return { school: 'trapped', why: 'shadow' };
  return { school, why: 'as-job' };
}

/** The pair that sets the job's trap: of those that are trapped like the job the one that needs most, or of all that can be when none is. */
export function widestPair(pairs: readonly RuledPair[]): RuledPair | null {
  const can = pairs.filter((pair) => pair.lower.takesOnTop);
  const trapped = can.filter((pair) => pair.ruledSchool !== 'inlay');
  // A base runs whole under all: what it would need as a trap says nothing of those that are trapped.
  const cut = trapped.filter((pair) => pair.ruledSchool === 'trapped');
  const like = (some: readonly RuledPair[]) => some.filter((pair) => !isSeen(pair.why));
  const candidates = [like(cut), cut, like(trapped), trapped, can].find((list) => list.length > 0) ?? [];
  return candidates.reduce<RuledPair | null>(
    (best, pair) => (!best || pair.width.exactMm > best.width.exactMm ? pair : best),
    null,
  );
}
