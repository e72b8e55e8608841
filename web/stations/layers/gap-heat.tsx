import styled from 'styled-components';
import { space, type } from '../../tokens.js';
import type { TrialAnswer } from '../../../core/stations/layers/index.js';

/** Steps of how often, the rarest first: the colour darkens and the line thickens, so that it reads without colour. */
const STEPS = [
  { colour: '#e8b04a', width: 3 },
  { colour: '#e07b39', width: 5 },
  { colour: '#c93a3f', width: 7 },
  { colour: '#8f1450', width: 9 },
  { colour: '#4a0d4f', width: 11 },
] as const;

const mostOf = (heat: TrialAnswer['heat']) => heat.reduce((most, spot) => Math.max(most, spot.share), 0);

/** How often bare surface showed along each edge, drawn on the edge itself. */
export function GapHeat({ heat }: { readonly heat: TrialAnswer['heat'] }) {
  const most = mostOf(heat);
  if (most === 0) return null;
  const paths = STEPS.map(() => '');
  for (const { x, y, nx, ny, longMm, share } of heat) {
    if (share === 0) continue;
    const step = Math.min(STEPS.length - 1, Math.floor((share / most) * STEPS.length));
    // Along the edge, half of a step to either side of the point.
    const [dx, dy] = [(-ny * longMm) / 2, (nx * longMm) / 2];
    paths[step]! += `M${(x - dx).toFixed(2)} ${(y - dy).toFixed(2)}L${(x + dx).toFixed(2)} ${(y + dy).toFixed(2)}`;
  }
  return (
    <g fill="none" strokeLinecap="round">
      {STEPS.map(({ width }, i) => (
        <path key={i} d={paths[i]} stroke="#ffffff" strokeWidth={width + 2.5} vectorEffect="non-scaling-stroke" />
      ))}
      {STEPS.map(({ colour, width }, i) => (
        <path key={i} d={paths[i]} stroke={colour} strokeWidth={width} vectorEffect="non-scaling-stroke" />
      ))}
    </g>
  );
}

const inHundred = (share: number) =>
  100 * share < 10 ? String(Number((100 * share).toFixed(1))) : (100 * share).toFixed(0);

/** What the heat picture says, for those who read it and those who hear it. */
export function heatCaption(heat: TrialAnswer['heat']): string {
  const most = mostOf(heat);
  if (most === 0) return 'no gap opened in any trial';
  return `where gaps showed: thin and pale rarely, thick and dark up to ${inHundred(most)} times in 100`;
}

/** What each colour and width of the heat stands for. */
export function HeatLegend({ heat }: { readonly heat: TrialAnswer['heat'] }) {
  const most = mostOf(heat);
  if (most === 0) return null;
  return (
    <Legend aria-label="How often a gap showed">
      <span>A gap showed, in 100 trials:</span>
      {STEPS.map(({ colour, width }, i) => (
        <span key={colour}>
          <svg width="30" height="14" aria-hidden>
            <line x1="7" x2="23" y1="7" y2="7" stroke={colour} strokeWidth={width} strokeLinecap="round" />
          </svg>{' '}
          {i === 0 ? 'up to' : `${inHundred((most * i) / STEPS.length)} to`}{' '}
          {inHundred((most * (i + 1)) / STEPS.length)}
        </span>
      ))}
    </Legend>
  );
}

const Legend = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 2px ${space.m};
  align-items: center;
  font-size: ${type.small};
  font-variant-numeric: tabular-nums;
  svg {
    vertical-align: -2px;
  }
`;
