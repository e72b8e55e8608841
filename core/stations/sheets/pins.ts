import { nestingFaults, type Placement } from '../../engines/nesting/index.js';
import { nestItemOf, nestSheetOf, type LayItem, type Loaded } from './lay-film.js';
import type { Pin } from './sheet-plan.js';

interface PinsOn {
  /** Of one film, those that are still to be cut. */
  readonly items: readonly LayItem[];
  readonly rack: readonly Loaded[];
  readonly spacingMm: number;
}

/** Of what was laid by hand in one film, what can still lie so beside the others, and what cannot. What is of another film, or cut by now, is neither. */
export function pinsThatHold(pins: readonly Pin[], { items, rack, spacingMm }: PinsOn): { readonly held: readonly Placement[]; readonly loose: readonly Pin[] } {
  const [held, loose]: [Placement[], Pin[]] = [[], []];
  const known = pins.flatMap((pin) => {
    const item = items.find((one) => isOf(pin, one));
    return item && pin.copy >= item.firstCopy ? [{ pin, item }] : [];
  });
  if (known.length === 0) return { held, loose };
  const request = { sheets: rack.map(nestSheetOf), spacingMm, items: [...new Set(known.map(({ item }) => item))].map(nestItemOf) };
  for (const { pin, item } of known) {
    const placement: Placement = { item: item.id, copy: pin.copy - item.firstCopy, sheet: pin.pieceKey, sheetIndex: 0, x: pin.xMm, y: pin.yMm, rotation: pin.rotation };
    const isThere = placement.copy < item.quantity && item.rotations.includes(pin.rotation) && rack.some(({ key }) => key === pin.pieceKey) && !held.some(({ item: other, copy }) => other === item.id && copy === placement.copy);
    if (isThere && nestingFaults(request, [...held, placement]).length === 0) held.push(placement);
    else loose.push(pin);
  }
  return { held, loose };
}

/** Whether what was laid by hand is a copy of a layer. */
export function isOf({ jobId, fingerprint }: Pin, item: LayItem): boolean {
  return item.jobId === jobId && item.group.fingerprint === fingerprint;
}
