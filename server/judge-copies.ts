import {
  copyWhereItBegan,
  placesOnPiece,
  standings,
  whySpoiledStays,
  whyThrownAwayStays,
  type CopyVerdict,
  type FrozenSheet,
  type KeptWord,
} from '../core/stations/cut/index.js';
import { Problem } from './problem.js';
import type { SheetStore } from './stores/sheet-store.js';

/** What a word that cannot be taken back would do. */
const WHY: Readonly<Record<KeptWord, string>> = {
  'copies-cut-again':
    'Copies of it were cut again since, or are being cut. If this counted as well, they would be cut twice. Nothing was changed.',
  'sheet-cut-again': 'The whole sheet was cut again since, so this rest is not needed. Nothing was changed.',
  'sheet-settled':
    'It is settled by now what becomes of the sheet that this is the rest of, so this rest is not needed. Nothing was changed.',
};

/** Every sheet of every job that a sheet carries, with all rests: what is said of it must hold for all of them. */
export async function sheetsAround(sheets: SheetStore, sheet: FrozenSheet): Promise<readonly FrozenSheet[]> {
  return sheets.ofJobs([...new Set(sheet.groups.map(({ jobId }) => jobId))]);
}

/** A sheet that waits for the maker's word. @throws Problem 404; 409 when it does not */
export async function undecidedSheet(sheets: SheetStore, id: string): Promise<FrozenSheet> {
  const sheet = await sheets.get(id);
  if (standings(await sheetsAround(sheets, sheet)).get(id) !== 'undecided')
    throw new Problem(409, 'sheet-decided', 'It is already decided what to do with this sheet. Look at it again.');
  return sheet;
}

/** The same, to be cut again as it was. @throws Problem 409, also when a copy of it is planned again already */
export async function sheetToCutAgain(sheets: SheetStore, id: string): Promise<FrozenSheet> {
  const sheet = await undecidedSheet(sheets, id);
  if (sheet.groups.some(({ verdict }) => verdict === 'spoiled'))
    throw new Problem(
      409,
      'copies-spoiled',
      'Copies of this sheet are spoiled and are laid out again already, so it cannot be cut again as a whole. Cut the rest, or throw it away.',
    );
  return sheet;
}

/** Decides what becomes of a sheet that broke off; null takes back what was decided. @throws Problem 409 when that would cut something twice, or parts are missing */
export async function decideSheet(
  sheets: SheetStore,
  id: string,
  { decided, who }: { readonly decided: FrozenSheet['decided']; readonly who: string },
): Promise<void> {
  if (decided === null) {
    const sheet = await sheets.get(id);
    if (sheet.decided === null) throw new Problem(409, 'sheet-undecided', 'Nothing was decided about this sheet.');
    const why = sheet.decided === 'thrown-away' ? whyThrownAwayStays(await sheetsAround(sheets, sheet), sheet) : null;
    if (why) throw new Problem(409, why, WHY[why]);
  } else {
    const sheet = await undecidedSheet(sheets, id);
    const isMissing = sheet.groups.some(
      ({ verdict }, position) => verdict !== 'spoiled' && !placesOnPiece(sheet, position)?.isWhole,
    );
    if (decided === 'kept' && isMissing)
      throw new Problem(
        409,
        'parts-missing',
        'Not every part of this sheet is whole, so it cannot be kept as it is. Cut the rest instead.',
      );
  }
  await sheets.decide(id, decided, who);
}

/** Says of copies of a sheet how they turned out. @throws Problem 404; 409 when they are not cut, or were cut again since they were spoiled */
export async function judgeCopies(
  sheets: SheetStore,
  id: string,
  {
    positions,
    verdict,
    who,
  }: { readonly positions: readonly number[]; readonly verdict: CopyVerdict | null; readonly who: string },
): Promise<void> {
  const sheet = await sheets.get(id);
  if (positions.some((position) => !sheet.groups[position]))
    throw new Problem(404, 'copy-unknown', 'This sheet has no such copy. Look at it again.');
  const around = await sheetsAround(sheets, sheet);
  const how = standings(around);
  const began = positions.map((position) => copyWhereItBegan(around, sheet, position));
  if (
    verdict !== null &&
    [id, ...began.map((one) => one.sheet.id)].some((of) => ['untouched', 'thrown-away'].includes(how.get(of)!))
  )
    throw new Problem(
      409,
      'copy-not-cut',
      'These copies are not cut, or their sheet was thrown away. Look at it again.',
    );
  if (verdict !== 'spoiled')
    for (const of of new Set(began.map((one) => one.sheet))) {
      const own = began.filter((one) => one.sheet === of).map((one) => one.position);
      const why = whySpoiledStays(around, of, own);
      if (why) throw new Problem(409, why, WHY[why]);
    }
  await sheets.judge(id, positions, verdict, who);
}
