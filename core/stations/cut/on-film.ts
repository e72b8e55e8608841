import { standings, type SheetStanding } from './standing.js';
import { farthestRun, type Run } from './run.js';
import type { FrozenGroup, FrozenSheet, WeedPlace } from './frozen-sheet.js';

/** A copy as it lies on one piece of film: all of it, or those of its parts that are whole there. */
export interface CopyOnFilm {
  readonly sheet: FrozenSheet;
  readonly position: number;
  readonly group: FrozenGroup;
  /** All of its parts that this sheet was to cut are whole here: it is counted here, and nowhere else. */
  readonly isWhole: boolean;
  /** What is ticked off of it here, each place once, on the piece on which its part is whole. */
  readonly places: readonly WeedPlace[];
  readonly ticked: readonly WeedPlace[];
}

const ON_FILM: readonly SheetStanding[] = ['in-cutter', 'good', 'undecided', 'rest-undecided'];

/**
 * What of a job is whole on film, in the order of the sheets. `sheets` must hold all rests. A part that a broken-off cut did not reach exists nowhere until a
 * rest has cut it, and then there; copies that are spoiled, thrown away or still to be cut do not exist.
 */
export function copiesOnFilm(sheets: readonly FrozenSheet[], jobId: string): CopyOnFilm[] {
  const how = standings(sheets);
  return sheets
    .filter(({ id, restOf }) => ON_FILM.includes(how.get(id)!) && how.get(restOf ?? id) !== 'thrown-away')
    .flatMap((sheet) =>
      sheet.groups.flatMap((group, position) => {
        const onPiece = group.jobId === jobId && group.verdict !== 'spoiled' ? placesOnPiece(sheet, position) : null;
        if (!onPiece) return [];
        const keys = new Set(onPiece.places.map(keyOfPlace));
        const ticked = group.ticked.filter((place) => keys.has(keyOfPlace(place)));
        return [{ sheet, position, group, ...onPiece, ticked }];
      }),
    );
}

/** Where a copy of a sheet can be weeded on it, and whether all its parts are whole there; null when none is. */
export function placesOnPiece(
  { decided, groups, runs }: Pick<FrozenSheet, 'decided' | 'groups' | 'runs'>,
  position: number,
): Pick<CopyOnFilm, 'isWhole' | 'places'> | null {
  const run = farthestRun(runs);
  const group = groups[position];
  if (!run || !group) return null;
  if (decided === 'kept') return { isWhole: true, places: group.weedPlaces };
  const { parts, open } = openParts(run, position);
  if (open.length === 0 && parts !== 0) return { isWhole: true, places: group.weedPlaces };
  if (open.length === parts) return null;
  return { isWhole: false, places: group.weedPlaces.filter(({ part }) => part !== undefined && !open.includes(part)) };
}

/** Which parts of a copy are not whole after a run. Of runs from before that was kept, all are whole or none is known to be. */
export function openParts(
  { state, whole }: Pick<Run, 'state' | 'whole'>,
  position: number,
): { readonly parts: number; readonly open: readonly number[] } {
  if (state === 'finished' || (whole && whole.parts === whole.ofParts)) return { parts: 1, open: [] };
  return whole?.byCopy?.[position] ?? { parts: 0, open: [] };
}

/** What of a copy is not ticked off yet: of one with nothing to look for, that all of it is out. */
export function openPlaces({ places, ticked }: Pick<CopyOnFilm, 'places' | 'ticked'>): WeedPlace[] {
  const done = new Set(ticked.map(keyOfPlace));
  return places.filter((place) => !done.has(keyOfPlace(place)));
}

/** What tells a place of a copy from its others. */
export function keyOfPlace({ kind, xMm, yMm }: WeedPlace): string {
  return `${kind} ${xMm} ${yMm}`;
}
