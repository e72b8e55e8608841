import { useEffect, useMemo, useState } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import type { TrialAnswer } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useAsked } from '../../job/use-asked.js';
import { Reason } from '../../ui/reason.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';

type Answer = { readonly marked: TrialAnswer; readonly byEye: TrialAnswer } | null;

interface GapTrialPanelProps {
  /** Shows where gaps opened, on the picture above. */
  readonly onHeat: (heat: TrialAnswer['heat']) => void;
}

const NO_HEAT: TrialAnswer['heat'] = [];

/** The layers laid a thousand times: how often bare surface shows, where, and how wide a trap is enough. */
export function GapTrialPanel({ onHeat }: GapTrialPanelProps) {
  const { plan, recipe, handle, unit } = useJobContext();
  const [placements, setPlacements] = useState(1000);
  const [readingMm, setReadingMm] = useState(1000);
  const [inHundred, setInHundred] = useState(1);
  const wish = { placements, seed: 1, readingMm, risk: inHundred / 100 };
  const answer = useAsked<Answer | undefined>((api, id) => api.gapTrial(id, wish), undefined, JSON.stringify(wish));
  const withMarks = recipe.preparation.marks;
  const mine = answer ? (withMarks ? answer.marked : answer.byEye) : null;
  const heat = mine?.heat ?? NO_HEAT;
  useEffect(() => onHeat(heat), [heat, onHeat]);
  const chart = useMemo(
    () =>
      answer?.marked.curve.map((point, i) => ({
        trap: point.trapMm,
        marked: Number((100 * point.risk).toFixed(2)),
        byEye: Number((100 * answer.byEye.curve[i]!.risk).toFixed(2)),
      })) ?? [],
    [answer],
  );
  if (answer === undefined) return <Panel role="status">Trying it many times …</Panel>;
  if (answer === null || !mine) return <Panel>There is only one layer, so nothing can slip.</Panel>;
  const percent = (share: number) =>
    100 * share < 0.05 ? 'never' : `in ${(100 * share).toFixed(share < 0.1 ? 1 : 0)} of 100`;
  const enough = mine.trapMm;
  const eyeIsEnough = answer.byEye.risk <= inHundred / 100;
  return (
    <Panel aria-label="Gap trial">
      <Words>
        <p>
          If it is put together{' '}
          <NumberField label="Placements" value={placements} min={100} max={20_000} onChange={setPlacements} /> times
          and seen from{' '}
          <FigureField
            label="Reading distance"
            mm={readingMm}
            unit={unit}
            min={50}
            max={50_000}
            stepMm={100}
            onChange={setReadingMm}
          />
          , bare surface shows <strong>{percent(answer.marked.risk)}</strong> with marks,{' '}
          <strong>{percent(answer.byEye.risk)}</strong> by eye.{' '}
          {mine.widestMm > 0 ? `The widest gap is ${formatLength(mine.widestMm, unit)} ${unit}.` : ''}
        </p>
        <p>
          For no more than{' '}
          <NumberField label="Gaps in a hundred" value={inHundred} min={1} max={50} onChange={setInHundred} /> in 100,{' '}
          {enough === null ? (
            'no trap is wide enough, because some edges here have none.'
          ) : (
            <>
              a trap of{' '}
              <strong>
                {formatLength(enough, unit)} {unit}
              </strong>{' '}
              is enough.{' '}
              {recipe.build.trapMm !== enough && (
                <Button onPress={() => handle.change({ build: { trapMm: enough } })}>Use it</Button>
              )}
            </>
          )}{' '}
          {eyeIsEnough && withMarks && (
            <>
              By eye is good enough here, so you can leave out the marks.{' '}
              <WordButton onPress={() => handle.change({ preparation: { marks: false } })}>Lay it by eye</WordButton>
            </>
          )}
        </p>
        <Fine>
          A gap under {formatLength(mine.visibleMm, unit)} {unit} cannot be seen from there. All but one slip in three
          hundred stay within your figures. <Reason text="(docs/gap-trial.md)" />
        </Fine>
      </Words>
      <Chart
        role="img"
        aria-label={`Risk of a gap by trap width: ${percent(mine.curve[0]!.risk)} without a trap, ${percent(mine.risk)} at ${mine.curve.length > 0 ? formatLength(plan?.trapMm ?? 0, unit) : 0} ${unit}.`}
      >
        <ResponsiveContainer width="100%" height="100%">
          <LineChart data={chart} margin={{ top: 8, right: 12, bottom: 14, left: -14 }}>
            <CartesianGrid stroke={colour.faint} />
            <XAxis
              dataKey="trap"
              type="number"
              domain={[0, 2]}
              ticks={[0, 0.5, 1, 1.5, 2]}
              tick={{ fontSize: 11, fill: colour.quiet }}
              label={{ value: 'trap, mm', position: 'insideBottom', offset: -8, fontSize: 11, fill: colour.quiet }}
            />
            <YAxis domain={[0, 100]} ticks={[0, 50, 100]} tick={{ fontSize: 11, fill: colour.quiet }} unit="%" />
            <Tooltip
              formatter={(value) => `${String(value)} in 100`}
              labelFormatter={(trap) => `trap ${String(trap)} mm`}
              contentStyle={{
                background: colour.raised,
                border: `1px solid ${colour.line}`,
                fontSize: 12,
                color: colour.ink,
              }}
            />
            <Line
              dataKey="byEye"
              name="by eye"
              stroke={colour.quiet}
              strokeDasharray="5 3"
              dot={false}
              isAnimationActive={false}
            />
            <Line
              dataKey="marked"
              name="with marks"
              stroke={colour.accent}
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
            />
            <ReferenceLine
              x={plan?.trapMm ?? 0}
              stroke={colour.ink}
              strokeDasharray="2 3"
              label={{ value: 'now', fontSize: 11, fill: colour.ink, position: 'insideTopRight' }}
            />
          </LineChart>
        </ResponsiveContainer>
      </Chart>
    </Panel>
  );
}

const Panel = styled.section`
  flex: none;
  min-height: 168px;
  display: grid;
  grid-template-columns: 1fr 300px;
  gap: ${space.m};
  padding: ${space.s} ${space.m};
  border: 1px solid ${colour.line};
  border-radius: ${radius.l};
  background: ${colour.docket};
  font-size: ${type.small};
  @media (max-width: 1100px) {
    grid-template-columns: 1fr 230px;
  }
`;
const Words = styled.div`
  display: grid;
  gap: ${space.s};
  align-content: start;
  line-height: 1.7;
`;
const Fine = styled.p`
  color: ${colour.quiet};
  font-size: 0.78rem;
  line-height: 1.4;
`;
const Chart = styled.div`
  height: 156px;
`;
