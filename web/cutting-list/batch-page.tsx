import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import type { Batch, BatchSheetView, BetterView } from '../../core/batch/index.js';
import { wayOf, type Film } from '../../core/shop/index.js';
import {
  countGroups,
  filmsOfSheet,
  sayFilmsOfSheet,
  type FrozenSheet,
  type SheetStanding,
} from '../../core/stations/cut/index.js';
import { count, formatLength, sayArea, sayDuration } from '../../core/words/index.js';
import { ApiProblem, ask } from '../api/client.js';
import { BatchProgress } from '../batch/batch-progress.js';
import { BatchSheetPicture } from '../batch/batch-sheet-picture.js';
import { JudgeWholeSheet } from '../batch/judge-whole-sheet.js';
import { NoLongerFits, type WantedOfJob } from '../batch/no-longer-fits.js';
import { PickList } from '../batch/pick-list.js';
import { PrintedLists } from '../batch/printed-lists.js';
import { sayCarried, sayFilms, saySection } from '../batch/say-sheet.js';
import { useBatchActs, useBatchPlan } from '../batch/use-batches.js';
import { StationLayout } from '../job/station-layout.js';
import { FilmPatterns } from '../light-table/film-fill.js';
import { useShop } from '../plan/use-shop.js';
import { AtCutter } from '../stations/cut/at-cutter.js';
import { LoadedQuestion } from '../stations/cut/loaded-question.js';
import { useCuts } from '../stations/cut/use-cuts.js';
import { colour, radius, space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { Entry, Figure, Queue, Refused } from '../ui/queue.js';
import { Small } from '../ui/plain-fields.js';
import { sayDateTime } from '../ui/say.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';
import { BatchWishes } from './batch-wishes.js';
import { FrozenPicture } from './frozen-picture.js';
import { LayingBar, useLayingByHand } from './laid-by-hand.js';
import { JobsInBatch } from './jobs-in-batch.js';
import { SearchForLess } from './search-for-less.js';

/** A batch: what is cut together, on which sheets, and sending them to the cutter. */
export function BatchPage() {
  const { id } = useParams();
  const { data: batch, error } = useQuery({
    queryKey: ['batches', id],
    queryFn: () => ask<Batch>(`/api/batches/${id}`),
    retry: false,
  });
  const navigate = useNavigate();
  if (error && (!batch || (error instanceof ApiProblem && error.status === 404))) {
    return (
      <Middle role="alert">
        <h1>This batch is not there any more</h1>
        <p>{error.message}</p>
        <Button onPress={() => void navigate('/cutting-list')}>The cutting list</Button>
      </Middle>
    );
  }
  return batch ? <BatchAtWork key={batch.id} batch={batch} /> : <Middle role="status">Fetching the batch …</Middle>;
}

function BatchAtWork({ batch }: { readonly batch: Batch }) {
  const { unit } = useSettings();
  const shop = useShop();
  const acts = useBatchActs();
  const navigate = useNavigate();
  const state = useBatchPlan(batch.id);
  const cutsKey = ['batch-cuts', batch.id];
  const cuts =
    useQuery({
      queryKey: cutsKey,
      queryFn: () => ask<FrozenSheet[]>(`/api/batches/${batch.id}/cuts`),
      refetchInterval: 3000,
    }).data ?? NOTHING;
  const atCutter = useCuts({ cuts, own: cuts, cutsKey, changes: [['batch-plan'], ['batches'], ['waiting']] });
  const { how, inCutter, progress, elsewhere, undecided, done, act } = atCutter;
  const titleOf = (jobId: string) => batch.jobs.find(({ id }) => id === jobId)?.title ?? '';
  const [chosen, setChosen] = useState<string | null>(null);
  const [lookedJob, setLookedJob] = useState<string | null>(null);
  const [better, setBetter] = useState<BetterView | null>(null);
  const sheets = state.plan?.sheets ?? [];
  // A sheet that is yet to be cut is known by its pieces: what lies on it changes while it is looked at.
  const shownId =
    inCutter?.id ??
    sheets.find(({ key }) => key === chosen)?.id ??
    [...undecided, ...cuts].find(({ id }) => id === chosen)?.id ??
    undecided[0]?.id ??
    sheets[0]?.id ??
    done[0]?.id;
  const planned = sheets.find(({ id }) => id === shownId) ?? null;
  const frozen = planned ? null : (cuts.find(({ id }) => id === shownId) ?? null);
  const laying = useLayingByHand(
    batch,
    { sheet: planned, films: shop?.films ?? [], isLayingOut: state.done !== null },
    (pins) => acts.change(batch, { wish: { ...batch.wish, pins } }),
  );
  /** Puts a sheet into another's place in the order; it is then an order by hand. */
  const put = (from: number, to: number) => {
    const keys = sheets.map(({ key }) => key);
    keys.splice(to, 0, ...keys.splice(from, 1));
    acts.change(batch, { wish: { ...batch.wish, order: 'by hand', sequence: keys } });
  };
  // What is found is drawn as it is found, the sheet that is looked at if it is among them.
  const foundSheet = better
    ? (better.sheets.find(({ key }) => key === planned?.key) ?? better.sheets[0] ?? null)
    : null;
  const isBusy = act.isPending || inCutter !== null || elsewhere !== null || state.done !== null;
  return (
    <>
      <FilmPatterns films={shop?.films ?? []} places={{}} />
      <OnScreen className="screen-only">
        <h1 className="unseen">Cutting list</h1>
        <StationLayout
          title={`Batch ${batch.number}`}
          lead={leadOf(batch, state.plan)}
          docket={
            <>
              <BatchProgress state={state} />
              {state.plan && (state.plan.stopped.length > 0 || state.plan.short.length > 0 || state.plan.loose > 0) && (
                <Noticed aria-label="Findings">
                  {state.plan.stopped.map(({ jobId, why }) => (
                    <li key={jobId} data-severity="warning">
                      <Link to={`/jobs/${jobId}/artwork`}>{titleOf(jobId)}</Link> is left out. Something stops it: {why}
                    </li>
                  ))}
                  {state.plan.short.map(({ filmId, message, spacingMm }) => (
                    <li key={filmId} data-severity="blocker">
                      {message}{' '}
                      {spacingMm !== null && (
                        <WordButton onPress={() => acts.change(batch, { wish: { ...batch.wish, spacingMm } })}>
                          Keep {spacingMm} mm between pieces
                        </WordButton>
                      )}
                    </li>
                  ))}
                  {state.plan.loose > 0 && (
                    <li data-severity="warning">
                      {count(state.plan.loose, 'copy', 'copies')} that you laid by hand cannot lie so any more: the
                      layer, the piece or what lies beside it is another.{' '}
                      {state.plan.loose === 1 ? 'It is' : 'They are'} laid by the app.
                    </li>
                  )}
                </Noticed>
              )}
              <AtCutter cuts={atCutter} own={cuts} cutsKey={cutsKey} isBusy={isBusy} />
              {sheets.length > 0 && (
                <section aria-label="What is left to cut">
                  <h3>To cut, in this order</h3>
                  <Queue aria-label="Sheets to cut">
                    {sheets.map((sheet, i) => (
                      <li key={sheet.id}>
                        <Entry
                          type="button"
                          aria-pressed={sheet.id === shownId}
                          disabled={inCutter !== null}
                          onClick={() => setChosen(sheet.key)}
                          draggable
                          onDragStart={(event) => event.dataTransfer.setData(DRAGGED, String(i))}
                          onDragOver={(event) => event.dataTransfer.types.includes(DRAGGED) && event.preventDefault()}
                          onDrop={(event) => put(Number(event.dataTransfer.getData(DRAGGED)), i)}
                        >
                          <Rank>{i + 1}</Rank>
                          <Films films={sheet.films} />
                          <span>
                            {sayFilms(sheet)}
                            {saySection(sheet)}
                            <Small as="span">
                              {sayCarried(sheet)}
                              {sheet.zones ? `, ${count(sheet.zones.length, 'piece')} on the mat` : ''}, {sheet.forceG}{' '}
                              g
                              {sheet.carries.some(({ isMirrored }) => isMirrored) && (
                                <>
                                  ,{' '}
                                  <Loud>
                                    {sheet.carries.every(({ isMirrored }) => isMirrored)
                                      ? 'cut mirrored'
                                      : 'partly cut mirrored'}
                                  </Loud>
                                </>
                              )}
                            </Small>
                          </span>
                          <Figure>{sayDuration(sheet.seconds)}</Figure>
                        </Entry>
                        {!inCutter && sheet === planned && sheets.length > 1 && (
                          <Moves>
                            <WordButton
                              isDisabled={i === 0 || acts.isBusy}
                              aria-label={`Cut earlier: sheet ${i + 1}`}
                              onPress={() => put(i, i - 1)}
                            >
                              Cut earlier
                            </WordButton>
                            <WordButton
                              isDisabled={i === sheets.length - 1 || acts.isBusy}
                              aria-label={`Cut later: sheet ${i + 1}`}
                              onPress={() => put(i, i + 1)}
                            >
                              Cut later
                            </WordButton>
                          </Moves>
                        )}
                        {!inCutter && sheet === planned && feedsFar(sheet, batch.wish) && (
                          <LongFeed>
                            This sheet feeds {formatLength(sheet.usedLengthMm, unit)} {unit} of the roll. So far it may
                            drift, and it cannot be cut in shorter sections. Pull the slack off the roll, then feed the
                            whole length out and back once before you cut.
                          </LongFeed>
                        )}
                        {!inCutter && sheet === planned && (
                          <LoadedQuestion
                            sheet={sheet}
                            action="Cut this sheet"
                            hpglUrl={`/api/batches/${batch.id}/sheets/${sheet.id}/hpgl`}
                            busy={isBusy}
                            onCut={(loadedFilmIds) =>
                              act.mutate({
                                path: `/api/batches/${batch.id}/sheets/${sheet.id}/cut`,
                                json: { revision: batch.revision, loadedFilmIds },
                              })
                            }
                          />
                        )}
                      </li>
                    ))}
                  </Queue>
                </section>
              )}
              {act.error && <Refused role="alert">{act.error.message}</Refused>}
              {state.plan &&
                sheets.length === 0 &&
                undecided.length === 0 &&
                !inCutter &&
                state.plan.short.length === 0 &&
                state.plan.stopped.length === 0 && <Small>Everything of this batch is cut.</Small>}
              {sheets.length > 0 && (
                <PickList
                  sheets={sheets}
                  unit={unit}
                  titleOf={titleOf}
                  onAvoid={(pieceId) =>
                    acts.change(batch, { wish: { ...batch.wish, avoid: [...batch.wish.avoid, pieceId] } })
                  }
                />
              )}
              {sheets.length > 0 && (
                <SearchForLess
                  batch={batch}
                  steps={state.plan!.steps}
                  isBusy={isBusy}
                  onForget={() => acts.change(batch, { wish: { ...batch.wish, steps: [] } })}
                  onBetter={setBetter}
                  films={shop?.films ?? []}
                />
              )}
              <BatchWishes
                batch={batch}
                unit={unit}
                films={shop?.films ?? []}
                stock={shop?.stock ?? []}
                unshared={state.plan?.unshared ?? []}
                closable={withoutStencils(sheets)}
                isBusy={isBusy}
                inCounters={state.plan ? state.plan.sheets.reduce((sum, sheet) => sum + sheet.inCounters, 0) : null}
                onChange={(wish) => acts.change(batch, { wish })}
              />
              <JobsInBatch
                batch={batch}
                looked={lookedJob}
                onLook={setLookedJob}
                onTakeOut={(jobId) =>
                  acts.change(batch, { jobIds: batch.jobs.map(({ id }) => id).filter((id) => id !== jobId) })
                }
                onEnd={() => acts.end(batch, () => void navigate('/cutting-list'))}
              />
              {done.length > 0 && (
                <section aria-label="What is cut">
                  <h3>Already cut</h3>
                  <Queue aria-label="Sheets that were cut">
                    {done.map((sheet) => (
                      <li key={sheet.id}>
                        <Entry
                          type="button"
                          aria-pressed={sheet.id === shownId}
                          disabled={inCutter !== null}
                          onClick={() => setChosen(sheet.id)}
                        >
                          <Films films={filmsOfSheet(sheet)} />
                          <span>
                            {nameOf(sheet)}
                            <Small as="span">{sayFate(sheet, how.get(sheet.id)!)}</Small>
                          </span>
                          <Figure>{sayDateTime(sheet.runs.at(-1)!.startedAt)}</Figure>
                        </Entry>
                        {!inCutter && sheet.id === shownId && how.get(sheet.id) === 'good' && (
                          <JudgeWholeSheet sheet={sheet} />
                        )}
                        {how.get(sheet.id) === 'good' && sheet.restOf === null && (
                          <NoLongerFits sheet={sheet} wanted={state.plan?.wanted ?? NONE_WANTED} />
                        )}
                      </li>
                    ))}
                  </Queue>
                </section>
              )}
            </>
          }
        >
          {planned && !inCutter && <LayingBar laying={laying} sheet={planned} />}
          {frozen ? (
            <FrozenPicture sheet={frozen} name={nameOf(frozen)} progress={inCutter ? progress : null} unit={unit} />
          ) : (
            <BatchSheetPicture
              sheet={foundSheet ?? planned}
              unit={unit}
              jobId={lookedJob}
              byHand={inCutter || foundSheet ? null : laying.byHand}
              isSoFar={foundSheet !== null}
            />
          )}
        </StationLayout>
      </OnScreen>
      <PrintedLists
        title={`Batch ${batch.number}`}
        lead={batch.jobs.map(({ title }) => title).join(' · ')}
        sheets={sheets}
        unit={unit}
        titleOf={titleOf}
        settingsOf={(i) => sheets[i]}
      />
    </>
  );
}

/** A roll that is fed so far in one pass may drift. */
function feedsFar({ piece, usedLengthMm }: BatchSheetView, { longFeedMm }: Batch['wish']): boolean {
  return piece?.kind === 'roll' && usedLengthMm > longFeedMm;
}

const NOTHING: readonly FrozenSheet[] = [];
const NONE_WANTED: readonly WantedOfJob[] = [];
/** What is dragged is a sheet of this list, by its number. */
const DRAGGED = 'application/x-lantern-sheet';

const WORDS = {
  'in-cutter': 'in the cutter',
  good: '✓ cut',
  undecided: 'not decided',
  'rest-undecided': 'cut in part; its rest failed',
  spoiled: 'spoiled: cut again',
  'thrown-away': 'thrown away',
  untouched: 'not cut',
} as const;

/** What became of a sheet; of copies that are spoiled how many. */
function sayFate({ groups }: FrozenSheet, standing: SheetStanding): string {
  const spoiled = groups.filter(({ verdict }) => verdict === 'spoiled').length;
  return standing !== 'spoiled' && spoiled > 0
    ? `${WORDS[standing]}, ${spoiled} of ${countGroups(groups.length, groups)} spoiled`
    : WORDS[standing];
}

/** The jobs on some sheets of which no stencil is cut: its margin is wanted. */
function withoutStencils(sheets: readonly BatchSheetView[]): string[] {
  const masks = new Set(
    sheets
      .flatMap(({ films }) => films)
      .filter((film) => wayOf(film) === 'stencil')
      .map(({ id }) => id),
  );
  const carried = sheets.flatMap(({ carries }) => carries);
  return [...new Set(carried.map(({ jobId }) => jobId))].filter(
    (id) => !carried.some(({ jobId, filmId }) => jobId === id && masks.has(filmId)),
  );
}

function leadOf(
  { jobs }: Batch,
  plan:
    | {
        readonly sheets: readonly BatchSheetView[];
        readonly seconds: number;
        readonly takenMm2: number;
        readonly keptMm2: number;
      }
    | undefined,
): string {
  const together = count(jobs.length, 'job');
  if (!plan || plan.sheets.length === 0) return together;
  return `${together}, ${count(plan.sheets.length, 'pass', 'passes')} of the cutter, ${sayDuration(plan.seconds)}. ${sayArea(plan.takenMm2)} of film are taken, ${sayArea(plan.keptMm2)} stay on the work.`;
}

function nameOf(sheet: FrozenSheet): string {
  return `${sayFilmsOfSheet(sheet)}${sheet.restOf ? ', the rest' : ''}`;
}

function Films({ films }: { readonly films: readonly Film[] }) {
  return (
    <Swatches>
      {films.map((film, i) => (
        <Swatch key={i} film={film} size={18} />
      ))}
    </Swatches>
  );
}

const OnScreen = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;

const Moves = styled.div`
  display: flex;
  gap: ${space.m};
  padding: 0 ${space.s} ${space.xs};
`;
const Loud = styled.b`
  color: ${colour.bad};
`;
const LongFeed = styled.p`
  font-size: ${type.small};
  padding: ${space.s} ${space.m};
  margin: ${space.xs} 0;
  background: ${colour.warnWash};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
`;
const Rank = styled.b`
  min-width: 1.2em;
  font-variant-numeric: tabular-nums;
`;
const Swatches = styled.i`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  max-width: 62px;
  flex: none;
`;
const Noticed = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  li {
    padding: ${space.s} ${space.m};
    border-radius: ${radius.m};
    background: ${colour.warnWash};
    border-left: 4px solid ${colour.warn};
    overflow-wrap: anywhere;
  }
  li[data-severity='blocker'] {
    background: ${colour.badWash};
    border-left-color: ${colour.bad};
  }
`;

const Middle = styled.div`
  max-width: 30rem;
  margin: 14vh auto;
  display: grid;
  gap: ${space.m};
  justify-items: start;
`;
