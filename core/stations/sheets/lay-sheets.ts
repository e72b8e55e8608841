import { liesIn } from '../../engines/cutting/index.js';
import { keyOf, translateRings } from '../../geometry/index.js';
import { fieldOf, type Film, type LeftoverRule, type Mat, type Rectangle } from '../../shop/index.js';
import { usedAtCorner } from './choose-pieces.js';
import { withFoil } from './foil-on-sheets.js';
import { inOneBox } from './group.js';
import { layFilm, rackOf, type Laid, type LayItem, type ShopToLay } from './lay-film.js';
import type { LayWish } from './lay-wish.js';
import { mergedBorders } from './merged-borders.js';
import { inOrder } from './order.js';
import { isOf, pinsThatHold } from './pins.js';
import { endMarks, longestOf } from './sections.js';
import { neighboursOf } from './shared-borders.js';
import type { LaidSheets, Pin, SheetGroup, SheetPlan, Shortage, Unplaced } from './sheet-plan.js';
import { shortageOf } from './shortage.js';
import { takenOf } from './taken-of.js';
import { zonesOf, type Zone } from './zones.js';

/** Between pieces on a mat, and round them, mm. */
const PIECE_GAP_MM = 3;

/** The pieces of a film as they would be cut, one by one, and how much of it was taken before the search, mm². */
export interface BetterSoFar {
  readonly sheets: readonly SheetPlan[];
  readonly beforeMm2: number;
}

/** What a caller lends what is laid out. */
export interface LaySheetsHooks {
  readonly breathe?: () => Promise<void>;
  /** For the layout of one film, the so-manieth of so many: whether a further step of the search may be made, after so many; without it, the steps that are decided are made. The first arrangements are always made. */
  readonly budget?: (film: Film, part: number, of: number) => (steps: number) => boolean;
  /** Told of what the search finds for a film on the way: made when it is asked for. */
  readonly onBetter?: (film: Film, found: () => BetterSoFar) => void;
}

/** The shop as it is looked at with a wish: without the pieces that are not to be used. */
export function shopFor<S extends ShopToLay>(shop: S, { avoid }: Pick<LayWish, 'avoid'>): S {
  return avoid.length > 0 ? { ...shop, pieces: shop.pieces.filter(({ id }) => !avoid.includes(id)) } : shop;
}

/**
 * Layers of one job or several on the pieces of the shop on which they spend the least film, everything of one film together; then in as few passes as can be, films of the same settings side by
 * side on a mat, and a roll that is fed far in sections. `all` holds also those of which nothing is left to be cut; `due` the days of the jobs, null for none; of `shop` all pieces may be used.
 */
export async function laySheets(
  all: readonly LayItem[],
  shop: ShopToLay,
  wish: LayWish,
  due: readonly (string | null)[],
  { breathe, budget, onBetter }: LaySheetsHooks = {},
): Promise<LaidSheets> {
  const items = all.filter(({ quantity }) => quantity > 0);
  const sharing = new Set(all.filter(({ sharesBorder }) => sharesBorder).map(({ job, layer }) => `${job}/${layer}`));
  const merging = new Set<string>();
  const bordered = (one: Laid): Laid => {
    const inCounters = new Set(liesIn(one.groups.map(({ contours }) => contours)).flat());
    const marked = one.groups.map((group, i) => ({ ...group, liesInCounter: inCounters.has(i) }));
    if (merging.has(one.film.id)) return { ...one, groups: mergedBorders(marked) };
    return {
      ...one,
      groups: one.groups.every(({ job, layer }) => sharing.has(`${job}/${layer}`)) ? inOneBox(marked) : marked,
    };
  };
  const asSheet = (one: Laid) => alone(one, wish.leftovers);
  const unplaced: Unplaced[] = [];
  const laid: Laid[] = [];
  const steps: LaidSheets['steps'][number][] = [];
  const short: Shortage[] = [];
  const unshared: Film[] = [];
  const loose: Pin[] = wish.pins.filter((pin) => !all.some((item) => isOf(pin, item)));
  // By their names: jobs that were planned at different times have films of their own, which are alike.
  const films = [...new Map(items.map(({ film }) => [film.id, film])).values()];
  for (const [part, film] of films.entries()) {
    await breathe?.();
    const own = items.filter((item) => item.film.id === film.id);
    const rack = rackOf(film, shop, { longFeedMm: wish.longFeedMm, longestMm: longestOf(own) });
    const mayTryMore = budget ? budget(film, part, films.length) : decidedSteps(wish, film);
    const between = neighboursOf(own, wish);
    if (wish.sharesBorders && between.borders === 'apart') unshared.push(film);
    if (between.borders === 'merge') merging.add(film.id);
    const pins = pinsThatHold(wish.pins, { items: own, rack, ...between });
    loose.push(...pins.loose);
    const chosen = await layFilm(
      own,
      rack,
      { ...wish, ...between, pinned: pins.held },
      {
        ...(breathe && { breathe }),
        ...(mayTryMore && { mayTryMore }),
        ...(onBetter && {
          onBetter: (found, before) =>
            onBetter(film, () => ({
              sheets: found().map(bordered).map(asSheet),
              beforeMm2: before().reduce((sum, one) => sum + asSheet(one).usedMm2, 0),
            })),
        }),
      },
    );
    laid.push(...(chosen?.laid ?? []));
    if (chosen && mayTryMore) steps.push({ film, steps: chosen.steps, helped: chosen.helped });
    const missing = own.flatMap((item) => {
      const left = chosen
        ? chosen.result.unplaced.find((one) => one.item === item.id)
        : { quantity: item.quantity, reason: 'there is no film of it that the cutter can take' };
      return left ? [{ item: { ...item, quantity: left.quantity }, reason: left.reason }] : [];
    });
    unplaced.push(
      ...missing.map(({ item, reason }) => ({
        job: item.job,
        layer: item.layer,
        film,
        quantity: item.quantity,
        reason,
      })),
    );
    if (missing.length > 0)
      short.push(
        await shortageOf(
          {
            film,
            all: own,
            missing: missing.map(({ item }) => item),
            rack,
            shop,
            wish: { ...wish, ...between },
            pinned: pins.held,
          },
          breathe ? { breathe } : {},
        ),
      );
  }
  const passes = laid.map(bordered);
  const foils = new Map(all.map(({ job, layer, foil }) => [`${job}/${layer}`, foil]));
  const { sheets, missing: missingFoil } = await withFoil(inOrder(onMats(passes, shop, wish), wish, due), {
    pieces: shop.pieces,
    wish,
    foilOf: ({ job, layer }) => foils.get(`${job}/${layer}`) ?? null,
    ...(breathe && { breathe }),
  });
  return {
    sheets,
    missingFoil,
    unplaced,
    short,
    loose,
    unshared,
    steps,
  };
}

function decidedSteps({ steps }: LayWish, film: Film): ((made: number) => boolean) | undefined {
  const most = steps.find(({ filmId }) => filmId === film.id)?.steps ?? 0;
  return most > 0 ? (made) => made < most : undefined;
}

/** One piece in one pass. */
function alone({ on, film, groups, used, section }: Laid, rule: LeftoverRule): SheetPlan {
  const { piece, mat, edges } = on;
  return {
    key: on.key,
    id: keyOf(
      film.id,
      on.key,
      groups.map(({ fingerprint, copy, job, matrix }) => [fingerprint, copy, job, matrix]),
    ),
    films: [film],
    pieces: [piece],
    mat,
    zones: null,
    section,
    endMarks: section && section.number < section.of ? endMarks(on, used.lengthMm) : [],
    edges,
    forceG: film.forceG,
    speedMmS: film.speedMmS,
    groups,
    foils: [],
    ...takenOf({ on, film, used }, rule),
    usedLengthMm: used.lengthMm,
  };
}

/** What fits on a mat side by side goes in together, where films may share one: each is cut to the size of what it carries. So is what is cut off a piece that no mat holds. */
function onMats(
  laid: readonly Laid[],
  { mats, cutter }: ShopToLay,
  { zones: mayShare, leftovers: rule }: Pick<LayWish, 'zones' | 'leftovers'>,
): SheetPlan[] {
  const usable = mats
    .filter(({ widthMm }) => widthMm <= cutter.widthMm)
    .sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm);
  const mat = usable[0];
  if (!mat) return laid.map((one) => alone(one, rule));
  const room = fieldOf(mat);
  const fits = (one: Laid) => {
    if (one.section || !mayShare) return false;
    const used = wholeMm(one);
    return used.widthMm <= room.widthMm + 1e-6 && used.lengthMm <= room.lengthMm + 1e-6;
  };
  // A hand cuts a piece to whole millimetres.
  const small = laid.filter(fits).map((one) => ({ ...one, used: usedAtCorner(wholeMm(one)) }));
  const passes =
    zonesOf(
      small.map(({ used, film }, i) => ({
        id: String(i),
        ...used,
        settings: keyOf(film.forceG, film.speedMmS),
        mayTurn: false,
      })),
      { room },
      PIECE_GAP_MM,
    ) ?? [];
  return [
    ...laid.filter((one) => !fits(one)).map((one) => byItself(one, rule)),
    ...passes.map((pass) =>
      pass.length === 1
        ? byItself(small[Number(pass[0]!.id)]!, rule)
        : onMat(pass, small, { mat: smallestFor(pass, usable), rule }),
    ),
  ];
}

/** The smallest of some mats, the largest first, on which a pass lies as it does on the first. */
function smallestFor(pass: readonly Zone[], mats: readonly Mat[]): Mat {
  const across = Math.max(...pass.map(({ xMm, widthMm }) => xMm + widthMm));
  const along = Math.max(...pass.map(({ yMm, lengthMm }) => yMm + lengthMm));
  return (
    mats.findLast((mat) => across <= fieldOf(mat).widthMm + 1e-6 && along <= fieldOf(mat).lengthMm + 1e-6) ?? mats[0]!
  );
}

/** One piece that nothing shares the mat with goes in as it is, where a mat holds it. */
function byItself(laid: Laid, rule: LeftoverRule): SheetPlan {
  const { mat, cutOff } = laid.on;
  if (!mat || !cutOff) return alone(laid, rule);
  const used = wholeMm(laid);
  return onMat([{ id: '0', xMm: 0, yMm: 0, ...used, isTurned: false }], [{ ...laid, used: usedAtCorner(used) }], {
    mat,
    rule,
  });
}

function wholeMm({ on: { piece }, used: { widthMm, lengthMm } }: Laid): Rectangle {
  return {
    widthMm: Math.min(piece.widthMm, Math.ceil(widthMm - 1e-6)),
    lengthMm: Math.min(piece.lengthMm, Math.ceil(lengthMm - 1e-6)),
  };
}

function onMat(
  pass: readonly Zone[],
  small: readonly Laid[],
  { mat, rule }: { readonly mat: Mat; readonly rule: LeftoverRule },
): SheetPlan {
  const parts = pass.map((zone) => ({ zone, laid: small[Number(zone.id)]! }));
  const only = parts[0]!;
  const taken = parts.map(({ laid: one }) => takenOf(one, rule));
  const groups = parts.flatMap(({ zone, laid }) =>
    laid.groups.map((group): SheetGroup => moved(group, zone.xMm + mat.edgeMm, zone.yMm + mat.edgeMm)),
  );
  const { film } = only.laid;
  return {
    key: parts.map(({ laid }) => laid.on.key).join(' '),
    id: keyOf(
      mat.id,
      groups.map(({ fingerprint, copy, job, matrix }) => [fingerprint, copy, job, matrix]),
    ),
    films: parts.map(({ laid }) => laid.film),
    pieces: parts.map(({ laid }) => laid.on.piece),
    mat,
    zones: parts.map(({ zone: { xMm, yMm, widthMm, lengthMm }, laid }) => ({
      xMm: xMm + mat.edgeMm,
      yMm: yMm + mat.edgeMm,
      widthMm,
      lengthMm,
      film: laid.film,
      piece: laid.on.piece,
    })),
    section: null,
    endMarks: [],
    edges: only.laid.on.edges,
    forceG: film.forceG,
    speedMmS: film.speedMmS,
    groups,
    foils: [],
    usedMm2: taken.reduce((sum, { usedMm2 }) => sum + usedMm2, 0),
    leftovers: taken.flatMap(({ leftovers }) => leftovers),
    value: taken.reduce((sum, { value }) => sum + value, 0),
    usedLengthMm: Math.max(...parts.map(({ zone }) => zone.yMm + zone.lengthMm + mat.edgeMm)),
  };
}

function moved<G extends SheetGroup>(group: G, dx: number, dy: number): G {
  const [a, b, c, d, e, f] = group.matrix;
  return {
    ...group,
    matrix: [a, b, c, d, e + dx, f + dy],
    contours: translateRings(group.contours, dx, dy),
    borders: translateRings(group.borders, dx, dy),
  };
}
