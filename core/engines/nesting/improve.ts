import { lay, laidAnew, bestOn, scoreOf, type Arrangement, type Laid, type LaidSheet } from './arrange.js';
import { asOneWhole, isFull, type WholeSearch } from './as-one-whole.js';
import { compress, type Compressed, type SearchHooks } from './compress.js';
import { layRectangles, type StripLayout } from './rectangles.js';
import { isBox } from './shape.js';

/** Sheets with more on them are left as they were first filled: the search would hardly begin. */
const MOST_ON_A_SHEET = 150;
/** So many steps for a sheet before it is the next one's turn. */
const STEPS_A_TURN = 400;

export interface Search extends WholeSearch {
  /** Told of every arrangement that is better than all before. */
  readonly onBetter: (found: () => Arrangement) => void;
}

/**
 * An arrangement on less film. Pieces of one whole are put together; otherwise, sheet by sheet, what lies on it is drawn together, and what then finds room on it is taken over from the last sheets; in turns, for as long as steps are left. A sheet is
 * only changed for the better.
 */
export async function improve(from: Arrangement, search: Search): Promise<Arrangement> {
  const isWorth = ({ laid, open }: LaidSheet) =>
    laid.length <= MOST_ON_A_SHEET &&
    laid.some(({ isPinned }) => !isPinned) &&
    open.usedLength > 0 &&
    !isFull({ laid, open });
  const whole = from.sheets[0] && isWorth(from.sheets[0]) ? await asOneWhole(from, search) : null;
  if (whole) search.onBetter(() => whole);
  let best = whole ?? from;
  const turn = best.sheets.filter(isWorth).length > 1 ? STEPS_A_TURN : Infinity;
  // Ends when there was nothing to do on any of the sheets.
  for (let k = 0, idle = 0; idle < best.sheets.length; k = (k + 1) % best.sheets.length, idle += 1) {
    const sheet = best.sheets[k]!;
    if (!isWorth(sheet)) continue;
    let steps = 0;
    let isOver = false;
    const from = best;
    const shorter = await drawnTogether(sheet, search, {
      mayGoOn: async () => {
        if (steps >= turn) return false;
        isOver = !(await search.step());
        if (!isOver) steps += 1;
        return !isOver;
      },
      onBetter: (found) =>
        search.onBetter(() => {
          const sheets = from.sheets.map((one, i) => (i === k ? found() : one));
          return { ...from, sheets, score: scoreOf(sheets, from.missing) };
        }),
    });
    if (shorter) {
      const alone = [...best.sheets.slice(0, k), shorter, ...best.sheets.slice(k + 1)];
      const more = takenOver(alone, k, search);
      const sheets = scoreOf(more, best.missing) < scoreOf(alone, best.missing) ? more : alone;
      best = { ...best, sheets, score: scoreOf(sheets, best.missing) };
    }
    if (isOver) return best;
    if (steps > 0) idle = -1;
  }
  return best;
}

/** What is nearly as long as all that is used of a sheet, as a share of it: no shorter sheet is looked for, as it would save next to nothing. */
const ALL_ALONG = 0.98;
/** Then what is so long stays where it is. */
const LONG = 0.9;

/** The same on less of the sheet; null when none was found. Where one group is as long as what is used, the others are drawn together beside it, so that more is left in one piece. */
async function drawnTogether(
  { open, laid }: LaidSheet,
  search: Search,
  hooks: SearchHooks<() => LaidSheet>,
): Promise<LaidSheet | null> {
  const pinned = laid.filter(({ isPinned }) => isPinned);
  const free = laid.filter(({ isPinned }) => !isPinned);
  const least = Math.max(
    ...free.map(({ candidate: { orientations } }) => Math.min(...orientations.map(({ height }) => height))),
  );
  if (least >= ALL_ALONG * open.usedLength)
    return compressed(
      { open, laid },
      [...pinned, ...free.filter(({ orientation: { height } }) => height >= LONG * open.usedLength)],
      search,
      hooks,
      0,
    );
  return pinned.length === 0 &&
    !open.sheet.outline &&
    free.every(
      ({ candidate: { shape, orientations } }) =>
        isBox(shape) && orientations.every(({ rotation }) => rotation % 90 === 0),
    )
    ? boxesTogether({ open, laid }, search, hooks)
    : compressed({ open, laid }, pinned, search, hooks, Math.max(0, ...pinned.map(topOf)));
}

const topOf = ({ orientation, y }: Laid) => y + orientation.height;

/** Boxes alone, by a search over their orders. */
async function boxesTogether(
  { open, laid }: LaidSheet,
  { spacingMm, noFits, random }: Search,
  { mayGoOn, onBetter }: SearchHooks<() => LaidSheet>,
): Promise<LaidSheet | null> {
  const { widthMm } = open.sheet;
  const areaMm2 = laid.reduce(
    (sum, { orientation: { width, height } }) => sum + (width + spacingMm) * (height + spacingMm),
    0,
  );
  if (areaMm2 >= (widthMm + spacingMm) * (open.usedLength + spacingMm) * 0.999999) return null;
  // Each is larger by the spacing, and so is the strip.
  const ways = laid.map(({ candidate: { orientations } }) =>
    orientations.filter(
      (one, i) => orientations.findIndex((other) => other.rotation % 180 === one.rotation % 180) === i,
    ),
  );
  const isShorter = ({ lengthMm }: StripLayout) => lengthMm - spacingMm <= open.usedLength - 1e-6;
  const anew = ({ places }: StripLayout) =>
    laidAnew(
      open,
      laid.map((one, i) => ({ ...one, orientation: ways[i]![places[i]!.way]!, x: places[i]!.xMm, y: places[i]!.yMm })),
      noFits,
      spacingMm,
    );
  const found = await layRectangles(
    ways.map((own) => ({
      ways: own.map(({ width, height }) => ({ widthMm: width + spacingMm, lengthMm: height + spacingMm })),
    })),
    widthMm + spacingMm,
    random,
    { mayGoOn, onBetter: (better) => isShorter(better) && onBetter(() => anew(better)) },
  );
  return found && isShorter(found) ? anew(found) : null;
}

/** All but what is fixed, drawn together round that. What reaches no farther than `sameMm` in all is as good. */
async function compressed(
  { open, laid }: LaidSheet,
  fixed: readonly Laid[],
  { spacingMm, noFits, random }: Search,
  { mayGoOn, onBetter }: SearchHooks<() => LaidSheet>,
  sameMm: number,
): Promise<LaidSheet | null> {
  const moved = laid.filter((one) => !fixed.includes(one));
  if (moved.length === 0) return null;
  const { widthMm, outline } = open.sheet;
  const reach = Math.max(sameMm, ...moved.map(topOf));
  const isShorter = ({ lengthMm }: Compressed) => Math.max(sameMm, lengthMm) <= reach - 1e-6;
  const anew = ({ layout }: Compressed) =>
    laidAnew(open, [...fixed, ...moved.map((one, i) => ({ ...one, ...layout[i]! }))], noFits, spacingMm);
  const found = await compress(
    moved.map(({ candidate }) => candidate.orientations),
    { widthMm, spacingMm, fixed, ...(outline && { outline }) },
    { layout: moved, lengthMm: Math.max(...moved.map(topOf)) },
    noFits,
    random,
    { mayGoOn, onBetter: (better) => isShorter(better) && onBetter(() => anew(better)) },
  );
  return isShorter(found) ? anew(found) : null;
}

/** The same with what lies on the sheets behind the k-th and finds room on that one laid there. */
function takenOver(sheets: readonly LaidSheet[], k: number, { noFits, spacingMm }: Search): LaidSheet[] {
  const home = laidAnew(sheets[k]!.open, sheets[k]!.laid, noFits, spacingMm);
  const rest = sheets.slice(k + 1).map((sheet) => {
    const stays: Laid[] = [];
    for (const one of sheet.laid) {
      const found = one.isPinned ? null : bestOn(home, one.candidate.orientations);
      if (found && home.laid.length < MOST_ON_A_SHEET)
        lay(home, { ...one, orientation: found.orientation, ...found.spot });
      else stays.push(one);
    }
    return stays.length < sheet.laid.length ? laidAnew(sheet.open, stays, noFits, spacingMm) : sheet;
  });
  return [...sheets.slice(0, k), home, ...rest];
}
