import type { PanelNumber } from '../../core/stations/sheets/index.js';
import { listed } from '../../core/words/index.js';

const MOST_NAMED = 5;

/** Which panels or designs lie on a sheet: “panel 1 of 3”, “panels 1 and 2 of 3”, or what they are called; nothing for a design in one piece. */
export function sayPanels(panels: readonly PanelNumber[]): string {
  const of = panels[0]?.of ?? 1;
  if (of < 2) return '';
  const numbers = panels.filter(({ label }) => label === null).map(({ number }) => String(number));
  const called = panels.flatMap(({ label }) => label ?? []);
  // Of many the first are named.
  const named =
    called.length > MOST_NAMED + 1 ? [...called.slice(0, MOST_NAMED), `${called.length - MOST_NAMED} more`] : called;
  return listed([
    ...named,
    ...(numbers.length > 0 ? [`${numbers.length > 1 ? 'panels' : 'panel'} ${listed(numbers)} of ${of}`] : []),
  ]);
}
