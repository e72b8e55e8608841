import type { LengthUnit } from '../../core/words/index.js';
import { colour, type } from '../tokens.js';

export const RULER_PX = 22;

/** Steps in the unit, from fine to coarse; the finest whose marks keep apart is used. */
const STEPS: Readonly<Record<LengthUnit, readonly number[]>> = {
  mm: [0.1, 0.5, 1, 5, 10, 50, 100, 500, 1000, 5000],
  cm: [0.1, 0.5, 1, 5, 10, 50, 100, 500],
  in: [1 / 32, 1 / 8, 1 / 2, 1, 6, 12, 60, 120],
};

export const MM_PER_UNIT: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 10, in: 25.4 };

interface RulersProps {
  readonly view: { readonly zoom: number; readonly x: number; readonly y: number };
  readonly size: { readonly width: number; readonly height: number };
  readonly unit: LengthUnit;
  /** Zero of the vertical ruler, which then counts upwards, mm. */
  readonly feedFrom?: number;
}

/** Rulers along the top and left, in the user's unit. */
export function Rulers({ view, size, unit, feedFrom }: RulersProps) {
  const pxPerUnit = view.zoom * MM_PER_UNIT[unit];
  const step = STEPS[unit].find((s) => s * pxPerUnit >= 8) ?? STEPS[unit].at(-1)!;
  const labelStep = STEPS[unit].find((s) => s * pxPerUnit >= 46) ?? step;
  const ticks = (origin: number, length: number, sign: 1 | -1 = 1) => {
    const out: { i: number; px: number; label: string | null }[] = [];
    const first = Math.ceil((RULER_PX - origin) / pxPerUnit / step);
    const last = Math.floor((length - origin) / pxPerUnit / step);
    for (let i = first; i <= last && out.length < 800; i += 1) {
      const value = i * step;
      const labelled = Math.abs(value / labelStep - Math.round(value / labelStep)) < 1e-6;
      out.push({
        i,
        px: origin + value * pxPerUnit,
        label: labelled ? String(Number((sign * value).toFixed(2)) + 0) : null,
      });
    }
    return out;
  };
  return (
    <g aria-hidden fontSize="10" fontFamily={type.text} fill={colour.quiet} stroke="none">
      <rect width={size.width} height={RULER_PX} fill={colour.docket} />
      <rect width={RULER_PX} height={size.height} fill={colour.docket} />
      {ticks(view.x, size.width).map(({ i, px, label }) => (
        <g key={`x${i * step}`}>
          <rect x={px} y={label ? 13 : 17} width="1" height={label ? 9 : 5} fill={colour.quiet} />
          {label && (
            <text x={px + 3} y={11}>
              {label}
            </text>
          )}
        </g>
      ))}
      {(feedFrom === undefined
        ? ticks(view.y, size.height)
        : ticks(view.y + feedFrom * view.zoom, size.height, -1)
      ).map(({ i, px, label }) => (
        <g key={`y${i * step}`}>
          <rect x={label ? 13 : 17} y={px} width={label ? 9 : 5} height="1" fill={colour.quiet} />
          {label && (
            <text transform={`translate(11 ${px - 3}) rotate(-90)`} textAnchor="start">
              {label}
            </text>
          )}
        </g>
      ))}
      <rect width={RULER_PX} height={RULER_PX} fill={colour.docket} />
      <text x="3" y="14" fontSize="9">
        {unit}
      </text>
    </g>
  );
}
