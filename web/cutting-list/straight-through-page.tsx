import { useQuery } from '@tanstack/react-query';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { stopsBatch } from '../../core/batch/before-laying.js';
import type { PlanReport } from '../../core/plan/index.js';
import type { Job } from '../../core/recipe/index.js';
import {
  count,
  formatLength,
  listed,
  sayDuration,
  STATION_NAMES,
  STATIONS,
  type LengthUnit,
  type StationName,
} from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { AT_FIRST, streamedWork } from '../api/streamed-work.js';
import { useBatchActs, useBatchOf } from '../batch/use-batches.js';
import { useShop, type KnownShop } from '../plan/use-shop.js';
import { colour, radius, space, type, width } from '../tokens.js';
import { Button, MainButton } from '../ui/button.js';
import { useOffer } from '../ui/commands.js';
import { ColouredText } from '../ui/coloured-text.js';
import { LateDoingBox } from '../ui/doing.js';
import { Small } from '../ui/plain-fields.js';
import { sayDay } from '../ui/say.js';
import { useSettings } from '../ui/settings.js';
import { reportQuery } from './waiting.js';

/** A job that goes straight to the cutting list: all that it was ruled to be on one page, what is unusual first, each with the way to its station. */
export function StraightThroughPage() {
  const { id = '' } = useParams();
  const { unit } = useSettings();
  const shop = useShop();
  const navigate = useNavigate();
  const acts = useBatchActs();
  const batch = useBatchOf(id);
  const { data: job, error } = useQuery({
    queryKey: ['job', id, 'straight'],
    queryFn: () => ask<Job>(`/api/jobs/${id}`),
    retry: false,
  });
  const { report, told, planError } = useReportSoFar(id);
  useOffer(
    useMemo(
      () =>
        STATIONS.map((station, i) => ({
          name: `Go to ${STATION_NAMES[station]}`,
          keys: `Alt+${i + 1}`,
          run: () => void navigate(`/jobs/${id}/${station}`),
        })),
      [id, navigate],
    ),
  );
  if (error) return <Page role="alert">{error.message}</Page>;
  if (!job || !shop) return <Page role="status">Fetching the job …</Page>;
  const blockers = report?.findings.filter(({ severity }) => severity === 'blocker') ?? [];
  const warnings = report?.findings.filter(({ severity }) => severity === 'warning') ?? [];
  const own = report?.rulings.filter(({ overridden }) => overridden) ?? [];
  const stops = blockers.filter(stopsBatch);
  const left = report?.toCut?.reduce((sum, { copies, taken }) => sum + copies - taken, 0) ?? 0;
  return (
    <Page>
      <Head>
        <div>
          <h1>{job.title}</h1>
          <Small>
            {job.customer && `${job.customer} · `}
            {job.due ? `due ${sayDay(job.due)}` : 'no date'} · <Link to={`/jobs/${id}/artwork`}>the job itself</Link>
          </Small>
        </div>
        <Tools>
          {batch && batch.number !== null ? (
            <span>
              It is cut in <Link to={`/cutting-list/${batch.id}`}>batch {batch.number}</Link>.
            </span>
          ) : (
            <>
              <Button
                isDisabled={stops.length > 0 || !report || left === 0}
                onPress={() => void navigate(`/cutting-list?job=${id}`)}
              >
                Cut it together with others
              </Button>
              <MainButton
                isDisabled={stops.length > 0 || !report || left === 0 || acts.isBusy}
                onPress={() => acts.create([id], (made) => void navigate(`/cutting-list/${made.id}`))}
              >
                Lay it out by itself
              </MainButton>
            </>
          )}
        </Tools>
      </Head>
      {planError && <Small role="alert">{planError.message}</Small>}
      {!report && !planError && (
        <LateDoingBox role="status">
          <span>
            {told.waitsFor.length > 0 ? `Waiting for its turn after ${listed(told.waitsFor)}` : 'Looking at the job'} …
          </span>
          <progress aria-label="Looking at the job" value={told.done} max={1} />
        </LateDoingBox>
      )}
      {report && (
        <>
          <Told role="status">
            {stops.length > 0
              ? 'It is not on the cutting list: something stops it.'
              : left === 0 && report.toCut
                ? 'All of it is cut, or in the cutter.'
                : `It stands on the cutting list with ${count(left, 'layer')}. Nothing stops it.`}
          </Told>
          <section aria-label="To look at first">
            <h2>
              {blockers.length + warnings.length + own.length === 0
                ? 'Nothing is unusual or near a limit'
                : 'Look at this first'}
            </h2>
            <List>
              {[...blockers, ...warnings].map(({ code, severity, stage, message }) => (
                <Line key={code + message} stage={stage} jobId={id} severity={severity}>
                  <ColouredText text={message} />
                </Line>
              ))}
              {own.map(({ id: ruling, stage, sentence }) => (
                <Line key={ruling} stage={stage} jobId={id} severity="own">
                  <ColouredText text={sentence} /> This is your decision.
                </Line>
              ))}
            </List>
          </section>
          <section aria-label="What it will be">
            <h2>What it will be</h2>
            <Facts>
              {factsOf(report, shop, unit).map(([name, value]) => (
                <div key={name}>
                  <dt>{name}</dt>
                  <dd>{value}</dd>
                </div>
              ))}
            </Facts>
          </section>
          <section aria-label="All that was decided">
            <h2>All that was decided</h2>
            <List>
              {report.rulings
                .filter(({ overridden }) => !overridden)
                .map(({ id: ruling, stage, sentence }) => (
                  <Line key={ruling} stage={stage} jobId={id} severity="note">
                    <ColouredText text={sentence} />
                  </Line>
                ))}
            </List>
          </section>
        </>
      )}
    </Page>
  );
}

/** What the job comes to, and how far the server is with it. */
function useReportSoFar(id: string) {
  const [told, setTold] = useState(AT_FIRST);
  const { data: report, error: planError } = useQuery({
    ...reportQuery(id),
    retry: false,
    queryFn: ({ signal }) =>
      streamedWork<PlanReport>(`/api/jobs/${id}/plan/events`, {
        event: 'report',
        signal,
        tell: setTold,
        away: 'The bench computer does not answer, so this job is not planned.',
      }),
  });
  return { report, told, planError };
}

function Line({
  stage,
  jobId,
  severity,
  children,
}: {
  readonly stage: StationName;
  readonly jobId: string;
  readonly severity: 'blocker' | 'warning' | 'own' | 'note';
  readonly children: ReactNode;
}) {
  return (
    <li data-severity={severity}>
      <Link to={`/jobs/${jobId}/${stage}`}>{STATION_NAMES[stage]}</Link>
      <p>{children}</p>
    </li>
  );
}

/** The figures that a maker would check before the film is cut. */
function factsOf(
  { design, layers, trapMm, marks, sheets, seconds, weeding, toCut }: PlanReport,
  shop: KnownShop,
  unit: LengthUnit,
): (readonly [string, string])[] {
  const mm = (value: number) => `${formatLength(value, unit)} ${unit}`;
  const filmName = (id: string) => shop.films.find((film) => film.id === id)?.name ?? id;
  const films = [...new Set(layers?.map(({ film }) => film))];
  const copies = Math.max(0, ...(toCut ?? []).map((layer) => layer.copies));
  const perStrip = Math.max(1, ...(toCut ?? []).map((layer) => layer.perStrip));
  const weed = weeding?.reduce((sum, { minutes }) => sum + minutes, 0) ?? 0;
  const pieces = [
    ...new Set(
      sheets?.flatMap((sheet) =>
        sheet.pieces.map((piece) => shop.pieces.find(({ id }) => id === piece)?.kind ?? 'piece'),
      ),
    ),
  ];
  return [
    ['Films', films.length > 0 ? listed(films.map(filmName)) : 'none yet'],
    ...(design
      ? [['Size', `${formatLength(design.widthMm, unit)} × ${formatLength(design.heightMm, unit)} ${unit}`] as const]
      : []),
    ...(copies * perStrip > 1
      ? [
          [
            'Copies',
            perStrip > 1 ? `${copies * perStrip}, in ${count(copies, 'strip')} of ${perStrip}` : String(copies),
          ] as const,
        ]
      : []),
    ...(trapMm ? [['Trap', mm(trapMm)] as const] : []),
    [
      'Marks',
      marks && marks.length > 0
        ? `${count(marks.length, 'mark')}, ${listed([...new Set(marks.map(({ shape }) => shape))])}`
        : 'none',
    ],
    ...(sheets
      ? [
          [
            'By itself',
            `${count(sheets.length, 'sheet')}, from ${pieces.length > 0 ? listed(pieces.map((kind) => ({ roll: 'rolls', sheet: 'sheets', offcut: 'offcuts', piece: 'pieces' })[kind])) : 'nothing in stock'}`,
          ] as const,
        ]
      : []),
    ...(seconds !== undefined ? [['Cutting', sayDuration(seconds)] as const] : []),
    ...(weed > 0 ? [['Weeding', `about ${sayDuration(weed * 60)} a copy`] as const] : []),
  ];
}

const Page = styled.div`
  flex: 1;
  overflow-y: auto;
  padding: ${space.l} ${space.xl} ${space.xxl};
  display: grid;
  gap: ${space.l};
  align-content: start;
  h2 {
    font-size: ${type.large};
    padding-bottom: ${space.s};
  }
  @media (max-width: ${width.phone}) {
    padding: ${space.m};
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.m};
  align-items: flex-start;
  h1 {
    font-size: 2rem;
    overflow-wrap: anywhere;
  }
`;
const Tools = styled.div`
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: ${space.m};
  align-items: center;
`;
const Told = styled.p`
  font-size: ${type.large};
`;

const List = styled.ul`
  list-style: none;
  display: grid;
  gap: 1px;
  max-width: 64rem;
  li {
    display: grid;
    grid-template-columns: 96px 1fr;
    gap: ${space.m};
    padding: ${space.s} ${space.m};
    background: ${colour.docket};
    border-left: 4px solid ${colour.faint};
    font-size: ${type.body};
  }
  li[data-severity='blocker'] {
    background: ${colour.badWash};
    border-left-color: ${colour.bad};
  }
  li[data-severity='warning'] {
    background: ${colour.warnWash};
    border-left-color: ${colour.warn};
  }
  li[data-severity='own'] {
    border-left-color: ${colour.accent};
  }
  li > a {
    font-size: ${type.small};
  }
  p {
    overflow-wrap: anywhere;
  }
`;

const Facts = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: ${space.s};
  max-width: 64rem;
  div {
    padding: ${space.s} ${space.m};
    background: ${colour.docket};
    border: 1px solid ${colour.line};
    border-radius: ${radius.m};
  }
  dt {
    font-size: ${type.small};
    color: ${colour.quiet};
  }
  dd {
    font-weight: 600;
    font-variant-numeric: tabular-nums;
    overflow-wrap: anywhere;
  }
`;
