import { liesIn } from '../engines/cutting/index.js';
import type { Film } from '../shop/index.js';
import { withFoil } from './foil-on-sheets.js';
import { inOneBox } from './group.js';
import { itemsOf } from './items.js';
import type { JobToLay } from './job-to-lay.js';
import { layFilm, rackOf, type Laid, type LayItem, type ShopToLay } from './lay-film.js';
import type { LayWish } from './lay-wish.js';
import { mergedBorders } from './merged-borders.js';
import { inOrder } from './order.js';
import { alone, onMats } from './passes.js';
import { isOf, pinsThatHold } from './pins.js';
import { longestOf } from './sections.js';
import { neighboursOf } from './shared-borders.js';
import type { LaidSheets, SheetPlan } from './sheet-plan.js';
import { shortageOf } from './shortage.js';

/** The pieces of a film as they would be cut, one by one, and how much of it was taken before the search, mm². */
export interface BetterSoFar {
  readonly sheets: readonly SheetPlan[];
  readonly beforeMm2: number;
}

/** What a caller lends what is laid out. */
export interface LayJobsHooks {
  readonly breathe?: () => Promise<void>;
  /** Whether the search in the layout of a film, film `part` of `of`, may make another step after so many. Without it the search makes the steps that the wish says. The first arrangements are always made. */
  readonly budget?: (film: Film, part: number, of: number) => (steps: number) => boolean;
  /** Called with what the search finds for a film on the way, which is made when it is asked for. */
  readonly onBetter?: (film: Film, found: () => BetterSoFar) => void;
}

/** The shop as it is looked at with a wish: without the pieces that are not to be used. */
function shopFor<S extends ShopToLay>(shop: S, { avoid }: Pick<LayWish, 'avoid'>): S {
  return avoid.length > 0 ? { ...shop, pieces: shop.pieces.filter(({ id }) => !avoid.includes(id)) } : shop;
}

/**
 * Lays the layers of one job or several on the pieces of the shop on which they spend the least film, everything of one film together. It takes as few passes as can be: films of the same settings
 * lie side by side on a mat, and a roll that is fed far is cut in sections.
 */
export async function layJobs(
  jobs: readonly JobToLay[],
  stock: ShopToLay,
  wish: LayWish,
  hooks: LayJobsHooks = {},
): Promise<LaidSheets> {
  const shop = shopFor(stock, wish);
  const items = jobs.flatMap((job, j) => itemsOf(job, j, shop, wish));
  const left = items.filter(({ quantity }) => quantity > 0);
  // By their ids: jobs that were planned at different times have films of their own, which are alike.
  const films = [...new Map(left.map(({ film }) => [film.id, film])).values()];
  const borders = new BordersOnSheets(items);
  const laid: LaidFilm[] = [];
  for (const [part, film] of films.entries()) {
    await hooks.breathe?.();
    const own = left.filter((item) => item.film.id === film.id);
    laid.push(await layOneFilm({ film, own, shop, wish, borders, part, of: films.length }, hooks));
  }
  const passes = laid.flatMap((one) => one.laid).map((one) => borders.on(one));
  const foils = new Map(items.map(({ job, layer, foil }) => [`${job}/${layer}`, foil]));
  const ordered = inOrder(
    onMats(passes, shop, wish),
    wish,
    jobs.map(({ due }) => due),
  );
  const { sheets, missing: missingFoil } = await withFoil(ordered, {
    pieces: shop.pieces,
    wish,
    foilOf: ({ job, layer }) => foils.get(`${job}/${layer}`) ?? null,
    ...(hooks.breathe && { breathe: hooks.breathe }),
  });
  return {
    items,
    sheets,
    missingFoil,
    unplaced: laid.flatMap(({ unplaced }) => unplaced),
    short: laid.flatMap(({ short }) => short),
    loose: [
      ...wish.pins.filter((pin) => !items.some((item) => isOf(pin, item))),
      ...laid.flatMap(({ loose }) => loose),
    ],
    unshared: laid.flatMap(({ unshared }) => unshared),
    steps: laid.flatMap(({ steps }) => steps),
  };
}

/** The borders that copies get once it is known what lies beside them: merged, one round all, or each its own. */
class BordersOnSheets {
  readonly #inOneBox: ReadonlySet<string>;
  readonly #merging = new Set<string>();

  constructor(items: readonly LayItem[]) {
    this.#inOneBox = new Set(
      items.filter(({ sharesBorder }) => sharesBorder).map(({ job, layer }) => `${job}/${layer}`),
    );
  }

  /** From now on borders of a film run into one another. */
  merge(film: Film): void {
    this.#merging.add(film.id);
  }

  on(one: Laid): Laid {
    const inCounters = new Set(liesIn(one.groups.map(({ contours }) => contours)).flat());
    const marked = one.groups.map((group, i) => ({ ...group, liesInCounter: inCounters.has(i) }));
    if (this.#merging.has(one.film.id)) return { ...one, groups: mergedBorders(marked) };
    const isInOneBox = one.groups.every(({ job, layer }) => this.#inOneBox.has(`${job}/${layer}`));
    return { ...one, groups: isInOneBox ? inOneBox(marked) : marked };
  }
}

interface FilmToLay {
  readonly film: Film;
  /** What of it is left to be cut. */
  readonly own: readonly LayItem[];
  readonly shop: ShopToLay;
  readonly wish: LayWish;
  readonly borders: BordersOnSheets;
  readonly part: number;
  readonly of: number;
}

/** What laying out one film comes to. */
interface LaidFilm extends Pick<LaidSheets, 'unplaced' | 'short' | 'loose' | 'unshared' | 'steps'> {
  readonly laid: readonly Laid[];
}

async function layOneFilm(
  { film, own, shop, wish, borders, part, of }: FilmToLay,
  { breathe, budget, onBetter }: LayJobsHooks,
): Promise<LaidFilm> {
  const rack = rackOf(film, shop, { longFeedMm: wish.longFeedMm, longestMm: longestOf(own) });
  const mayTryMore = budget ? budget(film, part, of) : decidedSteps(wish, film);
  const between = neighboursOf(own, wish);
  if (between.borders === 'merge') borders.merge(film);
  const pins = pinsThatHold(wish.pins, { items: own, rack, ...between });
  const asSheet = (one: Laid) => alone(one, wish.leftovers);
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
            sheets: found().map((one) => asSheet(borders.on(one))),
            beforeMm2: before().reduce((sum, one) => sum + asSheet(one).usedMm2, 0),
          })),
      }),
    },
  );
  const missing = own.flatMap((item) => {
    const left = chosen
      ? chosen.result.unplaced.find((one) => one.item === item.id)
      : { quantity: item.quantity, reason: 'there is no film of it that the cutter can take' };
    return left ? [{ item: { ...item, quantity: left.quantity }, reason: left.reason }] : [];
  });
  const lacking = {
    film,
    all: own,
    missing: missing.map(({ item }) => item),
    rack,
    shop,
    wish: { ...wish, ...between },
    pinned: pins.held,
  };
  return {
    laid: chosen?.laid ?? [],
    unplaced: missing.map(({ item: { job, layer, quantity }, reason }) => ({ job, layer, film, quantity, reason })),
    short: missing.length > 0 ? [await shortageOf(lacking, breathe ? { breathe } : {})] : [],
    loose: pins.loose,
    unshared: wish.sharesBorders && between.borders === 'apart' ? [film] : [],
    steps: chosen && mayTryMore ? [{ film, steps: chosen.steps, helped: chosen.helped }] : [],
  };
}

function decidedSteps({ steps }: LayWish, film: Film): ((made: number) => boolean) | undefined {
  const most = steps.find(({ filmId }) => filmId === film.id)?.steps ?? 0;
  return most > 0 ? (made) => made < most : undefined;
}
