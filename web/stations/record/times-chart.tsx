import { Bar, BarChart, CartesianGrid, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import styled from 'styled-components';
import { colour, type } from '../../tokens.js';

const MARGIN = { top: 8, right: 8, bottom: 0, left: 0 };
const TICK = { fill: colour.quiet, fontSize: 12 };

interface TimesChartProps {
  /** The chart takes a new list for new data and draws itself again, so it must be the same list while nothing has changed. */
  readonly times: readonly { readonly name: string; readonly estimate: number; readonly actual: number }[];
}

/** Estimate against actual, a pair of bars a run, in seconds. The table beside it holds the same figures. */
export function TimesChart({ times }: TimesChartProps) {
  return (
    <Figure>
      <figcaption>
        <Key style={{ background: colour.waste }} /> Estimate against <Key style={{ background: colour.accent }} />{' '}
        actual, seconds
      </figcaption>
      <ResponsiveContainer width="100%" height={220}>
        <BarChart
          data={times as TimesChartProps['times'][number][]}
          margin={MARGIN}
          barGap={2}
          accessibilityLayer={false}
        >
          <CartesianGrid vertical={false} stroke={colour.faint} />
          <XAxis dataKey="name" tick={TICK} stroke={colour.line} />
          <YAxis width={44} tick={TICK} stroke={colour.line} />
          <Bar dataKey="estimate" name="estimate" fill={colour.waste} maxBarSize={34} isAnimationActive={false} />
          <Bar dataKey="actual" name="actual" fill={colour.accent} maxBarSize={34} isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </Figure>
  );
}

const Key = styled.span`
  display: inline-block;
  width: 12px;
  height: 12px;
`;
const Figure = styled.figure`
  margin: 0;
  max-width: 720px;
  figcaption {
    font: 600 ${type.small} / 1.6 ${type.text};
  }
`;
