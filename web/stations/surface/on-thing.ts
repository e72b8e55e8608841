import {
  developedOf,
  facesBothSides,
  sidesOf,
  unwarpPoint,
  uprightOf,
  type LiesAt,
  type Solid,
  type Surface,
} from '../../../core/engines/surface/index.js';
import type { PlanView } from '../../../core/plan/page/plan-view.js';
import { ringsOfPath } from './path-rings.js';

/** A layer on the rolled-out skin of a thing, mm. */
export interface LayerOnSkin {
  readonly key: string;
  readonly colour: string;
  readonly rings: readonly Float64Array[];
}

type Round = Extract<Surface, { kind: 'cylinder' | 'taper' }>;

/** The thing as a body; null for what is flat. */
export function solidOf(surface: Surface, lies: LiesAt): Solid | null {
  switch (surface.kind) {
    case 'cylinder': {
      const { diameterMm, straightHeightMm } = surface;
      return {
        kind: 'round',
        roundMm: Math.PI * diameterMm,
        sideMm: straightHeightMm,
        topRadiusMm: diameterMm / 2,
        footRadiusMm: diameterMm / 2,
        uprightMm: straightHeightMm,
      };
    }
    case 'taper': {
      const { d1Mm, d2Mm, slantMm, wide } = surface.cone;
      const [top, foot] = wide === 'top' ? [d1Mm, d2Mm] : [d2Mm, d1Mm];
      return {
        kind: 'round',
        roundMm: developedOf(surface, lies)!.widthMm,
        sideMm: slantMm,
        topRadiusMm: top / 2,
        footRadiusMm: foot / 2,
        uprightMm: uprightOf(slantMm, d1Mm, d2Mm),
      };
    }
    case 'compound':
      return { kind: 'dome', widthMm: surface.widthMm, heightMm: surface.heightMm, bend: surface.bend };
    default:
      return null;
  }
}

/** The layers where they lie on the skin, bent ones as they come to lie when they are laid. */
export function layersOnSkin(
  placed: NonNullable<PlanView['surface']>,
  layers: NonNullable<PlanView['layers']>,
): LayerOnSkin[] {
  const { surface, map, xMm, yMm, isAmong } = placed;
  const shifts = !isAmong && facesBothSides(surface) ? [0, otherSide(surface)] : [0];
  return layers.map(({ film, cut }) => {
    const rings = ringsOfPath(cut);
    return {
      key: film.id,
      colour: film.colour,
      rings: shifts.flatMap((shift) =>
        rings.map((ring) => {
          const out = new Float64Array(ring.length);
          for (let i = 0; i < ring.length; i += 2) {
            const [u, v] = map ? unwarpPoint(map, ring[i]!, ring[i + 1]!) : [ring[i]!, ring[i + 1]!];
            out[i] = u + xMm + shift;
            out[i + 1] = v + yMm;
          }
          return out;
        }),
      ),
    };
  });
}

/** From the holder's side to the room's. */
function otherSide(surface: Extract<Surface, { kind: 'cylinder' }>): number {
  const { holderMm, roomMm } = sidesOf(Math.PI * surface.diameterMm, surface.hand);
  return roomMm - holderMm;
}

/** A view of a thing: by whom it is looked at, and how far it is turned for that, radians. */
export interface ThingView {
  readonly label: string;
  readonly turnRad: number;
}

/** So many views stand beside each other. */
const MOST_VIEWS = 3;

/** How a thing is looked at: from both sides where a hand holds it, else from where the middle of each design is. */
export function viewsOf(placed: NonNullable<PlanView['surface']>): ThingView[] {
  const { surface, isAmong, panels, xMm, widthMm } = placed;
  const middles =
    isAmong && panels
      ? panels.spans.map(({ label, box }) => ({ label, middleMm: xMm + (box.minX + box.maxX) / 2 }))
      : [];
  const middleMm = xMm + widthMm / 2;
  if (surface.kind === 'cylinder' && surface.gapMm > 0 && middles.length <= MOST_VIEWS) {
    const round = Math.PI * surface.diameterMm;
    const { holderMm, roomMm, frontMm } = sidesOf(round, surface.hand);
    return [
      { label: 'as its holder sees it', turnRad: turnTo(holderMm, round) },
      { label: 'as the room sees it', turnRad: turnTo(roomMm, round) },
      // Only when one lies there.
      ...(middles.some((one) => Math.abs(one.middleMm - frontMm) < 1)
        ? [{ label: 'opposite the handle', turnRad: turnTo(frontMm, round) }]
        : []),
    ];
  }
  if (surface.kind === 'cylinder' && middles.length > 0)
    return middles.slice(0, MOST_VIEWS).map((one) => ({
      label: `${one.label ?? ''} from in front`,
      turnRad: turnTo(one.middleMm, Math.PI * surface.diameterMm),
    }));
  const round = surface.kind === 'cylinder' || surface.kind === 'taper' ? developedOf(surface, placed)!.widthMm : null;
  return [{ label: 'from in front', turnRad: round === null ? 0 : turnTo(middleMm, round) }];
}

/** The turn that brings a place of the skin to the front. */
function turnTo(mm: number, roundMm: number): number {
  return (2 * Math.PI * mm) / roundMm - Math.PI;
}

/** Lines on the skin: what stays free below the lip, above the foot and round the handle, dashed. */
export function limitLines(surface: Round, lies: LiesAt): number[][] {
  const { widthMm, heightMm } = developedOf(surface, lies)!;
  const { lipMm, footMm, gapMm } = surface;
  const level = (y: number) => [0, y, widthMm, y];
  return [
    ...(lipMm > 0 ? [level(lipMm)] : []),
    ...(footMm > 0 ? [level(heightMm - footMm)] : []),
    ...(gapMm > 0
      ? [
          [gapMm / 2, 0, gapMm / 2, heightMm],
          [widthMm - gapMm / 2, 0, widthMm - gapMm / 2, heightMm],
        ]
      : []),
  ];
}
