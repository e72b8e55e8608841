import type { Ring, Rings } from '../../geometry/index.js';
import type { Bend } from './compound.js';

/** A thing in space whose skin is rolled out: a point of the rolled-out skin has a place on it. All mm. */
export type Solid =
  | {
      readonly kind: 'round';
      /** How far it is round, as it is rolled out. */ readonly roundMm: number;
      readonly sideMm: number;
      readonly topRadiusMm: number;
      readonly footRadiusMm: number;
      readonly uprightMm: number;
    }
  | { readonly kind: 'dome'; readonly widthMm: number; readonly heightMm: number; readonly bend: Bend };

/** From where a thing is looked at, radians: it is turned about its upright axis, and looked at from so far above. */
export interface Outlook {
  readonly turnRad: number;
  readonly aboveRad: number;
}

/** A point as it is seen, mm, y down from the thing's middle; `facing` is above 0 where the skin is turned to the eye. */
interface Seen {
  readonly x: number;
  readonly y: number;
  readonly facing: number;
}

/** Edges are cut so short that they follow the skin, as a share of the way round, and mm. */
const STEP_SHARE = 1 / 90;

/** Where a point of the rolled-out skin is seen, in parallel projection. */
export function seenPoint(solid: Solid, look: Outlook, x: number, y: number): Seen {
  return solid.kind === 'round' ? seenRound(solid, look, x, y) : seenDome(solid, look, x, y);
}

function seenRound(
  { roundMm, sideMm, topRadiusMm, footRadiusMm, uprightMm }: Extract<Solid, { kind: 'round' }>,
  { turnRad, aboveRad }: Outlook,
  x: number,
  y: number,
): Seen {
  // The middle of what is rolled out is the front.
  const angle = (2 * Math.PI * x) / roundMm - Math.PI - turnRad;
  const share = y / sideMm;
  const radius = topRadiusMm + (footRadiusMm - topRadiusMm) * share;
  const [px, py, pz] = [radius * Math.sin(angle), (share - 0.5) * uprightMm, radius * Math.cos(angle)];
  const [ny, nz] = [topRadiusMm - footRadiusMm, uprightMm * Math.cos(angle)];
  const [sin, cos] = [Math.sin(aboveRad), Math.cos(aboveRad)];
  return { x: px, y: py * cos + pz * sin, facing: (nz * cos - ny * sin) / sideMm };
}

function seenDome(
  { widthMm, heightMm, bend }: Extract<Solid, { kind: 'dome' }>,
  { turnRad, aboveRad }: Outlook,
  x: number,
  y: number,
): Seen {
  const arc = (along: number, radius: number | null) =>
    radius === null
      ? { at: along, sag: 0, slope: 0 }
      : {
          at: radius * Math.sin(along / radius),
          sag: radius * (1 - Math.cos(along / radius)),
          slope: Math.tan(along / radius),
        };
  const [across, down] = [arc(x - widthMm / 2, bend.acrossMm), arc(y - heightMm / 2, bend.downMm)];
  const pz = -across.sag - down.sag;
  const [turnSin, turnCos] = [Math.sin(turnRad), Math.cos(turnRad)];
  const [qx, qz] = [across.at * turnCos - pz * turnSin, across.at * turnSin + pz * turnCos];
  const nz = across.slope * turnSin + turnCos;
  const [sin, cos] = [Math.sin(aboveRad), Math.cos(aboveRad)];
  return { x: qx, y: down.at * cos + qz * sin, facing: nz * cos - down.slope * sin };
}

/** Rings on the rolled-out skin as they are seen; what is turned away is left out. Cost: the points made. */
export function seenRings(solid: Solid, look: Outlook, rings: Rings): number[][] {
  const step = stepOf(solid);
  return rings.flatMap((ring) => {
    const seen = seenRing(solid, look, ring, step);
    return seen.length >= 6 ? [seen] : [];
  });
}

function stepOf(solid: Solid): number {
  return STEP_SHARE * (solid.kind === 'round' ? solid.roundMm : Math.max(solid.widthMm, solid.heightMm));
}

/** Cut down to what faces the eye: where the outline goes out of sight and comes back, the skin's edge joins the two places. */
function seenRing(solid: Solid, look: Outlook, ring: Ring, step: number): number[] {
  const out: number[] = [];
  let before = seenPoint(solid, look, ring[ring.length - 2]!, ring[ring.length - 1]!);
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [x0, y0, x1, y1] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    const pieces = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / step));
    for (let s = 1; s <= pieces; s += 1) {
      const now = seenPoint(solid, look, x0 + ((x1 - x0) * s) / pieces, y0 + ((y1 - y0) * s) / pieces);
      if (now.facing >= 0 !== before.facing >= 0) out.push(...edgeBetween(before, now));
      if (now.facing >= 0) out.push(now.x, now.y);
      before = now;
    }
  }
  return out;
}

function edgeBetween(a: Seen, b: Seen): [number, number] {
  const share = a.facing / (a.facing - b.facing);
  return [a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share];
}

/** A line on the rolled-out skin as it is seen, in as many pieces as are in sight. */
export function seenLine(solid: Solid, look: Outlook, line: ArrayLike<number>): number[][] {
  const step = stepOf(solid);
  const out: number[][] = [];
  let open: number[] | null = null;
  let before: Seen | null = null;
  const add = (now: Seen) => {
    if (before && now.facing >= 0 !== before.facing >= 0) {
      const edge = edgeBetween(before, now);
      if (now.facing >= 0) out.push((open = [...edge]));
      else open?.push(...edge);
    }
    if (now.facing >= 0) {
      if (!open) out.push((open = []));
      open.push(now.x, now.y);
    } else open = null;
    before = now;
  };
  for (let i = 0; i + 1 < line.length; i += 2) {
    const from = Math.max(0, i - 2);
    const pieces =
      i === 0 ? 1 : Math.max(1, Math.ceil(Math.hypot(line[i]! - line[from]!, line[i + 1]! - line[from + 1]!) / step));
    for (let s = 1; s <= pieces; s += 1)
      add(
        seenPoint(
          solid,
          look,
          line[from]! + ((line[i]! - line[from]!) * s) / pieces,
          line[from + 1]! + ((line[i + 1]! - line[from + 1]!) * s) / pieces,
        ),
      );
  }
  return out.filter((points) => points.length >= 4);
}

/** The rim of a round thing at its top or its foot, all of it, whether it is in sight or not. */
export function rimOf(solid: Extract<Solid, { kind: 'round' }>, look: Outlook, at: 'top' | 'foot'): number[] {
  const y = at === 'top' ? 0 : solid.sideMm;
  return Array.from({ length: 72 }, (_, i) => seenRound(solid, look, (solid.roundMm * i) / 72, y)).flatMap(
    ({ x, y: down }) => [x, down],
  );
}

/** A handle that stands out by so much where the skin is cut open: a line through its middle, and whether it is before the body. */
export function handleOf(
  solid: Extract<Solid, { kind: 'round' }>,
  look: Outlook,
  standsOutMm: number,
): { readonly line: number[]; readonly isBefore: boolean } {
  const angle = -Math.PI - look.turnRad;
  const [sin, cos] = [Math.sin(look.aboveRad), Math.cos(look.aboveRad)];
  const steps = 40;
  const line = Array.from({ length: steps + 1 }, (_, i) => {
    const bow = Math.sin((Math.PI * i) / steps);
    const share = 0.18 + (0.6 * i) / steps;
    const radius = solid.topRadiusMm + (solid.footRadiusMm - solid.topRadiusMm) * share + standsOutMm * bow ** 0.75;
    const [px, py, pz] = [radius * Math.sin(angle), (share - 0.5) * solid.uprightMm, radius * Math.cos(angle)];
    return [px, py * cos + pz * sin];
  }).flat();
  return { line, isBefore: Math.cos(angle) > 0 };
}
