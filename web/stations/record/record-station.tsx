import { useMemo, useState } from 'react';
import styled from 'styled-components';
import {
  carriesJob,
  countGroups,
  sayFilmsOfSheet,
  shareOfJob,
  standings,
  tookFilm,
  weededSeconds,
  type FrozenSheet,
  type BookedRun,
} from '../../../core/stations/cut/index.js';
import { weedingMinutes } from '../../../core/engines/weeding/minutes.js';
import { useJobContext } from '../../job/job-context.js';
import { StationLayout } from '../../job/station-layout.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Small, Table } from '../../ui/plain-fields.js';
import { sayDateTime } from '../../ui/say.js';
import { count, sayArea, sayDuration } from '../../../core/words/index.js';
import { fetchedLate, Part } from '../../ui/part.js';
import { filmOfRun, jobSums } from '../../../core/stations/record/index.js';
import { JudgeCopies, ownCopies } from './judge-copies.js';
import { SpoiledCopies } from './spoiled-copies.js';

const TimesChart = fetchedLate(
  () => import('./times-chart.js'),
  (m) => m.TimesChart,
);

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
  const sums = useMemo(() => jobSums(cuts, job.id), [cuts, job.id]);
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
          {entries.some(({ run }) => tookFilm(run)) && (
            <Facts>
              <dt>Film taken</dt>
              <dd>{sayArea(sums.takenMm2)}</dd>
              {sums.unbookedMm2 > 0 && (
                <>
                  <dt>not in the stock book</dt>
                  <dd>{sayArea(sums.unbookedMm2)}</dd>
                </>
              )}
              <dt>of which stays</dt>
              <dd>{sayArea(sums.keptMm2)}</dd>
              <dt>Film cost</dt>
              <dd>{sums.cost.toFixed(2)}</dd>
              <dt>Blade</dt>
              <dd>{(sums.bladeMm / 1000).toFixed(1)} m</dd>
              <dt>Time</dt>
              <dd>
                {sayDuration(sums.actualSeconds)}, estimated {sayDuration(sums.estimateSeconds)}
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
          {entry && (
            <JudgeCopies
              key={entry.run.id}
              name={nameOf(entry.sheet)}
              sheet={entry.sheet}
              run={entry.run}
              standing={how.get(entry.sheet.id)!}
            />
          )}
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
                  <td className="figure">{sayArea(filmOfRun(sheet, run).mm2 * shareOfJob(sheet, job.id))}</td>
                  <td className="figure">{sayDuration(run.estimateSeconds)}</td>
                  <td className="figure">{run.actualSeconds === null ? '–' : sayDuration(run.actualSeconds)}</td>
                  <td>
                    {sayVerdicts(sheet, job.id)}
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
  readonly run: BookedRun;
}

function nameOf(sheet: FrozenSheet): string {
  const jobs = new Set(sheet.groups.map(({ jobId }) => jobId)).size;
  return `${sayFilmsOfSheet(sheet)}${sheet.restOf ? ', the rest' : jobs > 1 ? `, with ${count(jobs - 1, 'other job')}` : sheet.groups.length > 1 ? `, ${countGroups(sheet.groups.length, sheet.groups)}` : ''}`;
}

/** What was said of a job's copies on a sheet, in a word. */
function sayVerdicts(sheet: FrozenSheet, jobId: string): string {
  const own = ownCopies(sheet, jobId);
  const many = (of: string) => own.filter(({ verdict }) => verdict === of).length;
  if (many('spoiled') === own.length) return 'make again';
  if (many('spoiled') > 0) return `${many('spoiled')} of ${own.length} make again`;
  return many('good') === own.length ? 'good' : '–';
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
