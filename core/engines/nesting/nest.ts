import type { NestHooks, NestItem, NestRequest, NestResult, Placement } from './nest-request.js';
import { NoFitCache, OpenSheet, type FillOptions, type Spot } from './open-sheet.js';
import { groupArea, orientationsOf, type Orientation } from './shape.js';

/** Copies of one thing fill in rows, so what is far below them leaves no gap for them; different things may still find one. */
const COPIES_BESIDE = 24;
const MANY_COPIES = 100;
const ITEMS_BESIDE = 80;

interface Candidate {
  readonly item: NestItem;
  readonly area: number;
  readonly orientations: readonly Orientation[];
}

/**
 * Places rigid groups on sheets: nothing overlaps, all keep the spacing, and sheets are filled in the order given.
 * Several orders of the items are tried (largest first in various senses, then seeded shuffles while `mayTryMore` allows)
 * and the best kept: fewest left over, then least film. Deterministic for the same request and number of tries.
 */
export async function nest(request: NestRequest, hooks: NestHooks = {}): Promise<NestResult> {
  const candidates = request.items
    .filter((item) => item.quantity > 0 && item.group.length > 0)
    .map((item) => ({ item, area: groupArea(item.group), orientations: orientationsOf(item.group, item.rotations, request.spacingMm) }));
  const cache = new NoFitCache();
  let best: Arrangement | null = null;
  const random = seededRandom(1);
  for (let round = 0; ; round += 1) {
    const order = ORDERS[round] ? [...candidates].sort(ORDERS[round]) : shuffled(candidates, random);
    const arrangement = await arrange(order, request, cache, hooks);
    if (!best || arrangement.score < best.score) best = arrangement;
    const done = candidates.length <= 1 || round >= 60;
    if (done || !(hooks.mayTryMore?.() ?? round + 1 < ORDERS.length)) break;
  }
  const { placements, sheets, missing } = best;
  const used = sheets.filter((sheet) => sheet.usedLength > 0);
  const filmArea = used.reduce((sum, s) => sum + s.usedLength * s.sheet.widthMm, 0);
  const areas = new Map(candidates.map((c) => [c.item.id, c.area]));
  const placedArea = placements.reduce((sum, p) => sum + areas.get(p.item)!, 0);
  return {
    placements,
    usedLengthMm: used.reduce((sum, s) => sum + s.usedLength, 0),
    density: filmArea > 0 ? placedArea / filmArea : 0,
    unplaced: missing.map(({ candidate, quantity }) => ({ item: candidate.item.id, quantity, reason: whyNot(candidate, request) })),
  };
}

interface Arrangement {
  readonly placements: readonly Placement[];
  readonly sheets: readonly OpenSheet[];
  readonly missing: readonly { readonly candidate: Candidate; readonly quantity: number }[];
  readonly score: number;
}

async function arrange(order: readonly Candidate[], request: NestRequest, cache: NoFitCache, hooks: NestHooks): Promise<Arrangement> {
  const sheets: OpenSheet[] = [];
  const left = request.sheets.map((sheet) => sheet.quantity ?? Infinity);
  const placements: Placement[] = [];
  const missing: { candidate: Candidate; quantity: number }[] = [];
  const counts = new Map<string, number>();
  const fill: FillOptions = { spacingMm: request.spacingMm, closedAfter: order.length === 1 && order[0]!.item.quantity > MANY_COPIES ? COPIES_BESIDE : ITEMS_BESIDE };
  const openNext = (orientations: readonly Orientation[]): OpenSheet | null => {
    const at = request.sheets.findIndex(
      (sheet, i) => left[i]! > 0 && orientations.some((o) => o.width <= sheet.widthMm + 1e-6 && o.height <= (sheet.lengthMm ?? Infinity) + 1e-6),
    );
    const sheet = request.sheets[at];
    if (!sheet) return null;
    left[at]! -= 1;
    const index = counts.get(sheet.id) ?? 0;
    counts.set(sheet.id, index + 1);
    const opened = new OpenSheet(sheet, index, cache, fill);
    sheets.push(opened);
    return opened;
  };
  for (const candidate of order) {
    for (let copy = 0; copy < candidate.item.quantity; copy += 1) {
      await hooks.breathe?.();
      const found = sheets.reduce<Found | null>((hit, sheet) => hit ?? bestOn(sheet, candidate.orientations), null);
      const opened = found ? null : openNext(candidate.orientations);
      const place = found ?? (opened && bestOn(opened, candidate.orientations));
      if (!place) {
        missing.push({ candidate, quantity: candidate.item.quantity - copy });
        break;
      }
      const { sheet, orientation, spot } = place;
      sheet.place(orientation, spot);
      placements.push({
        item: candidate.item.id,
        copy,
        sheet: sheet.sheet.id,
        sheetIndex: sheet.index,
        x: spot.x - orientation.originX,
        y: spot.y - orientation.originY,
        rotation: orientation.rotation,
      });
    }
  }
  const film = sheets.reduce((sum, s) => sum + s.usedLength * s.sheet.widthMm, 0);
  const lost = missing.reduce((sum, m) => sum + m.quantity * m.candidate.area, 0);
  return { placements, sheets, missing, score: film + lost * 1e6 };
}

interface Found {
  readonly sheet: OpenSheet;
  readonly orientation: Orientation;
  readonly spot: Spot;
}

function bestOn(sheet: OpenSheet, orientations: readonly Orientation[]): Found | null {
  let best: Found | null = null;
  for (const orientation of orientations) {
    const spot = sheet.bestSpot(orientation);
    if (spot && (!best || spot.y + orientation.height < best.spot.y + best.orientation.height - 1e-6)) best = { sheet, orientation, spot };
  }
  return best;
}

function whyNot(candidate: Candidate, request: NestRequest): string {
  const fits = request.sheets.some((s) =>
    candidate.orientations.some((o) => o.width <= s.widthMm + 1e-6 && o.height <= (s.lengthMm ?? Infinity) + 1e-6),
  );
  return fits ? 'no room is left on the sheets there are' : 'it is larger than every sheet';
}

const longest = (c: Candidate) => Math.max(c.orientations[0]!.width, c.orientations[0]!.height);

const ORDERS: readonly ((a: Candidate, b: Candidate) => number)[] = [
  (a, b) => b.area - a.area,
  (a, b) => longest(b) - longest(a),
  (a, b) => b.orientations[0]!.height - a.orientations[0]!.height,
];

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}

/** A small seeded generator (mulberry32): core has no random source of its own. */
function seededRandom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
