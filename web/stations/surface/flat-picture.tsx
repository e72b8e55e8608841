import { developedOf, ringOfFree, roomOf, warpLine, type Surface } from '../../../core/engines/surface/index.js';
import { boundsOf, joinBoxes, widenBox, type Box } from '../../../core/geometry/index.js';
import type { PlanView } from '../../../core/plan/page/plan-view.js';
import { LayerPicture } from '../../light-table/layer-picture.js';
import { designBox } from '../../light-table/design-box.js';

/** Cloth is shown so far round a print, mm. */
const CLOTH_MM = 18;

type Placed = NonNullable<PlanView['surface']>;

interface Edge {
  readonly d: string;
  readonly box: Box;
}

/** A box on the rolled-out skin as it is drawn: bent where the design is, and moved so that the design's corner is at 0, 0. */
function skinPath({ map, xMm, yMm }: Placed, { minX, minY, maxX, maxY }: Box): Edge {
  const corners = [minX - xMm, minY - yMm, maxX - xMm, minY - yMm, maxX - xMm, maxY - yMm, minX - xMm, maxY - yMm];
  const points = map ? warpLine(map, [...corners, corners[0]!, corners[1]!]) : Float64Array.from(corners);
  let d = '';
  for (let i = 0; i < points.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${points[i]!.toFixed(3)} ${points[i + 1]!.toFixed(3)}`;
  return { d: `${d}Z`, box: boundsOf([points])! };
}

/** The surface as it is drawn flat: all of it, and what of it may be decorated. */
function skinOf(placed: Placed): { readonly whole: Edge; readonly room: Edge } | null {
  const developed = developedOf(placed.surface, placed);
  if (!developed) return null;
  const { widthMm, heightMm } = developed;
  const gap = 'gapMm' in placed.surface ? placed.surface.gapMm / 2 : 0;
  return {
    whole: skinPath(placed, { minX: gap, minY: 0, maxX: widthMm - gap, maxY: heightMm }),
    room: skinPath(placed, roomOf(developed)),
  };
}

/** How far the design lies from where the rulers begin: at a board's corner, or at that of a bent design. */
function shiftOf(placed: Placed | undefined) {
  return placed && !placed.map ? { x: placed.xMm, y: placed.yMm } : { x: 0, y: 0 };
}

/** A box on the design as it lies on the flat picture. */
export function onFlatPicture(plan: PlanView | null, { minX, minY, maxX, maxY }: Box): Box {
  const { x, y } = shiftOf(plan?.surface);
  return { minX: minX + x, minY: minY + y, maxX: maxX + x, maxY: maxY + y };
}

/** Whether designs are shown on cloths of their own. */
function isOnCloths(placed: Placed | undefined): boolean {
  return placed?.panels?.along === 'apart' && !placed.isAmong;
}

/** What the flat picture shows, mm. */
export function flatBox(plan: PlanView | null): Box {
  const skin = plan?.surface && skinOf(plan.surface);
  const box = skin ? joinBoxes(skin.whole.box, designBox(plan))! : designBox(plan);
  // Cloth and names reach beyond the prints.
  return onFlatPicture(plan, isOnCloths(plan?.surface) ? widenBox(box, 4 * CLOTH_MM) : box);
}

/** The surface rolled out flat with the design on it: what stays free is hatched, panels are parted. */
export function FlatPicture({ plan, skin }: { readonly plan: PlanView | null; readonly skin: string }) {
  const placed = plan?.surface;
  if (!placed) return null;
  const drawn = skinOf(placed);
  const { x, y } = shiftOf(placed);
  return (
    <g transform={`translate(${x} ${y})`}>
      {drawn && (
        <>
          <path d={drawn.whole.d} fill={skin} stroke="#182325" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
          <path d={`${drawn.whole.d}${drawn.room.d}`} fill="url(#hatch-waste)" fillRule="evenodd" />
          <FreePlaces surface={placed.surface} xMm={placed.xMm} yMm={placed.yMm} />
        </>
      )}
      {isOnCloths(placed) &&
        placed.panels!.spans.map(({ number, box }) => (
          <rect
            key={number}
            x={box.minX - CLOTH_MM}
            y={box.minY - CLOTH_MM}
            width={box.maxX - box.minX + 2 * CLOTH_MM}
            height={box.maxY - box.minY + 2 * CLOTH_MM}
            rx={CLOTH_MM / 2}
            fill={skin}
            stroke="#9fb0b0"
            strokeWidth="1"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      <LayerPicture layers={plan.layers ?? []} />
      {!placed.map && placed.panels?.along !== 'apart' && (
        <rect
          width={placed.widthMm}
          height={placed.heightMm}
          fill="none"
          stroke="#4c5a5c"
          strokeDasharray="5 4"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {placed.isAmong &&
        placed.panels?.spans.map(({ number, box }) => (
          <rect
            key={number}
            x={box.minX}
            y={box.minY}
            width={box.maxX - box.minX}
            height={box.maxY - box.minY}
            fill="none"
            stroke="#4c5a5c"
            strokeDasharray="5 4"
            strokeWidth="1"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      {placed.panels && <SplitLines panels={placed.panels} isAmong={placed.isAmong} />}
    </g>
  );
}

function FreePlaces({ surface, xMm, yMm }: { readonly surface: Surface; readonly xMm: number; readonly yMm: number }) {
  if (surface.kind !== 'flat' && surface.kind !== 'glass') return null;
  return surface.free.map((place, i) => {
    const ring = ringOfFree(place);
    const points = Array.from(
      { length: ring.length / 2 },
      (_, k) => `${ring[2 * k]! - xMm},${ring[2 * k + 1]! - yMm}`,
    ).join(' ');
    return (
      <g key={i}>
        <polygon
          points={points}
          fill="url(#hatch-waste)"
          stroke="#a01d2c"
          strokeWidth="1.25"
          vectorEffect="non-scaling-stroke"
        />
        <title>{place.what || 'stays free'}</title>
      </g>
    );
  });
}

/** Where a design is parted: the laps hatched, the panels numbered. */
function SplitLines({
  panels: { spans, along },
  isAmong,
}: {
  readonly panels: NonNullable<Placed['panels']>;
  readonly isAmong: boolean;
}) {
  const isApart = along === 'apart';
  const size =
    Math.max(...spans.map(({ box }) => Math.max(box.maxX - box.minX, box.maxY - box.minY))) /
    (isAmong ? 26 : isApart ? 10 : 30);
  const reach = isAmong ? size * 0.4 : isApart ? CLOTH_MM + size * 0.3 : size * 0.6;
  return spans.map(({ number, label, copies, box, own, bends }) => {
    const lap =
      along !== 'down'
        ? { x: box.minX, y: box.minY - reach, width: own.minX - box.minX, height: box.maxY - box.minY + 2 * reach }
        : { x: box.minX - reach, y: box.minY, width: box.maxX - box.minX + 2 * reach, height: own.minY - box.minY };
    const [x, y] =
      along !== 'down'
        ? [(own.minX + own.maxX) / 2, box.minY - (isApart ? reach : size * 0.15)]
        : [box.minX - reach, (own.minY + own.maxY) / 2];
    return (
      <g key={number}>
        {bends.before && (
          <polyline
            points={bends.before.map((v, i) => (i % 2 === 0 ? `${v},` : `${v} `)).join('')}
            fill="none"
            stroke="#8a1f4b"
            strokeWidth="2"
            vectorEffect="non-scaling-stroke"
          />
        )}
        {number > 1 && !isApart && !bends.before && (
          <rect {...lap} fill="url(#hatch-lap)" stroke="#8a1f4b" strokeWidth="1" vectorEffect="non-scaling-stroke" />
        )}
        <text
          x={x}
          y={y}
          fontSize={size}
          fontWeight="700"
          textAnchor="middle"
          fill="#182325"
          stroke="#ffffff"
          strokeWidth={size / 8}
          paintOrder="stroke"
        >
          {label ?? number}
          {copies > 1 ? ` × ${copies}` : ''}
        </text>
      </g>
    );
  });
}
