import type { JobToLay, PanelNumber } from './job-to-lay.js';
import type { SheetGroup } from './sheet-plan.js';

/** A panel by its number and what it is called. */
export function numberOf({ number, of, label }: PanelNumber): PanelNumber {
  return { number, of, label };
}

/** Which panels of a job's design lie on a sheet, each once, in the order of their numbers: 1 of 1 for a design in one piece. */
export function panelsOn(
  { groups }: { readonly groups: readonly Pick<SheetGroup, 'layer'>[] },
  { layers }: JobToLay['prepare'],
): readonly PanelNumber[] {
  const panels = groups.map(({ layer }) => numberOf(layers[layer]!.panel));
  return [...new Map(panels.map((panel) => [panel.number, panel])).values()].sort((a, b) => a.number - b.number);
}
