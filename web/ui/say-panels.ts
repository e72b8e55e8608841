import type { PanelNumber } from '../../core/laying/index.js';
import { firstNamed, listed } from '../../core/words/index.js';

const MOST_NAMED = 5;

/** Which panels or designs lie on a sheet: “panel 1 of 3”, “panels 1 and 2 of 3”, or what they are called; nothing for a design in one piece. */
export function sayPanels(panels: readonly PanelNumber[]): string {
  const of = panels[0]?.of ?? 1;
  if (of < 2) return '';
  const numbers = panels.filter(({ label }) => label === null).map(({ number }) => String(number));
  const called = panels.flatMap(({ label }) => label ?? []);
  return listed([
    ...firstNamed(called, MOST_NAMED),
    ...(numbers.length > 0 ? [`${numbers.length > 1 ? 'panels' : 'panel'} ${listed(numbers)} of ${of}`] : []),
  ]);
}
