import styled from 'styled-components';
import { space } from '../../tokens.js';

/** What film stretches to, in percent, and the colour of each step: dark blue-greens that are no film's, then warnings that also read by lightness. */
const STEPS = [
  { toPct: 0.25, colour: '#e6f1ee' },
  { toPct: 0.5, colour: '#b9dcd3' },
  { toPct: 1, colour: '#7fbcae' },
  { toPct: 2, colour: '#e3c66b' },
  { toPct: 5, colour: '#d08a3c' },
  { toPct: Infinity, colour: '#8f2f3e' },
] as const;

/** The colour of a strain, in percent. */
export function strainColour(pct: number): string {
  return STEPS.find(({ toPct }) => pct <= toPct)!.colour;
}

/** What the colours mean, and what films bear. */
export function StrainLegend({ mostPct }: { readonly mostPct: number }) {
  return (
    <Legend>
      {STEPS.map(({ toPct, colour }, i) => (
        <span key={colour}>
          <i style={{ background: colour }} aria-hidden />{' '}
          {toPct === Infinity ? `over ${STEPS[i - 1]!.toPct} %` : `to ${toPct} %`}
          {toPct === 1 ? ' (calendered)' : toPct === 5 ? ' (cast)' : ''}
        </span>
      ))}
      <span>most: {Number(mostPct.toFixed(mostPct < 1 ? 2 : 1))} %</span>
    </Legend>
  );
}

const Legend = styled.span`
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px ${space.s};
  i {
    display: inline-block;
    width: 14px;
    height: 10px;
    border: 1px solid #55636544;
    vertical-align: baseline;
  }
`;
