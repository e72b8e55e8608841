import {
  areaOf,
  boundsOf,
  boxesTouch,
  countPieces,
  grow,
  joinBoxes,
  intersect,
  pointCell,
  regionsOf,
  ringsOf,
  signedArea,
  subtract,
  tolerances,
  unite,
  widenBox,
  type Box,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { Build, School, Separation, StackedPaint, VisibleLayer } from './layer.js';
import { isNarrow, withoutCrumbs } from './crumbs.js';
import { joinParts, ringsNear } from './separate.js';
import { withoutLaps, type ClosedLayer } from './side-by-side.js';
import { narrowGaps } from './thin-parts.js';

export interface BuildOptions {
  readonly school: School;
  /** Trap width in mm; only read by the trapped school. */
  readonly trapMm: number;
  /** Layer keys from the surface upwards; keys it does not name follow in the artwork's order. */
  readonly order?: readonly string[];
  /** Holes of a lower layer narrower than this are filled where an upper layer hides them (trade practice: they cannot be weeded). */
  readonly thinnestMm?: (key: string) => number;
  /** False where the layer's film takes nothing on top; it then never runs under another. */
  readonly takesOnTop?: (key: string) => boolean;
  /** Gaps of a lower layer that are closed where layers above hide them: how narrow they must be, and which. */
  readonly closesGap?: { readonly widthMm: (key: string) => number; readonly at: (box: Box) => boolean };
  /** How a layer meets one above it, where that differs from the job. */
  readonly pair?: (lower: string, upper: string) => PairBuild;
}

/** How one layer runs under another. */
export interface PairBuild {
  readonly school: School;
  readonly trapMm: number;
}

/**
 * Makes the layers of a job from its separation, for any number of layers.
 *
 * With V the visible area of a layer, F all that is painted in it, and U the visible areas of all layers above it:
 * overlay cuts V ∪ (F ∩ U), inlay cuts V, trapped cuts V ∪ (grow(V, t) ∩ U) with round corners. In all three the upper
 * layer keeps its exact edge, and painting the layers from the surface upwards gives the artwork's look. What no blade can cut is taken out.
 */
export function buildLayers({ stack, layers: found }: Separation, options: BuildOptions): Build {
  const ordered = inOrder(found, options.order ?? []);
  const rank = new Map(ordered.map((layer, i) => [layer.key, i]));
  // A paint without a layer is bare surface: what it covers must not be reckoned as covered by film.
  const asPainted = stack.every(
    (paint) =>
      rank.has(paint.layer) && paint.coveredBy.every((j) => !(rank.get(stack[j]!.layer)! < rank.get(paint.layer)!)),
  );
  const crumbs = { pieces: 0, holes: 0, joins: 0, slits: 0 };
  let filled = 0;
  const schoolOf = (lower: string, upper: string) => (options.pair?.(lower, upper) ?? options).school;
  const layers = ordered.map((layer, i): ClosedLayer => {
    const above = ordered.slice(i + 1);
    const parted = cutOf(layer, { stack, asPainted, above, rank }, options);
    const closed = withoutCovered(layer, parted, above, options);
    filled += countPieces(parted).holes - countPieces(closed).holes;
    const { rings, ...taken } = withoutCrumbs(closed);
    for (const kind of ['pieces', 'holes', 'joins', 'slits'] as const) crumbs[kind] += taken[kind];
    const cut = rings === layer.visible ? rings : withoutLoose(rings, layer.visible);
    return {
      layer: { key: layer.key, order: i + 1, visible: layer.visible, cut },
      closed: taken.holes + taken.slits > 0 ? subtract(cut, closed) : [],
    };
  });
  return { layers: withoutLaps(layers, (lower, upper) => schoolOf(lower, upper) === 'inlay'), crumbs, filled };
}

/** A layer that runs whole under others, without the holes that those cover completely: nobody sees them, and each is a counter to weed. */
function withoutCovered(layer: VisibleLayer, cut: Rings, above: readonly VisibleLayer[], options: BuildOptions): Rings {
  if (cut === layer.visible) return cut;
  const over = above.filter(({ key }) => (options.pair?.(layer.key, key) ?? options).school === 'overlay');
  return over.length === 0
    ? cut
    : fillHidden(
        cut,
        over.flatMap(({ visible }) => visible),
        Infinity,
      );
}

interface Surroundings {
  readonly stack: readonly StackedPaint[];
  /** The layers' order never contradicts the artwork's z-order where paints meet. */
  readonly asPainted: boolean;
  readonly above: readonly VisibleLayer[];
  readonly rank: ReadonlyMap<string, number>;
}

function cutOf(layer: VisibleLayer, around: Surroundings, options: BuildOptions): Rings {
  if (around.above.length === 0 || options.takesOnTop?.(layer.key) === false) return layer.visible;
  const cut = partedCut(layer, around, options);
  const { closesGap } = options;
  const gaps = closesGap
    ? narrowGaps(cut, closesGap.widthMm(layer.key)).filter((gap) => closesGap.at(boundsOf([gap.outer])!))
    : [];
  if (gaps.length === 0) return cut;
  // A hair wider, so that it joins the edges of the gap; nobody sees it under what lies there.
  const hidden = intersect(
    gaps.flatMap((gap) => grow([gap.outer, ...gap.holes], tolerances.HAIRLINE_MM)),
    around.above.flatMap((upper) => upper.visible),
  );
  return unite([...cut, ...hidden]);
}

/**
 * What is cut without the pieces of which nothing shows: across a strip of bare surface narrower than the trap, what should run under the film beyond
 * it would be a loose strip there.
 */
function withoutLoose(cut: Rings, visible: Rings): Rings {
  const corners = new Set<number>();
  for (const ring of visible) for (let i = 0; i < ring.length; i += 2) corners.add(pointCell(ring[i]!, ring[i + 1]!));
  const boxed = visible.map((ring) => ({ ring, box: boundsOf([ring])! }));
  // Pieces that are apart touch at a point or two; more corners that are the same say without the kernel that something of it shows.
  const isSeen = (ring: Ring) => {
    let same = 0;
    for (let i = 0; i < ring.length && same < 3; i += 2) if (corners.has(pointCell(ring[i]!, ring[i + 1]!))) same += 1;
    return same >= 3;
  };
  const isLoose = (ring: Ring) => {
    if (isSeen(ring)) return false;
    const box = boundsOf([ring])!;
    // What lies against it with a hairline between belongs to it, along more than a blade can leave: a corner does not hold it.
    return (
      areaOf(
        intersect(
          grow([ring], 2 * tolerances.HAIRLINE_MM),
          boxed.filter((other) => boxesTouch(other.box, box, 2 * tolerances.HAIRLINE_MM)).map((other) => other.ring),
        ),
      ) <=
      4 * tolerances.HAIRLINE_MM * tolerances.CRUMB_MM
    );
  };
  const loose = new Set(cut.filter((ring) => signedArea(ring) > 0 && isLoose(ring)));
  return loose.size === 0 ? cut : ringsOf(regionsOf(cut).filter(({ outer }) => !loose.has(outer)));
}

/** What is cut of a layer by its school, pair by pair. */
function partedCut(layer: VisibleLayer, around: Surroundings, options: BuildOptions): Rings {
  const groups = new Map<string, { readonly build: PairBuild; readonly above: VisibleLayer[] }>();
  for (const upper of around.above) {
    const asked = options.pair?.(layer.key, upper.key) ?? options;
    const build: PairBuild = asked.school === 'trapped' && !(asked.trapMm > 0) ? { school: 'inlay', trapMm: 0 } : asked;
    const key = build.school === 'trapped' ? `trapped ${build.trapMm}` : build.school;
    const group = groups.get(key) ?? { build, above: [] };
    groups.set(key, group);
    group.above.push(upper);
  }
  const thinnestMm = options.thinnestMm?.(layer.key) ?? 0;
  if (groups.size === 1) {
    return cutAlike(layer, around, [...groups.values()][0]!.build, thinnestMm);
  }
  // Each group of layers above has its own share of what runs under; where shares of different widths meet, neither goes further than its own.
  const shares = [...groups.values()].flatMap(({ build, above }) => underOf(layer, { ...around, above }, build));
  if (shares.length === 0) return layer.visible;
  const cover = around.above.flatMap((upper) => upper.visible);
  return fillHidden(unite([...layer.visible, ...shares]), cover, thinnestMm);
}

/** What is cut of a layer that meets all above it in one way. */
function cutAlike(layer: VisibleLayer, around: Surroundings, build: PairBuild, thinnestMm: number): Rings {
  const { school, trapMm } = build;
  if (school === 'inlay') return layer.visible;
  const whole = layer.paints.map((i) => around.stack[i]!);
  // Painted in the layers' own order, all that is hidden of this layer lies under layers above: V ∪ (F ∩ U) is F itself.
  if (school === 'overlay' && around.asPainted)
    return layer.given ? unite([...wholeArea(whole), ...layer.given]) : wholeArea(whole);
  if (school === 'trapped' && around.asPainted) {
    // Likewise V ∪ U is F with the whole paints above. They overlap broadly, so no hairline opens between V and U, and one operation does.
    const reach = widenBox(boundsOf(layer.visible)!, trapMm);
    const mine = around.rank.get(layer.key)!;
    const upper = around.stack.filter((paint) => around.rank.get(paint.layer)! > mine && boxesTouch(paint.box, reach));
    const cover = [...ringsNear(upper, reach), ...around.above.flatMap(({ given }) => given ?? [])];
    if (cover.length === 0) return layer.visible;
    const room = [...whole.flatMap((paint) => paint.rings), ...cover, ...(layer.given ?? [])];
    return fillHidden(intersect(grow(layer.visible, trapMm), room), cover, thinnestMm);
  }
  const under = underOf(layer, around, build);
  const cut = under.length === 0 ? layer.visible : unite([...layer.visible, ...under]);
  return school === 'trapped'
    ? fillHidden(
        cut,
        around.above.flatMap((upper) => upper.visible),
        thinnestMm,
      )
    : cut;
}

/** What of a layer runs under those above it: nothing of an inlay, as far as it is painted of an overlay, a trap's width of a trapped one. */
function underOf(
  layer: VisibleLayer,
  around: Pick<Surroundings, 'stack' | 'above'>,
  { school, trapMm }: PairBuild,
): Rings {
  if (school === 'inlay') return [];
  const whole = layer.paints.map((i) => around.stack[i]!);
  // Rings outside what the layer can reach change nothing in it; an overlay reaches as far as its paints.
  const reach =
    school === 'overlay'
      ? whole.map((paint) => paint.box).reduce<Box | null>(joinBoxes, null)!
      : widenBox(boundsOf(layer.visible)!, trapMm);
  const cover = around.above.flatMap((a) => a.visible).filter((ring) => boxesTouch(boundsOf([ring])!, reach));
  if (cover.length === 0) return [];
  return intersect(school === 'overlay' ? wholeArea(whole) : grow(layer.visible, trapMm), cover);
}

/** All that is painted in a layer, clean. */
function wholeArea(paints: readonly StackedPaint[]): Rings {
  return joinParts(paints.map((paint) => (paint.merged > 1 ? unite(paint.rings) : paint.rings)));
}

/** What would be cut of one layer if it ran completely under all above it, whatever is asked of others. */
export function cutWhole({ stack, layers }: Separation, order: readonly string[], key: string): Rings {
  const ordered = inOrder(layers, order);
  const i = ordered.findIndex((one) => one.key === key);
  const [layer, above] = [ordered[i]!, ordered.slice(i + 1)];
  const under = underOf(layer, { stack, above }, { school: 'overlay', trapMm: 0 });
  const cover = above.flatMap(({ visible }) => visible);
  return withoutCrumbs(fillHidden(unite([...layer.visible, ...under]), cover, Infinity)).rings;
}

/** Fills the holes narrower than a width that lie wholly under the layers above: there nobody can see the difference. */
function fillHidden(cut: Rings, above: Rings, thinnestMm: number): Rings {
  const narrow = cut.filter((ring) => signedArea(ring) < 0 && isNarrow([ring], thinnestMm));
  if (narrow.length === 0) return cut;
  // What shows of any of them, found in one go; then each is asked whether that is in it.
  const bare = subtract(unite(narrow), above).filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
  const shows = (hole: Ring) => {
    const near = bare.filter((ring) => boxesTouch(boundsOf([ring])!, boundsOf([hole])!));
    return near.length > 0 && areaOf(intersect(unite([hole]), near)) > tolerances.CRUMB_MM2;
  };
  const filled = new Set(narrow.filter((hole) => !shows(hole)));
  return filled.size === 0 ? cut : cut.filter((ring) => !filled.has(ring));
}

function inOrder(layers: readonly VisibleLayer[], order: readonly string[]): VisibleLayer[] {
  const rank = new Map(order.map((key, i) => [key, i]));
  const place = (key: string) => rank.get(key) ?? order.length;
  return layers
    .map((layer, i) => ({ layer, i }))
    .sort((a, b) => place(a.layer.key) - place(b.layer.key) || a.i - b.i)
    .map(({ layer }) => layer);
}
