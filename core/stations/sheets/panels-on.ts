import type { PrepareOut, PreparedPanel } from '../prepare/index.js';
import type { PanelNumber, SheetGroup } from './sheet-plan.js';

/** A panel by its number and what it is called. */
export function numberOf({ number, of, label }: PreparedPanel): PanelNumber {
  return { number, of, label };
}

/** Which panels of a job's design lie on a sheet, each once, in the order of their numbers: 1 of 1 for a design in one piece. */
export function panelsOn(
  { groups }: { readonly groups: readonly Pick<SheetGroup, 'layer'>[] },
  { layers }: Pick<PrepareOut, 'layers'>,
): readonly PanelNumber[] {
  const panels = groups.map(({ layer }) => numberOf(layers[layer]!.panel));
  return [...new Map(panels.map((panel) => [panel.number, panel])).values()].sort((a, b) => a.number - b.number);
}
