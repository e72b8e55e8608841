import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import {
  carriesJob,
  sayFilmsOfSheet,
  shareOfJob,
  standings,
  weededSeconds,
  type FrozenSheet,
  type Run,
  type SheetStanding,
} from '../../../core/stations/cut/index.js';
import { weedingMinutes } from '../../../core/engines/weeding/minutes.js';
import { ask } from '../../api/client.js';
import { useJobContext } from '../../job/job-context.js';
import { StationLayout } from '../../job/station-layout.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Choice } from '../../ui/choice.js';
import { useNotify } from '../../ui/notices.js';
import { Labelled, Small, Table, TextArea } from '../../ui/plain-fields.js';
import { sayDateTime } from '../../ui/say.js';
import { count, sayArea, sayDuration } from '../../../core/words/index.js';
import { useDraft } from '../../ui/use-draft.js';
import { fetchedLate, Part } from '../../ui/part.js';
import { SpoiledCopies } from './spoiled-copies.js';

const TimesChart = fetchedLate(
  () => import('./times-chart.js'),
  (m) => m.TimesChart,
);

const OUTCOMES = [
  ['none', 'Not judged'],
  ['good', 'Good'],
  ['remake', 'Make again'],
] as const;

/** What was cut, what it took and how it turned out. */
export function RecordStation() {
  const { cuts, job } = useJobContext();
  const entries = useMemo(
    () =>
      cuts
        .filter((sheet) => carriesJob(sheet, job.id))
        .flatMap((sheet) => sheet.runs.map((run): Entry => ({ sheet, run })))
        .sort((a, b) => b.run.startedAt.localeCompare(a.run.startedAt)),
    [cuts, job.id],
  );
  const how = useMemo(() => standings(cuts), [cuts]);
  const finished = useMemo(() => entries.filter(({ run }) => run.state === 'finished'), [entries]);
  const [chosen, setChosen] = useState<string | null>(null);
  const entry = entries.find(({ run }) => run.id === chosen) ?? entries[0];
  const times = useMemo(
    () =>
      finished
        .map(({ sheet, run }) => ({
          name: nameOf(sheet),
          estimate: Math.round(run.estimateSeconds),
          actual: Math.round(run.actualSeconds ?? 0),
        }))
        .reverse(),
    [finished],
  );
  // A sheet is weeded once, however often the cutter ran for it. Times that still run are told where they are stopped.
  const timed = cuts.filter(
    (sheet) => sheet.weedTimes.length > 0 && sheet.weedTimes.every(({ stoppedAt }) => stoppedAt !== null),
  );
  // Of a sheet that carries other jobs, too, the part by what stays of each.
  const sum = (figure: (entry: Entry) => number) =>
    finished.reduce((total, one) => total + figure(one) * shareOfJob(one.sheet, job.id), 0);
  return (
    <StationLayout
      title="Record"
      lead={
        finished.length > 0
          ? 'Every run of the cutter for this job. Say how each one turned out.'
          : 'Nothing has been cut for this job yet. Every run is recorded here.'
      }
      docket={
        <>
          {finished.length > 0 && (
            <Facts>
              <dt>Film taken</dt>
              <dd>{sayArea(sum(({ sheet }) => sheet.filmMm2))}</dd>
              <dt>of which stays</dt>
              <dd>{sayArea(sum(({ sheet }) => sheet.keptMm2))}</dd>
              <dt>Film cost</dt>
              <dd>{sum(({ sheet }) => sheet.filmCost).toFixed(2)}</dd>
              <dt>Blade</dt>
              <dd>{(sum(({ sheet }) => sheet.cutMm) / 1000).toFixed(1)} m</dd>
              <dt>Time</dt>
              <dd>
                {sayDuration(sum(({ run }) => run.actualSeconds ?? 0))}, estimated{' '}
                {sayDuration(sum(({ run }) => run.estimateSeconds))}
              </dd>
              {timed.length > 0 && (
                <>
                  <dt>Weeding</dt>
                  <dd>
                    {sayDuration(timed.reduce((total, sheet) => total + weededSeconds(sheet, 0), 0))}, by the starting
                    figures{' '}
                    {sayDuration(
                      timed.reduce((total, { weedWork }) => total + (weedWork ? weedingMinutes(weedWork) * 60 : 0), 0),
                    )}
                  </dd>
                </>
              )}
            </Facts>
          )}
          {finished.length > 0 && <SpoiledCopies jobId={job.id} />}
          {entry && <Judge key={entry.run.id} entry={entry} standing={how.get(entry.sheet.id)!} />}
        </>
      }
    >
      {entries.length === 0 ? (
        <Nothing>
          <Small>Runs appear here as sheets are cut.</Small>
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
              {entries.map(({ sheet, run }) => (
                <Line key={run.id} data-chosen={run === entry?.run || undefined}>
                  <td>
                    <Pick type="button" aria-pressed={run === entry?.run} onClick={() => setChosen(run.id)}>
                      {sayDateTime(run.startedAt)}
                    </Pick>
                  </td>
                  <td>{nameOf(sheet)}</td>
                  <td>{run.state}</td>
                  <td className="figure">{sayArea(sheet.filmMm2 * shareOfJob(sheet, job.id))}</td>
                  <td className="figure">{sayDuration(run.estimateSeconds)}</td>
                  <td className="figure">{run.actualSeconds === null ? '–' : sayDuration(run.actualSeconds)}</td>
                  <td>
                    {run.outcome === 'good' ? 'good' : run.outcome === 'remake' ? 'make again' : '–'}
                    {run.note && <Small>{run.note}</Small>}
                  </td>
                </Line>
              ))}
            </tbody>
          </Table>
          {finished.length > 0 && (
            <Part name="The chart" fallback={<Small>Drawing the times …</Small>}>
              <TimesChart times={times} />
            </Part>
          )}
        </Scroll>
      )}
    </StationLayout>
  );
}

/** A run with the sheet it was of: its figures are those of the day it was cut. */
interface Entry {
  readonly sheet: FrozenSheet;
  readonly run: Run;
}

function nameOf(sheet: FrozenSheet): string {
  const jobs = new Set(sheet.groups.map(({ jobId }) => jobId)).size;
  return `${sayFilmsOfSheet(sheet)}${sheet.restOf ? ', the rest' : jobs > 1 ? `, with ${count(jobs - 1, 'other job')}` : sheet.groups.length > 1 ? `, ${sheet.groups.length} copies` : ''}`;
}

function Judge({ entry: { sheet, run }, standing }: { readonly entry: Entry; readonly standing: SheetStanding }) {
  const { job } = useJobContext();
  const client = useQueryClient();
  const notify = useNotify();
  const save = useMutation({
    mutationFn: (record: { outcome?: Run['outcome']; note?: string }) =>
      ask<Run>(`/api/runs/${run.id}`, { method: 'PATCH', json: record }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['cuts', job.id] }),
    onError: (error) => notify(error.message),
  });
  const note = useDraft<string, HTMLTextAreaElement>({
    label: 'Note',
    shown: run.note,
    read: (text) => ({ value: text }),
    onKeep: (text) => save.mutate({ note: text }),
    isLong: true,
  });
  return (
    <Card>
      <h3>{nameOf(sheet)}</h3>
      <Choice
        label="Outcome"
        value={run.outcome ?? 'none'}
        options={OUTCOMES}
        onChange={(outcome) => save.mutate({ outcome: outcome === 'none' ? null : outcome })}
      />
      {standing === 'to-remake' && <Small>The copies on this sheet will be cut again.</Small>}
      <Labelled>
        Note: how it weeded, what went wrong, why it was remade
        <TextArea maxLength={2000} {...note.props} />
      </Labelled>
    </Card>
  );
}

const Facts = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: ${space.xs} ${space.m};
  font-size: ${type.small};
  font-variant-numeric: tabular-nums;
  dt {
    color: ${colour.quiet};
  }
`;

const Card = styled.section`
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  h3 {
    font-size: ${type.body};
    margin: 0;
  }
`;

const Scroll = styled.div`
  flex: 1;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: ${space.l};
  &:focus-visible {
    outline-offset: -3px;
  }
`;
const Nothing = styled.div`
  flex: 1;
  display: grid;
  place-content: center;
  border: 1px dashed ${colour.line};
  border-radius: ${radius.l};
`;
const Line = styled.tr`
  &[data-chosen] td {
    background: ${colour.accentWash};
  }
  td:first-child {
    padding-left: ${space.s};
  }
`;
const Pick = styled.button`
  border: 0;
  background: none;
  padding: 2px 0;
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
  color: ${colour.accent};
  white-space: nowrap;
`;
