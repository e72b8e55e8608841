import type { Box } from '../../geometry/index.js';
import { trapWidth, type LayerContact, type PairBuild, type TrapTerms, type TrapWidth } from '../../layers/index.js';
import { colourLightness } from '../../artwork/index.js';
import type { CutterProfile, Film } from '../film.js';
import { formatLength } from '../length.js';
import type { Recipe } from '../recipe.js';
import { marksOf } from './marks.js';

/** Two heat-applied films together thicker than this are stiff on cloth, µm. */
const STIFF_UM = 160;
/** A lower film darker than a translucent one over it by this much (CIELAB lightness) shows through as a ghost. */
const DARKER = 10;

/** Two layers that meet, and how the one runs under the other. */
export interface PairPlan {
  readonly key: string;
  readonly lower: Film;
  readonly upper: Film;
  readonly school: PairBuild['school'];
  readonly trapMm: number;
  /** What the app would do. */
  readonly ruledSchool: PairBuild['school'];
  readonly ruledTrapMm: number;
  readonly because: readonly string[];
  readonly overridden: boolean;
  readonly terms: TrapTerms;
  readonly width: TrapWidth;
}

export const pairKey = (lower: string, upper: string) => `${lower} > ${upper}`;

/** Every pair of layers that meet, ruled by their films (docs/trap.md, docs/schools.md), the maker's own decisions laid over it. */
export function rulePairs(
  order: readonly string[],
  contacts: readonly LayerContact[],
  art: Box,
  { build, preparation }: Pick<Recipe, 'build' | 'preparation'>,
  filmOf: (key: string) => Film,
  cutter: CutterProfile,
): PairPlan[] {
  const rank = new Map(order.map((key, i) => [key, i]));
  const { marks } = preparation;
  const markDistanceMm = marksOf(art, preparation).distanceMm;
  const found = contacts.map(({ a, b, box }) => {
    const [low, high] = rank.get(a)! < rank.get(b)! ? [a, b] : [b, a];
    const [lower, upper] = [filmOf(low), filmOf(high)];
    const common = Math.max(box.maxX - box.minX, box.maxY - box.minY, 1);
    const terms: TrapTerms = {
      placementErrorMm: build.placementErrorMm,
      shrinkDifference: Math.abs(lower.shrinkPct - upper.shrinkPct) / 100,
      reachMm: common / 2,
      markDistanceMm: marks ? markDistanceMm : common,
      repeatabilityMm: cutter.repeatabilityMm,
    };
    return { key: pairKey(low, high), lower, upper, terms, width: trapWidth(terms, build.trapForm), rule: ruleOf(lower, upper, build.school) };
  });
  // One width for the job, the widest that any pair needs, so that a layer's laps are alike; a ghost shows less the narrower it is.
  const widest = Math.max(0, ...found.filter(({ rule }) => rule.school === 'trapped' && !rule.ghost).map(({ width }) => width.mm));
  return found.map(({ key, lower, upper, terms, width, rule }): PairPlan => {
    const own = build.pairs[key];
    const ruledTrapMm = rule.ghost ? Math.min(width.mm, leastTrap(terms)) : widest;
    const school = own?.school ?? rule.school;
    return {
      key,
      lower,
      upper,
      school,
      trapMm: own?.trapMm ?? (rule.ghost ? ruledTrapMm : (build.trapMm ?? ruledTrapMm)),
      ruledSchool: rule.school,
      ruledTrapMm,
      because: own?.school || (own && own.trapMm !== null) ? ['You decided it for this pair.', ...rule.because] : rule.because,
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

interface PairRule {
  readonly school: PairBuild['school'];
  readonly ghost: boolean;
  readonly because: readonly string[];
}

function ruleOf(lower: Film, upper: Film, school: PairBuild['school']): PairRule {
  if (lower.family === 'dyeTransfer' || upper.family === 'dyeTransfer') return { school: 'inlay', ghost: false, because: ['Dyes mix where they overlap, so these are butted.'] };
  if (!lower.takesOnTop) return { school: 'inlay', ghost: false, because: [`Nothing sticks on ${lower.name}, so nothing of it runs under another film.`] };
  const isHot = (film: Film) => film.family === 'heatTransfer' || film.family === 'flock';
  if (school === 'overlay' && isHot(lower) && isHot(upper) && lower.thicknessUm + upper.thicknessUm > STIFF_UM) {
    return { school: 'trapped', ghost: false, because: [`Together ${lower.thicknessUm + upper.thicknessUm} µm thick, they would be stiff on cloth; only a lap is left.`] };
  }
  if (school !== 'inlay' && upper.finish === 'translucent' && colourLightness(lower.colour) < colourLightness(upper.colour) - DARKER) {
    return { school: 'trapped', ghost: true, because: [`${upper.name} lets light through and ${lower.name} is darker: what runs under shows as a line, so it is kept as narrow as the cutter and the films allow.`] };
  }
  return { school, ghost: false, because: [{ overlay: 'As the job: it runs whole under.', inlay: 'As the job: cut out exactly.', trapped: 'As the job: it runs under by the trap.' }[school]] };
}

/** The formula's terms, read aloud. */
export function sayTerms({ lower, upper, terms, width }: PairPlan, form: 'worst' | 'statistical', marks: boolean): string[] {
  const f = (v: number) => formatLength(v);
  const { parts, exactMm, mm } = width;
  return [
    `${f(parts.placement)} for the hand: a layer may land that far off.`,
    `${f(parts.shrink)} for shrink: ${lower.name} and ${upper.name} share an area ${f(2 * terms.reachMm)} mm long.`,
    `${f(parts.turn)} for turning: the ${marks ? 'marks are' : 'area, laid without marks, is'} ${f(terms.markDistanceMm)} mm long to align by.`,
    `${f(parts.cutter)} for the cutter coming back to a point, twice.`,
    `${form === 'worst' ? 'Together' : 'As the root of the sum of squares, shrink added,'} ${f(exactMm)}, rounded up to ${f(mm)} mm (docs/trap.md).`,
  ];
}
