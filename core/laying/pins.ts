import { nestingFaults, type Placement } from '../engines/nesting/index.js';
import { drawnIn, nestItemOf, nestSheetOf, type LayItem, type Loaded } from './lay-film.js';
import type { Neighbours } from './shared-borders.js';
import type { Pin } from './sheet-plan.js';

interface PinsOn extends Neighbours {
  /** Of one film, those that are still to be cut. */
  readonly items: readonly LayItem[];
  readonly rack: readonly Loaded[];
}

/** Of what was laid by hand in one film, what can still lie so beside the others, and what cannot. What is of another film, or cut by now, is neither. */
export function pinsThatHold(
  pins: readonly Pin[],
  { items, rack, ...between }: PinsOn,
): { readonly held: readonly Placement[]; readonly loose: readonly Pin[] } {
  const [held, loose]: [Placement[], Pin[]] = [[], []];
  const { spacingMm, insetMm } = between;
  const known = pins.flatMap((pin) => {
    const item = items.find((one) => isOf(pin, one));
    return item && pin.copy >= item.firstCopy ? [{ pin, item }] : [];
  });
  if (known.length === 0) return { held, loose };
  const request = {
    sheets: rack.map((on) => nestSheetOf(on, insetMm)),
    spacingMm,
    items: [...new Set(known.map(({ item }) => item))].map((item) => nestItemOf(item, between)),
  };
  for (const { pin, item } of known) {
    const placement: Placement = {
      item: item.id,
      copy: pin.copy - item.firstCopy,
      sheet: pin.pieceKey,
      sheetIndex: 0,
      x: pin.xMm,
      y: pin.yMm,
      rotation: pin.rotation,
    };
    const isThere =
      placement.copy < item.quantity &&
      item.rotations.includes(pin.rotation) &&
      rack.some(({ key }) => key === pin.pieceKey) &&
      !held.some(({ item: other, copy }) => other === item.id && copy === placement.copy);
    if (
      isThere &&
      nestingFaults(
        request,
        [...held, placement].map((place) => drawnIn(place, insetMm)),
      ).length === 0
    )
      held.push(placement);
    else loose.push(pin);
  }
  return { held, loose };
}

/** Whether what was laid by hand is a copy of a layer. */
export function isOf({ jobId, fingerprint }: Pin, item: LayItem): boolean {
  return item.jobId === jobId && item.group.fingerprint === fingerprint;
}
