import type { LaidRectangle } from '../shop/index.js';
import type { JobToLay, PanelNumber } from './job-to-lay.js';
import { numberOf } from './panels-on.js';
import type { SheetGroup, SheetPlan } from './sheet-plan.js';

/** What lies on a piece of a sheet: which design or panel of which job (null for a job alone), and how often. */
export interface OnPiece {
  readonly jobId: string | null;
  readonly panel: PanelNumber;
  readonly groups: number;
  /** How many copies of the design each of them holds: several in a strip of a gang. */
  readonly perStrip: number;
}

/** What lies on each piece of a sheet, in the order of its pieces. */
export function onPieces(
  { groups, zones }: Pick<SheetPlan, 'groups' | 'zones'>,
  jobs: readonly { readonly id: string | null; readonly prepare: JobToLay['prepare'] }[],
): readonly (readonly OnPiece[])[] {
  const parts = zones
    ? zones.map((zone) => groups.filter((group) => group.filmId === zone.film.id && liesOn(zone, group)))
    : [groups];
  return parts.map((own) => {
    const found = new Map<string, OnPiece>();
    const inOrder = [...own].sort((a, b) => a.job - b.job || a.layer - b.layer);
    for (const { job, layer, perStrip } of inOrder) {
      const { id: jobId, prepare } = jobs[job]!;
      const panel = numberOf(prepare.layers[layer]!.panel);
      const key = `${job} ${panel.number}`;
      found.set(key, { jobId, panel, perStrip, groups: (found.get(key)?.groups ?? 0) + 1 });
    }
    return [...found.values()];
  });
}

/** Whether a group lies on a piece of a mat: pieces lie apart, so one point says it. */
function liesOn({ xMm, yMm, widthMm, lengthMm }: LaidRectangle, { contours }: SheetGroup): boolean {
  const [x, y] = [contours[0]![0]!, contours[0]![1]!];
  return x >= xMm && x <= xMm + widthMm && y >= yMm && y <= yMm + lengthMm;
}
