import { areaOf, boundsOf, boxesTouch, countPieces, joinBoxes, type Box } from '../../geometry/index.js';
import { buildLayers, trapWidth, type Separation, type TrapWidth, type VisibleLayer } from '../../layers/index.js';
import { layOutMarks } from '../../preparation/index.js';
import type { CutterProfile, Film } from '../film.js';
import type { Finding } from '../finding.js';
import { formatLength } from '../length.js';
import type { Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';
import type { BuildStage } from './plan.js';

/** Clear film between the artwork and a mark, as a multiple of the mark's size. */
export const MARK_GAP_SHARE = 0.5;

/** The layers by the chosen school, with the trap ruled by formula unless the maker set it. Separation keys are film ids. */
export function buildStage(
  separation: Separation,
  recipe: Pick<Recipe, 'build' | 'preparation'>,
  films: ReadonlyMap<string, Film>,
  cutter: CutterProfile,
): BuildStage {
  const filmOf = (key: string) => films.get(key)!;
  const order = stackingOrder(separation.layers, recipe.build.order, filmOf);
  const ruled = rulingTrap(order.keys, separation.layers, recipe, filmOf, cutter);
  const trapMm = recipe.build.trapMm ?? ruled?.width.mm ?? 0;
  const { layers } = buildLayers(separation, {
    school: recipe.build.school,
    trapMm,
    order: order.keys,
    thinnestMm: (key) => filmOf(key).thinnestMm,
    takesOnTop: (key) => filmOf(key).takesOnTop,
  });
  const rulings: Ruling[] = [schoolRuling(recipe.build.school, layers.length), ...order.rulings];
  if (recipe.build.school === 'trapped' && ruled) rulings.push(trapRuling(ruled, recipe.build.trapMm));
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
  return {
    layers: layers.map((layer) => ({ ...layer, film: filmOf(layer.key), areaMm2: areaOf(layer.cut), ...countPieces(layer.cut) })),
    trapMm: recipe.build.school === 'trapped' ? trapMm : 0,
    trap: ruled?.width ?? null,
    rulings,
    findings: [...order.findings, ...trapFindings(recipe, trapMm, ruled)],
  };
}

function stackingOrder(
  layers: readonly VisibleLayer[],
  wished: readonly string[],
  filmOf: (key: string) => Film,
): { keys: string[]; rulings: Ruling[]; findings: Finding[] } {
  const rank = new Map(wished.map((key, i) => [key, i]));
  const place = (key: string) => rank.get(key) ?? wished.length;
  const asArtwork = layers.map((layer) => layer.key);
  const asWished = [...asArtwork].sort((a, b) => place(a) - place(b) || asArtwork.indexOf(a) - asArtwork.indexOf(b));
  const bare = asWished.filter((key) => !filmOf(key).takesOnTop);
  const keys = [...asWished.filter((key) => filmOf(key).takesOnTop), ...bare];
  const rulings: Ruling[] = [];
  const findings: Finding[] = [];
  if (bare.length > 0 && keys.join() !== asWished.join()) {
    rulings.push({
      id: 'build.top',
      stage: 'build',
      subject: 'What lies on top',
      sentence: '{value} is moved to the top of the build.',
      value: bare.map((key) => filmOf(key).name).join(' and '),
      unit: '',
      because: ['Nothing sticks on textured film, so nothing may lie over it.'],
    });
  }
  if (bare.length > 1) {
    findings.push({
      code: 'two-textured',
      severity: 'warning',
      stage: 'build',
      message: 'Two films here take nothing on top; where they meet they are butted without a trap.',
    });
  }
  return { keys, rulings, findings };
}

interface RuledTrap {
  readonly width: TrapWidth;
  readonly lower: Film;
  readonly upper: Film;
  readonly reachMm: number;
  readonly markDistanceMm: number;
  readonly marks: boolean;
  readonly placementErrorMm: number;
}

/** The widest trap that any pair of touching layers needs: one width for the job. Null when no two layers meet. */
function rulingTrap(
  keys: readonly string[],
  layers: readonly VisibleLayer[],
  recipe: Pick<Recipe, 'build' | 'preparation'>,
  filmOf: (key: string) => Film,
  cutter: CutterProfile,
): RuledTrap | null {
  const boxes = new Map(layers.map((layer) => [layer.key, boundsOf(layer.visible)!]));
  const all = [...boxes.values()].reduce<Box | null>(joinBoxes, null);
  if (!all) return null;
  const { marks, markSizeMm } = recipe.preparation;
  const markDistance = layOutMarks(all, markSizeMm, markSizeMm * MARK_GAP_SHARE).distanceMm;
  let widest: RuledTrap | null = null;
  keys.forEach((lowerKey, i) => {
    for (const upperKey of keys.slice(i + 1)) {
      const [a, b] = [boxes.get(lowerKey)!, boxes.get(upperKey)!];
      if (!boxesTouch(a, b)) continue;
      const [lower, upper] = [filmOf(lowerKey), filmOf(upperKey)];
      if (!lower.takesOnTop) continue;
      const common = Math.max(Math.min(a.maxX, b.maxX) - Math.max(a.minX, b.minX), Math.min(a.maxY, b.maxY) - Math.max(a.minY, b.minY), 1);
      const markDistanceMm = marks ? markDistance : common;
      const width = trapWidth({
        placementErrorMm: recipe.build.placementErrorMm,
        shrinkDifference: Math.abs(lower.shrinkPct - upper.shrinkPct) / 100,
        reachMm: common / 2,
        markDistanceMm,
        repeatabilityMm: cutter.repeatabilityMm,
      });
      if (!widest || width.exactMm > widest.width.exactMm) {
        widest = { width, lower, upper, reachMm: common / 2, markDistanceMm, marks, placementErrorMm: recipe.build.placementErrorMm };
      }
    }
  });
  return widest;
}

function trapRuling(ruled: RuledTrap, override: number | null): Ruling {
  const { parts, mm, exactMm } = ruled.width;
  const f = (v: number) => formatLength(v);
  return {
    id: 'build.trap',
    stage: 'build',
    subject: 'Trap width',
    sentence: 'Lower layers run {value} under the upper ones.',
    value: override ?? mm,
    unit: 'mm',
    because: [
      `${f(parts.placement)} for the hand: a layer may land that far off.`,
      `${f(parts.shrink)} for shrink: ${ruled.lower.name} and ${ruled.upper.name} share an area ${f(2 * ruled.reachMm)} mm long.`,
      `${f(parts.turn)} for turning: the ${ruled.marks ? 'marks are' : 'area, laid without marks, is'} ${f(ruled.markDistanceMm)} mm long to align by.`,
      `${f(parts.cutter)} for the cutter coming back to a point, twice.`,
      `Together ${f(exactMm)}, rounded up to ${f(mm)} mm (docs/trap.md).`,
    ],
    overridden: override !== null && override !== mm,
    proposed: mm,
  };
}

function trapFindings(recipe: Pick<Recipe, 'build'>, trapMm: number, ruled: RuledTrap | null): Finding[] {
  const { school, trapMm: override } = recipe.build;
  if (school === 'trapped' && override !== null && ruled && override < ruled.width.mm - 1e-9) {
    return [
      {
        code: 'trap-narrow',
        severity: 'warning',
        stage: 'build',
        message: `A trap of ${formatLength(trapMm)} mm is under the ${formatLength(ruled.width.mm)} mm that hides the worst slip: bare surface may show.`,
        remedies: [{ label: `Use ${formatLength(ruled.width.mm)} mm`, patch: { build: { trapMm: null } } }],
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
