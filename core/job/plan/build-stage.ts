import { colourLightness } from '../../artwork/index.js';
import { areaOf, boundsOf, countPieces, grow, joinBoxes, signedArea, tolerances, unite, type Box } from '../../geometry/index.js';
import { buildLayers, type BuiltLayer, type Neighbours, type Separation } from '../../layers/index.js';
import type { CutterProfile, Film } from '../film.js';
import type { Finding } from '../finding.js';
import { formatLength } from '../length.js';
import type { PlaceRules } from '../places.js';
import type { BlockOut, Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';
import { stackingOrder } from './order.js';
import { pairKey, rulePairs, sayTerms, type PairPlan } from './pairs.js';
import type { BuildStage } from './plan.js';

/** The layers by the chosen school, pair by pair, with the trap ruled by formula unless the maker set it. Separation keys are film ids. */
export function buildStage(
  separation: Separation,
  neighbours: Neighbours,
  recipe: Pick<Recipe, 'build' | 'preparation' | 'repair'>,
  films: ReadonlyMap<string, Film>,
  cutter: CutterProfile,
  rules: PlaceRules,
): BuildStage {
  const filmOf = (key: string) => films.get(key)!;
  const order = stackingOrder(separation, neighbours, recipe.build.order, filmOf);
  const art = separation.layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.visible)), null);
  const pairs = art ? rulePairs(order.keys, neighbours.contacts, art, recipe, filmOf, cutter) : [];
  const byKey = new Map(pairs.map((pair) => [pair.key, pair]));
  const widest = widestPair(pairs);
  const trapMm = recipe.build.trapMm ?? widest?.ruledTrapMm ?? 0;
  const { layers } = buildLayers(separation, {
    school: recipe.build.school,
    trapMm,
    order: order.keys,
    thinnestMm: (key) => filmOf(key).thinnestMm,
    takesOnTop: (key) => filmOf(key).takesOnTop,
    closesGap: { widthMm: (key) => Math.min(recipe.repair.closeGapsMm, filmOf(key).thinnestMm), at: (box) => rules.reaches('gaps', box) },
    pair: (lower, upper) => byKey.get(pairKey(lower, upper)) ?? { school: recipe.build.school, trapMm },
  });
  const built = withBlockOut(layers, recipe.build.blockOut, films);
  const rulings: Ruling[] = [schoolRuling(recipe.build.school, layers.length), ...order.rulings];
  if (widest && pairs.some((pair) => pair.school === 'trapped')) rulings.push(trapRuling(widest, recipe));
  if (separation.joined > 0) {
    rulings.push({
      id: 'build.joined',
      stage: 'build',
      subject: 'Overlaps of one film',
      sentence: '{value} overlapping or touching shapes of one film were joined.',
      value: separation.joined,
      unit: '',
      because: ['Left apart, the blade would cut through where they overlap.'],
    });
  }
  const isTrapped = pairs.some((pair) => pair.school === 'trapped') || recipe.build.school === 'trapped';
  return {
    layers: built.map((layer) => ({ ...layer, film: filmOf(layer.key), areaMm2: areaOf(layer.cut), ...countPieces(layer.cut) })),
    pairs,
    trapMm: isTrapped ? trapMm : 0,
    trap: widest?.width ?? null,
    rulings,
    findings: [...order.findings, ...trapFindings(recipe, trapMm, widest), ...ghostFindings(pairs, recipe.build.pairs)],
  };
}

/** The pair that sets the job's trap: of those that are trapped the one that needs most, or of all when none is. */
function widestPair(pairs: readonly PairPlan[]): PairPlan | null {
  const takes = pairs.filter((pair) => pair.lower.takesOnTop && pair.ruledSchool !== 'inlay');
  const candidates = takes.length > 0 ? takes : pairs.filter((pair) => pair.lower.takesOnTop);
  return candidates.reduce<PairPlan | null>((best, pair) => (!best || pair.width.exactMm > best.width.exactMm ? pair : best), null);
}

/** A film laid beneath another all over, a little within its edge. It shows nowhere, so it is no part of the separation. */
function withBlockOut(layers: readonly BuiltLayer[], blockOut: BlockOut | null, films: ReadonlyMap<string, Film>): readonly BuiltLayer[] {
  const backed = blockOut && layers.find((layer) => layer.key === blockOut.underFilmId);
  if (!blockOut || !backed || !films.has(blockOut.filmId)) return layers;
  const cut = grow(backed.cut, -blockOut.insetMm).filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
  if (cut.length === 0) return layers;
  const same = layers.find((layer) => layer.key === blockOut.filmId);
  if (same) return layers.map((layer) => (layer === same ? { ...layer, cut: unite([...layer.cut, ...cut]) } : layer));
  return [{ key: blockOut.filmId, order: 1, visible: [], cut }, ...layers.map((layer) => ({ ...layer, order: layer.order + 1 }))];
}

/** Upper layers that are narrower than twice the trap over most of their length: what lies under them is not parted any more. */
export function closingUnder({ layers, pairs }: Pick<BuildStage, 'layers' | 'pairs'>): Finding[] {
  const trapOf = new Map<string, PairPlan>();
  for (const pair of pairs) if (pair.school === 'trapped' && pair.trapMm > (trapOf.get(pair.upper.id)?.trapMm ?? 0)) trapOf.set(pair.upper.id, pair);
  return [...trapOf].flatMap(([id, { lower, upper, trapMm }]): Finding[] => {
    const { visible } = layers.find((layer) => layer.film.id === id)!;
    if (areaOf(grow(grow(visible, -trapMm), trapMm)) >= 0.5 * areaOf(visible)) return [];
    return [{ code: 'closes-under', severity: 'note', stage: 'build', message: `${upper.name} is narrower than twice the trap over most of its length, so ${lower.name} runs through under it.`, where: boundsOf(visible)! }];
  });
}

function ghostFindings(pairs: readonly PairPlan[], decided: Recipe['build']['pairs']): Finding[] {
  return pairs
    .filter((pair) => pair.school !== 'inlay' && pair.upper.finish === 'translucent' && colourLightness(pair.lower.colour) < colourLightness(pair.upper.colour) - 10)
    .map((pair) => ({
      code: 'ghost',
      severity: 'warning',
      stage: 'build',
      message: `${pair.upper.name} lets light through: where ${pair.lower.name} runs under it, it shows as a darker line.`,
      remedies: [{ label: 'Butt these two', patch: { build: { pairs: { ...decided, [pair.key]: { school: 'inlay', trapMm: null } } } } }],
    }));
}

function trapRuling(widest: PairPlan, { build, preparation }: Pick<Recipe, 'build' | 'preparation'>): Ruling {
  const { ruledTrapMm } = widest;
  return {
    id: 'build.trap',
    stage: 'build',
    subject: 'Trap width',
    sentence: 'Lower layers run {value} under the upper ones.',
    value: build.trapMm ?? ruledTrapMm,
    unit: 'mm',
    because: sayTerms(widest, build.trapForm, preparation.marks),
    overridden: build.trapMm !== null && build.trapMm !== ruledTrapMm,
    proposed: ruledTrapMm,
    alternatives: [
      build.trapForm === 'worst'
        ? { label: 'Reckon with chance: root of the sum of squares', patch: { build: { trapForm: 'statistical' } } }
        : { label: 'Reckon with the worst of everything at once', patch: { build: { trapForm: 'worst' } } },
    ],
  };
}

function trapFindings(recipe: Pick<Recipe, 'build'>, trapMm: number, ruled: PairPlan | null): Finding[] {
  const { school, trapMm: override } = recipe.build;
  if (school === 'trapped' && override !== null && ruled && override < ruled.ruledTrapMm - 1e-9) {
    return [
      {
        code: 'trap-narrow',
        severity: 'warning',
        stage: 'build',
        message: `A trap of ${formatLength(trapMm)} mm is under the ${formatLength(ruled.ruledTrapMm)} mm that hides the worst slip: bare surface may show.`,
        remedies: [{ label: `Use ${formatLength(ruled.ruledTrapMm)} mm`, patch: { build: { trapMm: null } } }],
      },
    ];
  }
  return [];
}

function schoolRuling(school: Recipe['build']['school'], layers: number): Ruling {
  const because = {
    overlay: ['Every lower layer runs whole under the upper ones: forgiving to lay, thick to feel.'],
    inlay: ['Upper shapes are taken out of the lower layers exactly: flush, but any slip shows a gap.'],
    trapped: ['As an inlay, but lower layers run a little under the upper ones, so that slip and shrink do not show.'],
  }[school];
  return {
    id: 'build.school',
    stage: 'build',
    subject: 'School of build',
    sentence: layers > 1 ? `The ${layers} layers are built as {value}.` : 'One layer needs no build; it is cut as {value}.',
    value: { overlay: 'overlay', inlay: 'inlay', trapped: 'trapped inlay' }[school],
    unit: '',
    because,
    alternatives: (['overlay', 'inlay', 'trapped'] as const)
      .filter((other) => other !== school)
      .map((other) => ({ label: other === 'trapped' ? 'Trapped inlay' : other === 'inlay' ? 'Inlay' : 'Overlay', patch: { build: { school: other } } })),
  };
}
