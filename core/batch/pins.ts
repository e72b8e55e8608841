import { nestingFaults, type Placement } from '../engines/nesting/index.js';
import { outlinesOf, roomOn } from '../stations/sheets/index.js';
import type { BatchPin } from './batch.js';
import type { BatchItem, Loaded } from './lay-film.js';
import { toCutOf, type BatchJob } from './batch-items.js';

interface PinsOn {
  /** Of one film. */
  readonly items: readonly BatchItem[];
  readonly rack: readonly Loaded[];
  readonly spacingMm: number;
  /** What the jobs are known by, in the order of the batch. */
  readonly jobIds: readonly string[];
}

/** Of what was laid by hand in one film, what can still lie so beside the others, and what cannot. */
export function pinsThatHold(pins: readonly BatchPin[], { items, rack, spacingMm, jobIds }: PinsOn): { readonly held: readonly Placement[]; readonly loose: readonly BatchPin[] } {
  const [held, loose]: [Placement[], BatchPin[]] = [[], []];
  const request = { sheets: rack.map((on) => ({ ...roomOn(on), id: on.key, quantity: 1 })), spacingMm, items: items.map(({ id, quantity, rotations, group }) => ({ id, quantity, rotations, group: outlinesOf(group) })) };
  for (const pin of pins) {
    const item = items.find(({ job, group }) => jobIds[job] === pin.jobId && group.fingerprint === pin.fingerprint);
    // Of another film, or cut by now.
    if (!item || pin.copy < item.firstCopy) continue;
    const placement: Placement = { item: item.id, copy: pin.copy - item.firstCopy, sheet: pin.pieceKey, sheetIndex: 0, x: pin.xMm, y: pin.yMm, rotation: pin.rotation };
    const isThere = placement.copy < item.quantity && item.rotations.includes(pin.rotation) && rack.some(({ key }) => key === pin.pieceKey) && !held.some(({ item: other, copy }) => other === item.id && copy === placement.copy);
    if (isThere && nestingFaults(request, [...held, placement]).length === 0) held.push(placement);
    else loose.push(pin);
  }
  return { held, loose };
}

/** Whether no layer of the jobs is any more what was laid by hand. */
export function isGone({ jobId, fingerprint }: BatchPin, jobs: readonly BatchJob[]): boolean {
  const job = jobs.find(({ id }) => id === jobId);
  return !job || !toCutOf(job).some((layer) => layer.fingerprint === fingerprint);
}
