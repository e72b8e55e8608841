import type { LaidRectangle, Rectangle } from '../shop/index.js';

/** A piece that is cut for a mat: what it is of, and what it is cut with. */
export interface ZonePiece extends Rectangle {
  readonly id: string;
  /** Only pieces that are cut with the same settings share a mat. */
  readonly settings: string;
  /** Whether it may be turned by a quarter. */
  readonly mayTurn: boolean;
}

export interface ZonedMat {
  /** Room on it, mm. */
  readonly room: Rectangle;
}

/** A piece where it lies on a mat. */
export interface Zone extends LaidRectangle {
  readonly id: string;
  readonly isTurned: boolean;
}

/** Larger sets are put together greedily. */
const MOST_EXACT = 8;

/**
 * Pieces in the fewest passes of a mat, those of the same settings together, `marginMm` apart from each other and inside the room. The fewest there are for up to eight pieces of one setting
 * (all ways to part them are looked at, each part packed exactly); more are put together one by one. Null for a piece that does not fit on the mat alone.
 */
export function zonesOf(pieces: readonly ZonePiece[], { room }: ZonedMat, marginMm: number): Zone[][] | null {
  const bySettings = new Map<string, ZonePiece[]>();
  for (const piece of pieces) bySettings.set(piece.settings, [...(bySettings.get(piece.settings) ?? []), piece]);
  const passes: Zone[][] = [];
  for (const some of bySettings.values()) {
    const made = some.length <= MOST_EXACT ? fewest(some, room, marginMm) : greedy(some, room, marginMm);
    if (!made) return null;
    passes.push(...made);
  }
  return passes;
}

function fewest(pieces: readonly ZonePiece[], room: Rectangle, marginMm: number): Zone[][] | null {
  const packs = new Map<number, Zone[] | null>();
  const packOf = (set: number) => {
    if (!packs.has(set))
      packs.set(
        set,
        packed(
          pieces.filter((_, i) => set & (1 << i)),
          room,
          marginMm,
        ),
      );
    return packs.get(set)!;
  };
  const best = new Map<number, { readonly passes: number; readonly last: number }>([[0, { passes: 0, last: 0 }]]);
  const all = (1 << pieces.length) - 1;
  const solve = (set: number): number => {
    const known = best.get(set);
    if (known) return known.passes;
    const lowest = set & -set;
    let found = { passes: Infinity, last: 0 };
    // All parts of the set that hold its first piece, the largest first.
    for (let part = set; part > 0; part = (part - 1) & set) {
      if (!(part & lowest)) continue;
      const rest = set ^ part;
      if (1 + (rest === 0 ? 0 : 1) >= found.passes) continue;
      if (!packOf(part)) continue;
      const passes = 1 + solve(rest);
      if (passes < found.passes) found = { passes, last: part };
    }
    best.set(set, found);
    return found.passes;
  };
  if (!Number.isFinite(solve(all))) return null;
  const passes: Zone[][] = [];
  for (let set = all; set > 0; set ^= best.get(set)!.last) passes.push(packOf(best.get(set)!.last)!);
  return passes;
}

function greedy(pieces: readonly ZonePiece[], room: Rectangle, marginMm: number): Zone[][] | null {
  const passes: { pieces: ZonePiece[]; zones: Zone[] }[] = [];
  for (const piece of [...pieces].sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm)) {
    const home = passes.find((pass) => {
      const zones = shelved([...pass.pieces, piece], room, marginMm);
      if (zones) [pass.pieces, pass.zones] = [[...pass.pieces, piece], zones];
      return zones !== null;
    });
    if (home) continue;
    const zones = shelved([piece], room, marginMm);
    if (!zones) return null;
    passes.push({ pieces: [piece], zones });
  }
  return passes.map(({ zones }) => zones);
}

/** Lower left first, in falling size: fast, and nearly always enough. */
function shelved(pieces: readonly ZonePiece[], room: Rectangle, marginMm: number): Zone[] | null {
  return placedAll(
    [...pieces].sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm),
    room,
    marginMm,
    1,
  );
}

/** All of some pieces in the room, exactly: null only where there is no way. */
function packed(pieces: readonly ZonePiece[], room: Rectangle, marginMm: number): Zone[] | null {
  const area = pieces.reduce((sum, { widthMm, lengthMm }) => sum + (widthMm + marginMm) * (lengthMm + marginMm), 0);
  if (area > (room.widthMm + marginMm) * (room.lengthMm + marginMm) + 1e-6) return null;
  return (
    shelved(pieces, room, marginMm) ??
    placedAll(
      [...pieces].sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm),
      room,
      marginMm,
      Infinity,
    )
  );
}

/**
 * Places pieces one after the other. Whatever packing there is can be pushed down and to the left until each piece touches the edge or another: its corner is then a sum of sides, across and along. So only those places
 * are tried; `tries` of them for each piece at most.
 */
function placedAll(pieces: readonly ZonePiece[], room: Rectangle, marginMm: number, tries: number): Zone[] | null {
  const sums = (sides: readonly (readonly number[])[], most: number) => {
    let all = new Set([0]);
    for (const own of sides) {
      const next = new Set(all);
      for (const at of all)
        for (const side of own) if (at + side + marginMm <= most) next.add(Number((at + side + marginMm).toFixed(6)));
      all = next;
    }
    return [...all].sort((a, b) => a - b);
  };
  const turns = ({ widthMm, lengthMm, mayTurn }: ZonePiece) =>
    mayTurn && widthMm !== lengthMm
      ? [
          { w: widthMm, l: lengthMm, isTurned: false },
          { w: lengthMm, l: widthMm, isTurned: true },
        ]
      : [{ w: widthMm, l: lengthMm, isTurned: false }];
  const xs = sums(
    pieces.map((piece) => turns(piece).map(({ w }) => w)),
    room.widthMm,
  );
  const ys = sums(
    pieces.map((piece) => turns(piece).map(({ l }) => l)),
    room.lengthMm,
  );
  const zones: Zone[] = [];
  const isFree = (x: number, y: number, w: number, l: number) =>
    zones.every(
      (zone) =>
        x + w + marginMm <= zone.xMm + 1e-6 ||
        zone.xMm + zone.widthMm + marginMm <= x + 1e-6 ||
        y + l + marginMm <= zone.yMm + 1e-6 ||
        zone.yMm + zone.lengthMm + marginMm <= y + 1e-6,
    );
  const place = (i: number): boolean => {
    const piece = pieces[i];
    if (!piece) return true;
    let tried = 0;
    for (const y of ys) {
      for (const x of xs) {
        for (const { w, l, isTurned } of turns(piece)) {
          if (x + w > room.widthMm + 1e-6 || y + l > room.lengthMm + 1e-6 || !isFree(x, y, w, l)) continue;
          zones.push({ id: piece.id, xMm: x, yMm: y, widthMm: w, lengthMm: l, isTurned });
          if (place(i + 1)) return true;
          zones.pop();
          tried += 1;
          if (tried >= tries) return false;
        }
      }
    }
    return false;
  };
  return place(0) ? zones : null;
}
