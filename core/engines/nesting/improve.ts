import { lay, laidAnew, bestOn, scoreOf, type Arrangement, type Laid, type LaidSheet } from './arrange.js';
import { asOneWhole, isFull, type WholeSearch } from './as-one-whole.js';
import { compress, type SearchHooks } from './compress.js';
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
  const isWorth = ({ laid, open }: LaidSheet) => laid.length <= MOST_ON_A_SHEET && laid.some(({ isPinned }) => !isPinned) && open.usedLength > 0 && !isFull({ laid, open });
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

/** The same on less of the sheet; null when none was found. */
async function drawnTogether({ open, laid }: LaidSheet, { spacingMm, noFits, random }: Search, { mayGoOn, onBetter }: SearchHooks<() => LaidSheet>): Promise<LaidSheet | null> {
  const free = laid.filter(({ isPinned }) => !isPinned);
  const fixed = laid.filter(({ isPinned }) => isPinned);
  const { widthMm, outline } = open.sheet;
  const areBoxes = !outline && fixed.length === 0 && free.every(({ candidate: { shape, orientations } }) => isBox(shape) && orientations.every(({ rotation }) => rotation % 90 === 0));
  const anew = (places: readonly Pick<Laid, 'orientation' | 'x' | 'y'>[]) => laidAnew(open, [...fixed, ...free.map((one, i) => ({ ...one, ...places[i]! }))], noFits, spacingMm);
  const isShorter = (lengthMm: number) => lengthMm <= open.usedLength - 1e-6;
  if (areBoxes) {
    const areaMm2 = free.reduce((sum, { orientation: { width, height } }) => sum + (width + spacingMm) * (height + spacingMm), 0);
    if (areaMm2 >= (widthMm + spacingMm) * (open.usedLength + spacingMm) * 0.999999) return null;
    // Each is larger by the spacing, and so is the strip.
    const ways = free.map(({ candidate: { orientations } }) => orientations.filter((one, i) => orientations.findIndex((other) => other.rotation % 180 === one.rotation % 180) === i));
    const placesOf = ({ places }: StripLayout) => places.map(({ way, xMm, yMm }, i) => ({ orientation: ways[i]![way]!, x: xMm, y: yMm }));
    const found = await layRectangles(ways.map((own) => ({ ways: own.map(({ width, height }) => ({ widthMm: width + spacingMm, lengthMm: height + spacingMm })) })), widthMm + spacingMm, random, { mayGoOn, onBetter: (better) => isShorter(better.lengthMm - spacingMm) && onBetter(() => anew(placesOf(better))) });
    return found && isShorter(found.lengthMm - spacingMm) ? anew(placesOf(found)) : null;
  }
  const pinnedTo = Math.max(0, ...fixed.map(({ orientation, y }) => y + orientation.height));
  const found = await compress(free.map(({ candidate }) => candidate.orientations), { widthMm, spacingMm, fixed, ...(outline && { outline }) }, { layout: free, lengthMm: open.usedLength }, noFits, random, { mayGoOn, onBetter: (better) => isShorter(Math.max(pinnedTo, better.lengthMm)) && onBetter(() => anew(better.layout)) });
  return isShorter(Math.max(pinnedTo, found.lengthMm)) ? anew(found.layout) : null;
}

/** The same with what lies on the sheets behind the k-th and finds room on that one laid there. */
function takenOver(sheets: readonly LaidSheet[], k: number, { noFits, spacingMm }: Search): LaidSheet[] {
  const home = laidAnew(sheets[k]!.open, sheets[k]!.laid, noFits, spacingMm);
  const rest = sheets.slice(k + 1).map((sheet) => {
    const stays: Laid[] = [];
    for (const one of sheet.laid) {
      const found = one.isPinned ? null : bestOn(home, one.candidate.orientations);
      if (found && home.laid.length < MOST_ON_A_SHEET) lay(home, { ...one, orientation: found.orientation, ...found.spot });
      else stays.push(one);
    }
    return stays.length < sheet.laid.length ? laidAnew(sheet.open, stays, noFits, spacingMm) : sheet;
  });
  return [...sheets.slice(0, k), home, ...rest];
}
