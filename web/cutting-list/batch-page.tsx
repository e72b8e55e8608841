import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import type { Batch, BatchView, BetterView } from '../../core/batch/index.js';
import { countGroups, type FrozenSheet, type SheetStanding } from '../../core/stations/cut/index.js';
import { count, sayArea, sayDuration } from '../../core/words/index.js';
import { ApiProblem, ask } from '../api/client.js';
import { BatchProgress } from '../batch/batch-progress.js';
import { BatchSheetPicture } from '../batch/batch-sheet-picture.js';
import { HowItIsLaidOut, WhatToFetch } from '../batch/how-it-is-laid-out.js';
import { LayingBar, useLayingByHand, type Laying } from '../batch/laid-by-hand.js';
import type { WantedOfJob } from '../batch/no-longer-fits.js';
import { Noticed } from '../batch/noticed.js';
import { PrintedLists } from '../batch/printed-lists.js';
import { titleIn } from '../batch/say-sheet.js';
import { sheetFound, useBatchActs, useBatchPlan } from '../batch/use-batches.js';
import { StationLayout } from '../job/station-layout.js';
import { FilmPatterns } from '../light-table/film-fill.js';
import { useShop } from '../plan/use-shop.js';
import { AtCutter } from '../stations/cut/at-cutter.js';
import { captionOfFrozen, FrozenPicture } from '../stations/cut/frozen-picture.js';
import { nameOfSheet, SheetsCut } from '../stations/cut/sheets-cut.js';
import { SheetsToCut } from '../stations/cut/sheets-to-cut.js';
import { useCuts, type Cuts } from '../stations/cut/use-cuts.js';
import { cutOf, useShownSheet, type Shown } from '../stations/cut/use-shown-sheet.js';
import { space } from '../tokens.js';
import { Button } from '../ui/button.js';
import { Small } from '../ui/plain-fields.js';
import { Refused } from '../ui/queue.js';
import { useSettings } from '../ui/settings.js';
import { JobsInBatch } from './jobs-in-batch.js';

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
  const { inCutter, elsewhere, act } = atCutter;
  const [lookedJob, setLookedJob] = useState<string | null>(null);
  const [better, setBetter] = useState<BetterView | null>(null);
  const sheets = state.plan?.sheets ?? [];
  const shown = useShownSheet({ sheets, cuts, atCutter });
  const wish = (change: Partial<Batch['wish']>) => acts.change(batch, { wish: { ...batch.wish, ...change } });
  const laying = useLayingByHand(
    batch,
    { sheet: shown.planned, films: shop?.films ?? [], isLayingOut: state.done !== null },
    (pins) => wish({ pins }),
  );
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
              {state.plan && <Noticed batch={batch} plan={state.plan} onChange={wish} />}
              <AtCutter cuts={atCutter} own={cuts} cutsKey={cutsKey} isBusy={isBusy} />
              <SheetsToCut
                batch={batch}
                sheets={sheets}
                shownId={shown.id}
                onChoose={({ key }) => shown.choose(key)}
                isLocked={inCutter !== null}
                isStopped={false}
                isBusy={isBusy || acts.isBusy}
                onOrder={(sequence) => wish({ order: 'by hand', sequence })}
                onCut={({ id }, loadedFilmIds) => act.mutate(cutOf(batch, id, loadedFilmIds))}
              />
              {act.error && <Refused role="alert">{act.error.message}</Refused>}
              {isAllCut(state.plan, atCutter) && <Small>Everything of this batch is cut.</Small>}
              <WhatToFetch batch={batch} state={state} />
              <HowItIsLaidOut batch={batch} state={state} isBusy={isBusy} onBetter={setBetter} />
              <JobsInBatch
                batch={batch}
                looked={lookedJob}
                onLook={setLookedJob}
                onTakeOut={(jobId) =>
                  acts.change(batch, { jobIds: batch.jobs.map(({ id }) => id).filter((id) => id !== jobId) })
                }
                onEnd={() => acts.end(batch, () => void navigate('/cutting-list'))}
              />
              <SheetsCut
                cuts={atCutter}
                shownId={shown.id}
                onChoose={({ id }) => shown.choose(id)}
                fateOf={(sheet) => sayFate(sheet, atCutter.how.get(sheet.id)!)}
                wanted={state.plan?.wanted ?? NONE_WANTED}
              />
            </>
          }
        >
          <ShownSheet shown={shown} atCutter={atCutter} laying={laying} better={better} jobId={lookedJob} />
        </StationLayout>
      </OnScreen>
      <PrintedLists
        title={`Batch ${batch.number}`}
        lead={batch.jobs.map(({ title }) => title).join(' · ')}
        sheets={sheets}
        unit={unit}
        titleOf={(jobId) => titleIn(batch, jobId)}
      />
    </>
  );
}

interface ShownSheetProps {
  readonly shown: Shown;
  readonly atCutter: Cuts;
  readonly laying: Laying;
  readonly better: BetterView | null;
  /** The job that is looked at. */
  readonly jobId: string | null;
}

/** The sheet that is shown, as it was sent or as it is laid out; what a search finds is drawn as it is found, the sheet that is looked at if it is among it. */
function ShownSheet({
  shown: { planned, frozen },
  atCutter: { inCutter, progress },
  laying,
  better,
  jobId,
}: ShownSheetProps) {
  const { unit } = useSettings();
  const found = sheetFound(better, planned?.key);
  return (
    <>
      {planned && !inCutter && <LayingBar laying={laying} sheet={planned} />}
      {frozen ? (
        <FrozenPicture
          sheet={frozen}
          name={nameOfSheet(frozen)}
          progress={inCutter ? progress : null}
          unit={unit}
          caption={captionOfFrozen(frozen)}
        />
      ) : (
        <BatchSheetPicture
          sheet={found ?? planned}
          unit={unit}
          jobId={jobId}
          byHand={inCutter || found ? null : laying.byHand}
          isSoFar={found !== null}
        />
      )}
    </>
  );
}

function isAllCut(plan: BatchView | undefined, { undecided, inCutter }: Cuts): boolean {
  if (!plan || undecided.length > 0 || inCutter) return false;
  return [plan.sheets, plan.short, plan.stopped].every((left) => left.length === 0);
}

const NOTHING: readonly FrozenSheet[] = [];
const NONE_WANTED: readonly WantedOfJob[] = [];
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

function leadOf({ jobs }: Batch, plan: BatchView | undefined): string {
  const together = count(jobs.length, 'job');
  if (!plan || plan.sheets.length === 0) return together;
  return `${together}, ${count(plan.sheets.length, 'pass', 'passes')} of the cutter, ${sayDuration(plan.seconds)}. ${sayArea(plan.takenMm2)} of film are taken, ${sayArea(plan.keptMm2)} stay on the work.`;
}

const OnScreen = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;

const Middle = styled.div`
  max-width: 30rem;
  margin: 14vh auto;
  display: grid;
  gap: ${space.m};
  justify-items: start;
`;
