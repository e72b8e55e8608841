import { useState } from 'react';
import styled from 'styled-components';
import { garmentOutline, measuredFrom, printOnGarment, type Spot } from '../../../core/engines/surface/index.js';
import { boundsOf, joinBoxes, widenBox, type Box } from '../../../core/geometry/index.js';
import type { PlanView } from '../../../core/plan/page/plan-view.js';
import type { SurfaceDecisions } from '../../../core/stations/surface/index.js';
import { formatLength, type LengthUnit } from '../../../core/words/index.js';
import { LayerPicture } from '../../light-table/layer-picture.js';
import { LightTable } from '../../light-table/light-table.js';
import { space } from '../../tokens.js';
import { Picker } from '../../ui/picker.js';

interface GarmentPictureProps {
  readonly plan: PlanView;
  readonly surface: SurfaceDecisions['surface'];
  readonly skin: string;
  readonly unit: LengthUnit;
}

/** Room round a garment, mm. */
const ROUND_MM = 30;
/** What is built reaches no further beyond a print than this, mm: others lie twice as far away. */
const BEYOND_MM = 60;

const pointsOf = (line: readonly number[]) =>
  Array.from({ length: line.length / 2 }, (_, i) => `${line[2 * i]},${line[2 * i + 1]}`).join(' ');

/** The print where it sits on the garment, to scale, with the measures it is placed by; of several sizes or a team, one at a time. */
export function GarmentPicture({ plan, surface, skin, unit }: GarmentPictureProps) {
  const { garment, team } = surface;
  const placed = plan.surface!;
  const [wanted, setWanted] = useState(1);
  const spans = placed.panels?.along === 'apart' ? placed.panels.spans : [];
  const shown = spans.find(({ number }) => number === wanted) ?? spans[0];
  const size = !shown
    ? 'M'
    : team && team.members.length > 0
      ? (team.members[shown.number - 1]?.size ?? '') || 'M'
      : (shown.label ?? 'M');
  const print = shown?.box ?? { minX: 0, minY: 0, maxX: placed.frame.widthMm, maxY: placed.frame.heightMm };
  const { cloth, seams } = garmentOutline(garment.piece, garment.spot, size);
  const { xMm, yMm, turnDeg } = printOnGarment(garment, size);
  const box = [...cloth, ...seams].reduce<Box | null>(
    (all, line) => joinBoxes(all, boundsOf([Float64Array.from(line)])),
    null,
  )!;
  const middle = (print.minX + print.maxX) / 2;
  const label = shown ? `on ${shown.label ?? 'M'}` : 'on an adult’s M';
  return (
    <>
      {spans.length > 1 && (
        <Line>
          Shown:{' '}
          <Picker
            label="Which print is shown"
            value={String(shown!.number)}
            options={spans.map(({ number, label: of }) => ({ id: String(number), text: of ?? String(number) }))}
            onChange={(id) => setWanted(Number(id))}
          />
        </Line>
      )}
      <LightTable
        label={`The print on the garment, ${label}`}
        box={widenBox(box, ROUND_MM)}
        unit={unit}
        caption={`dashed: what it is measured from, ${measuredFrom(garment.piece, garment.spot)} and the middle line`}
      >
        {cloth.map((line, i) => (
          <polygon
            key={i}
            points={pointsOf(line)}
            fill={skin}
            stroke="#182325"
            strokeWidth="1.5"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {seams.map((line, i) => (
          <polyline
            key={i}
            points={pointsOf(line)}
            fill="none"
            stroke="#7d8a8a"
            strokeWidth="1.5"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        <clipPath id="one-print">
          <rect
            x={print.minX - BEYOND_MM}
            y={print.minY - BEYOND_MM}
            width={print.maxX - print.minX + 2 * BEYOND_MM}
            height={print.maxY - print.minY + 2 * BEYOND_MM}
          />
        </clipPath>
        <g transform={`translate(${xMm} ${yMm}) rotate(${turnDeg}) translate(${-middle} ${-print.minY})`}>
          <g clipPath="url(#one-print)">
            <LayerPicture layers={plan.layers ?? []} />
          </g>
        </g>
        <Measured
          spot={garment.spot}
          at={{ xMm, yMm, turnDeg }}
          from={printOnGarment({ ...garment, downMm: 0 }, size)}
          unit={unit}
          top={box.minY}
          bottom={box.maxY}
        />
      </LightTable>
    </>
  );
}

type OnGarment = ReturnType<typeof printOnGarment>;

interface MeasuredProps {
  readonly spot: Spot;
  readonly at: OnGarment;
  /** The same place with nothing down. */
  readonly from: OnGarment;
  readonly unit: LengthUnit;
  readonly top: number;
  readonly bottom: number;
}

const FIGURE_MM = 36;
const INK = '#8a1f4b';

/** The measures that a print is placed by: down from the collar or a seam, and off the middle line. */
function Measured({ spot, at: { xMm, yMm, turnDeg }, from, unit, top, bottom }: MeasuredProps) {
  const line = { stroke: INK, strokeWidth: 1.5, vectorEffect: 'non-scaling-stroke' } as const;
  const figure = (x: number, y: number, mm: number) => (
    <text
      x={x}
      y={y}
      fontSize={FIGURE_MM}
      fontWeight="650"
      fill="#182325"
      stroke="#ffffff"
      strokeWidth={FIGURE_MM / 6}
      paintOrder="stroke"
    >
      {formatLength(mm, unit)} {unit}
    </text>
  );
  const isOff = turnDeg === 0 && spot !== 'leg' && Math.abs(xMm) > 1;
  return (
    <g>
      <line x1={0} x2={0} y1={top} y2={bottom} {...line} strokeDasharray="6 5" />
      {turnDeg === 0 && (
        <line x1={xMm - 40} x2={xMm + 40} y1={from.yMm} y2={from.yMm} {...line} strokeDasharray="6 5" />
      )}
      <line x1={from.xMm} x2={xMm} y1={from.yMm} y2={yMm} {...line} />
      {figure(
        (xMm + from.xMm) / 2 + 8,
        (yMm + from.yMm) / 2 + FIGURE_MM / 3,
        Math.hypot(xMm - from.xMm, yMm - from.yMm),
      )}
      {isOff && <line x1={0} x2={xMm} y1={yMm} y2={yMm} {...line} />}
      {isOff && figure(xMm / 2 - FIGURE_MM, yMm + FIGURE_MM, Math.abs(xMm))}
    </g>
  );
}

const Line = styled.p`
  margin-bottom: ${space.xs};
`;
