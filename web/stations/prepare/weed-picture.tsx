import { memo } from 'react';
import { comesOut } from '../../../core/engines/weeding/spot-kinds.js';
import type { Box } from '../../../core/geometry/index.js';
import type { DrawnPath } from '../../../core/plan/page/drawn-path.js';
import { wayOf, type Film } from '../../../core/shop/index.js';
import { keyOfPlace, type WeedPlace } from '../../../core/stations/cut/index.js';
import { fillOf } from '../../light-table/film-fill.js';
import { Shape } from '../../light-table/shape.js';
import { useIsPhone } from '../../ui/use-is-phone.js';

interface WeedPictureProps {
  readonly film: Film;
  readonly cut: DrawnPath;
  readonly marks: string;
  readonly border: string;
  readonly box: Box;
  /** What of the layer is on this panel. */
  readonly clip: string | null;
  readonly spots: readonly WeedPlace[];
  /** Those that are out, by their keys. */
  readonly ticked: ReadonlySet<string>;
  /** The area that is worked on: the others step back. */
  readonly area: Box | null;
}

/** A layer with its waste and what is looked for in it. Of a stencil what is cut comes out, and the film round it stays. */
export function WeedPicture({ film, cut, clip, marks, border, box, spots, ticked, area }: WeedPictureProps) {
  // On a phone a number is as large as a finger hits; where there are many, they must not cover each other.
  const crowd = Math.sqrt(((box.maxX - box.minX) * (box.maxY - box.minY)) / Math.max(1, spots.length)) / 3;
  const size = Math.min(Math.max(box.maxX - box.minX, box.maxY - box.minY) / (useIsPhone() ? 26 : 60), crowd);
  const isStencil = wayOf(film) === 'stencil';
  return (
    <>
      {border && (
        <path
          d={border}
          fill={isStencil ? fillOf(film) : '#ffffff'}
          stroke="#182325"
          strokeWidth="1.5"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {border && !isStencil && <path d={border} fill="url(#hatch-waste)" />}
      {clip && (
        <clipPath id="on-this-panel">
          <path d={clip} />
        </clipPath>
      )}
      <g {...(clip ? { clipPath: 'url(#on-this-panel)' } : {})}>
        <Shape
          path={cut}
          fill={isStencil ? '#ffffff' : fillOf(film)}
          stroke="#182325"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
        {isStencil && <Shape path={cut} fill="url(#hatch-waste)" />}
      </g>
      <path d={marks} fill="#ffffff" stroke="#8a1f4b" strokeWidth="2.5" vectorEffect="non-scaling-stroke" />
      <path d={marks} fill="url(#hatch-lap)" />
      {spots.map((spot, i) => (
        <Spot
          key={keyOfPlace(spot)}
          kind={spot.kind}
          xMm={spot.xMm}
          yMm={spot.yMm}
          number={i + 1}
          size={size}
          isTicked={ticked.has(keyOfPlace(spot))}
          isAside={area !== null && !isIn(spot, area)}
        />
      ))}
      {area && (
        <rect
          x={area.minX - 2 * size}
          y={area.minY - 2 * size}
          width={area.maxX - area.minX + 4 * size}
          height={area.maxY - area.minY + 4 * size}
          rx={size}
          fill="none"
          stroke="#8a1f4b"
          strokeWidth="2"
          strokeDasharray="6 4"
          vectorEffect="non-scaling-stroke"
        />
      )}
    </>
  );
}

const isIn = ({ xMm, yMm }: WeedPlace, { minX, minY, maxX, maxY }: Box) =>
  xMm >= minX && xMm <= maxX && yMm >= minY && yMm <= maxY;

interface SpotProps {
  readonly kind: WeedPlace['kind'];
  readonly xMm: number;
  readonly yMm: number;
  readonly number: number;
  readonly size: number;
  readonly isTicked: boolean;
  readonly isAside: boolean;
}

/** One of a thousand: drawn anew only when it is ticked. Round comes out, square stays. */
const Spot = memo(function Spot({ kind, xMm, yMm, number, size, isTicked, isAside }: SpotProps) {
  const look = {
    fill: isTicked ? '#1f6145' : '#ffffff',
    stroke: '#182325',
    strokeWidth: 1.25,
    vectorEffect: 'non-scaling-stroke',
  } as const;
  return (
    <g
      transform={`translate(${xMm} ${yMm})`}
      fontSize={size * (number > 99 ? 0.85 : 1.1)}
      fontWeight="700"
      textAnchor="middle"
      opacity={isAside ? 0.35 : 1}
    >
      {kind !== 'all out' && comesOut(kind) ? (
        <circle r={size} {...look} />
      ) : (
        <rect x={-size} y={-size} width={2 * size} height={2 * size} {...look} />
      )}
      <text dy="0.36em" fill={isTicked ? '#ffffff' : '#182325'}>
        {isTicked ? '✓' : number}
      </text>
    </g>
  );
});

/** What is written into the waste. */
export function LabelsPicture({ labels }: { readonly labels: readonly (readonly number[])[] }) {
  return (
    <path
      d={labels
        .map(
          (line) =>
            `M${line.reduce<string[]>((points, v, i) => (i % 2 === 0 ? [...points, `${v}`] : [...points.slice(0, -1), `${points.at(-1)} ${v}`]), []).join('L')}`,
        )
        .join('')}
      fill="none"
      stroke="#182325"
      strokeWidth="1"
      vectorEffect="non-scaling-stroke"
    />
  );
}
