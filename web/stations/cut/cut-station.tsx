import { useMemo } from 'react';
import type { BatchSheetView } from '../../../core/batch/index.js';
import { carriesJob, countGroups, type FrozenSheet } from '../../../core/stations/cut/index.js';
import { BatchNote } from '../../batch/batch-note.js';
import { BatchProgress } from '../../batch/batch-progress.js';
import { Noticed } from '../../batch/noticed.js';
import { sayFilms } from '../../batch/say-sheet.js';
import { useBatchActs, useBatchOf, useBatchPlan, useLaidOutAgain } from '../../batch/use-batches.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import { SheetPicture, sheetBox } from '../../light-table/sheet-picture.js';
import { Refused } from '../../ui/queue.js';
import { Small } from '../../ui/plain-fields.js';
import { AtCutter } from './at-cutter.js';
import { captionOfFrozen, FrozenPicture } from './frozen-picture.js';
import { CutterSwitches } from './cutter-switches.js';
import { nameOfSheet, SheetsCut } from './sheets-cut.js';
import { SheetsToCut } from './sheets-to-cut.js';
import { useCuts, type Cuts } from './use-cuts.js';
import { cutOf, useShownSheet, type Shown } from './use-shown-sheet.js';

/** What is in the cutter, what failed and waits for a word, what is left to be cut, and what is cut. */
export function CutStation() {
  const { plan, job, handle, cuts } = useJobContext();
  const { findings, rulings } = useSaid('cut');
  const batch = useBatchOf(job.id);
  const acts = useBatchActs();
  // What is cut together with others is sent from the cutting list.
  const isAlone = batch?.number === null;
  const state = useBatchPlan(job.id, isAlone);
  useLaidOutAgain(job.id, plan?.toCut);
  // Rests of a sheet may carry other jobs alone; they say how it stands, and are shown with those jobs.
  const own = useMemo(() => cuts.filter((sheet) => carriesJob(sheet, job.id)), [cuts, job.id]);
  const cutsKey = ['cuts', job.id];
  const atCutter = useCuts({
    cuts,
    own,
    cutsKey,
    changes: [['job', job.id], ['batch-plan']],
    isOwn: (busy) => busy.jobId === job.id,
  });
  const { how, inCutter, elsewhere, act } = atCutter;
  const sheets = (isAlone && state.plan?.sheets) || NONE;
  const shown = useShownSheet({ sheets, cuts, atCutter });
  const { planned } = shown;
  const stopped = plan?.findings.find((finding) => finding.severity === 'blocker');
  const wanted = plan?.toCut?.map(({ fingerprint }) => fingerprint) ?? [];
  const isBusy = act.isPending || inCutter !== null || elsewhere !== null;
  return (
    <StationLayout
      title="Cut"
      docket={
        <>
          <Findings findings={findings} />
          {batch && !isAlone && <BatchNote batch={batch} />}
          {batch && isAlone && !stopped && <BatchProgress state={state} />}
          {batch && isAlone && state.plan && (
            <Noticed batch={batch} plan={state.plan} onChange={(wish) => acts.change(batch, { wish })} />
          )}
          <AtCutter cuts={atCutter} own={own} cutsKey={cutsKey} isBusy={isBusy} />
          {batch && (
            <SheetsToCut
              batch={batch}
              sheets={sheets}
              shownId={shown.id}
              onChoose={({ key }) => shown.choose(key)}
              isLocked={inCutter !== null}
              isStopped={stopped !== undefined}
              isBusy={isBusy || acts.isBusy || handle.saving !== 'saved' || state.done !== null}
              onOrder={(sequence) => acts.change(batch, { wish: { ...batch.wish, order: 'by hand', sequence } })}
              onCut={({ id }, loadedFilmIds) => act.mutate(cutOf(batch, id, loadedFilmIds))}
            />
          )}
          {stopped && sheets.length > 0 && (
            <Refused>Nothing is cut before this is put right: {stopped.message}</Refused>
          )}
          {act.error && <Refused role="alert">{act.error.message}</Refused>}
          {batch && isAlone && state.plan && sheets.length === 0 && <NothingLeft cuts={cuts} atCutter={atCutter} />}
          <SheetsCut
            cuts={atCutter}
            shownId={shown.id}
            onChoose={({ id }) => shown.choose(id)}
            fateOf={(sheet) => sayFate(sheet, { how, wanted: new Set(wanted), jobId: job.id })}
            wanted={wanted.length > 0 ? [{ jobId: job.id, fingerprints: wanted }] : []}
          />
          <Rulings
            rulings={rulings.filter((ruling) => !planned || planned.films.some(({ id }) => ruling.id === `cut.${id}`))}
          />
          <CutterSwitches />
        </>
      }
    >
      <ShownSheet shown={shown} atCutter={atCutter} />
    </StationLayout>
  );
}

const NONE: readonly BatchSheetView[] = [];

/** Why no sheet of a job alone is left to cut. */
function NothingLeft({
  cuts,
  atCutter: { undecided, inCutter, done },
}: {
  readonly cuts: readonly FrozenSheet[];
  readonly atCutter: Cuts;
}) {
  if (cuts.length === 0) return <Small>There is nothing to cut yet. Sheets are made at the Sheets station.</Small>;
  return undecided.length === 0 && !inCutter && done.length > 0 ? <Small>Everything of this job is cut.</Small> : null;
}

function ShownSheet({
  shown: { planned, frozen },
  atCutter: { inCutter, progress },
}: {
  readonly shown: Shown;
  readonly atCutter: Cuts;
}) {
  const { unit } = useJobContext();
  if (frozen)
    return (
      <FrozenPicture
        sheet={frozen}
        name={nameOfSheet(frozen)}
        progress={inCutter ? progress : null}
        unit={unit}
        caption={captionOfFrozen(frozen)}
      />
    );
  return (
    <LightTable
      label={planned ? sayFilms(planned) : 'No sheet'}
      box={planned ? sheetBox(planned) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
      unit={unit}
      {...(planned ? { feedFrom: planned.usedLengthMm } : {})}
      caption={planned ? captionOf(planned) : ''}
    >
      {planned && <SheetPicture sheet={planned} />}
    </LightTable>
  );
}

/** What became of a sheet, and whether it still fits the job. */
function sayFate(
  sheet: FrozenSheet,
  { how, wanted, jobId }: { readonly how: Cuts['how']; readonly wanted: ReadonlySet<string>; readonly jobId: string },
): string {
  const standing = how.get(sheet.id);
  const own = sheet.groups.filter((group) => group.jobId === jobId);
  const spoiled = own.filter(({ verdict }) => verdict === 'spoiled').length;
  if (standing === 'spoiled') return 'spoiled: cut again';
  if (standing === 'thrown-away') return 'thrown away';
  if (standing === 'rest-undecided') return 'cut in part; its rest failed';
  if (spoiled > 0)
    return spoiled === own.length
      ? 'spoiled: cut again'
      : `✓ cut, ${spoiled} of ${countGroups(own.length, own)} spoiled: cut again`;
  if (sheet.groups.every((group) => group.revision === null)) return 'cut before the job’s state was kept with it';
  if (wanted.size > 0 && !own.some((group) => wanted.has(group.fingerprint)))
    return 'no longer fits: the job has changed since';
  return sheet.decided === 'kept' ? '✓ kept' : '✓ cut';
}

/** What cutting a sheet takes. */
function captionOf({ paths, cutMm, travelMm, forceG, speedMmS, edges }: BatchSheetView): string {
  return `${paths} cuts, ${(cutMm / 1000).toFixed(1)} m with the knife down, ${(travelMm / 1000).toFixed(1)} m lifted · ${forceG} g at ${speedMmS} mm/s${edges ? ` · dotted: ${edges.sides} mm stay free` : ''}`;
}
