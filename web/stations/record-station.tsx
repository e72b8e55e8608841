import { useMutation, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Run } from '../../core/records/index.js';
import { ask } from '../api/client.js';
import { useJobContext } from '../job/job-context.js';
import { StationLayout } from '../job/station-layout.js';
import { colour, radius, space, type } from '../tokens.js';
import { Choice } from '../ui/choice.js';
import { useNotify } from '../ui/notices.js';
import { Labelled, Small, Table, TextArea } from '../ui/plain-fields.js';
import { sayArea, sayDateTime, sayDuration } from '../ui/say.js';

const TimesChart = lazy(() => import('./times-chart.js').then((m) => ({ default: m.TimesChart })));

const OUTCOMES = [['none', 'Not judged'], ['good', 'Good'], ['remake', 'To be remade']] as const;

/** What was cut, what it took and how it turned out. */
export function RecordStation() {
  const { runs, shop, plan } = useJobContext();
  const finished = runs.filter((run) => run.state === 'finished');
  const [chosen, setChosen] = useState<string | null>(null);
  const run = runs.find((r) => r.id === chosen) ?? runs[0];
  const nameOf = (filmId: string) => shop.films.find((film) => film.id === filmId)?.name ?? filmId;
  const sum = (figure: (run: Run) => number) => finished.reduce((total, r) => total + figure(r), 0);
  return (
    <StationLayout
      title="Record"
      lead={finished.length > 0 ? 'Every run of the cutter for this job. Say how it turned out; next time the shop remembers.' : 'Nothing has been cut for this job yet. Every run is logged here by itself.'}
      docket={
        <>
          {finished.length > 0 && (
            <Facts>
              <dt>Film taken</dt>
              <dd>{sayArea(sum((r) => r.filmMm2))}</dd>
              <dt>of which stays</dt>
              <dd>{sayArea(keptArea(plan, finished))}</dd>
              <dt>Film cost</dt>
              <dd>{sum((r) => r.filmCost).toFixed(2)}</dd>
              <dt>Blade</dt>
              <dd>{(sum((r) => r.cutMm) / 1000).toFixed(1)} m</dd>
              <dt>Time</dt>
              <dd>
                {sayDuration(sum((r) => r.actualSeconds ?? 0))}, estimated {sayDuration(sum((r) => r.estimateSeconds))}
              </dd>
            </Facts>
          )}
          {run && <Judge key={run.id} run={run} filmName={nameOf(run.filmId)} />}
        </>
      }
    >
      {runs.length === 0 ? (
        <Nothing>
          <Small>The record fills itself as sheets are cut.</Small>
        </Nothing>
      ) : (
        <Scroll tabIndex={0} role="group" aria-label="Runs of the cutter">
          <Table>
            <thead>
              <tr>
                <th scope="col">Begun</th>
                <th scope="col">Sheet</th>
                <th scope="col">State</th>
                <th scope="col" className="figure">
                  Film
                </th>
                <th scope="col" className="figure">
                  Estimate
                </th>
                <th scope="col" className="figure">
                  Actual
                </th>
                <th scope="col">Outcome</th>
              </tr>
            </thead>
            <tbody>
              {runs.map((r) => (
                <Line key={r.id} data-chosen={r === run || undefined}>
                  <td>
                    <Pick type="button" aria-pressed={r === run} onClick={() => setChosen(r.id)}>
                      {sayDateTime(r.startedAt)}
                    </Pick>
                  </td>
                  <td>
                    {r.sheet} · {nameOf(r.filmId)}
                  </td>
                  <td>{r.state}</td>
                  <td className="figure">{sayArea(r.filmMm2)}</td>
                  <td className="figure">{sayDuration(r.estimateSeconds)}</td>
                  <td className="figure">{r.actualSeconds === null ? '–' : sayDuration(r.actualSeconds)}</td>
                  <td>
                    {r.outcome === 'good' ? 'good' : r.outcome === 'remake' ? 'to be remade' : '–'}
                    {r.note && <Small>{r.note}</Small>}
                  </td>
                </Line>
              ))}
            </tbody>
          </Table>
          {finished.length > 0 && (
            <Suspense fallback={<Small>Drawing the times …</Small>}>
              <TimesChart runs={runs} nameOf={nameOf} />
            </Suspense>
          )}
        </Scroll>
      )}
    </StationLayout>
  );
}

function keptArea(plan: ReturnType<typeof useJobContext>['plan'], finished: readonly Run[]): number {
  return finished.reduce((sum, run) => sum + (plan?.sheets?.[run.sheet - 1]?.keptMm2 ?? 0), 0);
}

function Judge({ run, filmName }: { readonly run: Run; readonly filmName: string }) {
  const { job } = useJobContext();
  const client = useQueryClient();
  const notify = useNotify();
  const [note, setNote] = useState(run.note);
  useEffect(() => setNote(run.note), [run.note]);
  const save = useMutation({
    mutationFn: (record: { outcome?: Run['outcome']; note?: string }) => ask<Run>(`/api/runs/${run.id}`, { method: 'PATCH', json: record }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['runs', job.id] }),
    onError: (error) => notify(error.message),
  });
  return (
    <Card>
      <h3>
        Sheet {run.sheet}, {filmName}
      </h3>
      <Choice label="Outcome" value={run.outcome ?? 'none'} options={OUTCOMES} onChange={(outcome) => save.mutate({ outcome: outcome === 'none' ? null : outcome })} />
      <Labelled>
        Note: how it weeded, what went wrong, why it was remade
        <TextArea value={note} maxLength={2000} onChange={(event) => setNote(event.target.value)} onBlur={() => note !== run.note && save.mutate({ note })} />
      </Labelled>
    </Card>
  );
}

const Facts = styled.dl`
  display: grid; grid-template-columns: auto 1fr; gap: ${space.xs} ${space.m}; font-size: ${type.small}; font-variant-numeric: tabular-nums;
  dt { color: ${colour.quiet}; }
`;

const Card = styled.section`
  display: grid; gap: ${space.s}; padding: ${space.m}; background: ${colour.raised}; border: 1px solid ${colour.line}; border-radius: ${radius.m};
  h3 { font-size: ${type.body}; margin: 0; }
`;

const Scroll = styled.div`flex: 1; overflow: auto; display: flex; flex-direction: column; gap: ${space.l}; &:focus-visible { outline-offset: -3px; }`;
const Nothing = styled.div`flex: 1; display: grid; place-content: center; border: 1px dashed ${colour.line}; border-radius: ${radius.l};`;
const Line = styled.tr`&[data-chosen] td { background: ${colour.accentWash}; } td:first-child { padding-left: ${space.s}; }`;
const Pick = styled.button`border: 0; background: none; padding: 2px 0; cursor: pointer; text-decoration: underline; text-underline-offset: 3px; color: ${colour.accent}; white-space: nowrap;`;
