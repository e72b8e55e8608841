import { useMemo, useState } from 'react';
import {
  carriesJob,
  countGroups,
  farthestRun,
  filmsOfSheet,
  sayFilmsOfSheet,
  type FrozenSheet,
} from '../../../core/stations/cut/index.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import type { SheetView } from '../../../core/plan/page/plan-view.js';
import { Entry, Figure, Queue, Refused } from '../../ui/queue.js';
import { Small } from '../../ui/plain-fields.js';
import { sayDateTime } from '../../ui/say.js';
import { count, sayDuration } from '../../../core/words/index.js';
import { Swatch } from '../../ui/swatch.js';
import { SheetPicture, sheetBox } from '../../light-table/sheet-picture.js';
import { NoLongerFits } from '../../batch/no-longer-fits.js';
import { BatchNote } from '../../batch/batch-note.js';
import { sayFilms, saySection } from '../../batch/say-sheet.js';
import { useBatchOf } from '../../batch/use-batches.js';
import { AtCutter } from './at-cutter.js';
import { CutterSwitches } from './cutter-switches.js';
import { LiveCut } from './live-cut.js';
import { LoadedQuestion } from './loaded-question.js';
import { useCuts, type Cuts } from './use-cuts.js';
import { useDrawnSheet, useFrozenDrawing } from '../../job/use-frozen-drawing.js';

/** What is in the cutter, what failed and waits for a word, what is left to be cut, and what is cut. */
export function CutStation() {
  const { plan, job, handle, cuts, unit } = useJobContext();
  const { findings, rulings } = useSaid('cut');
  // Rests of a sheet may carry other jobs alone; they say how it stands, and are shown with those jobs.
  const own = useMemo(() => cuts.filter((sheet) => carriesJob(sheet, job.id)), [cuts, job.id]);
  const cutsKey = ['cuts', job.id];
  const atCutter = useCuts({ cuts, own, cutsKey, changes: [['job', job.id]], isOwn: (busy) => busy.jobId === job.id });
  const { how, inCutter, progress, elsewhere, undecided, done, act } = atCutter;
  const [chosen, setChosen] = useState<string | null>(null);
  const batch = useBatchOf(job.id);
  // What is cut together with others is sent from the cutting list.
  const sheets = batch ? [] : (plan?.sheets ?? []);
  const id =
    inCutter?.id ??
    [...undecided, ...sheets, ...cuts].find((sheet) => sheet.id === chosen)?.id ??
    undecided[0]?.id ??
    sheets[0]?.id ??
    done[0]?.id;
  const planned = sheets.find((sheet) => sheet.id === id) ?? null;
  const frozen = cuts.find((sheet) => sheet.id === id) ?? null;
  const drawing = useFrozenDrawing(frozen);
  const drawnFrozen = useDrawnSheet(frozen, drawing);
  const drawn = planned ?? drawnFrozen;
  const program = planned && plan?.programs?.[sheets.indexOf(planned)];
  const stopped = plan?.findings.find((finding) => finding.severity === 'blocker');
  const wanted = new Set(plan?.toCut?.map((layer) => layer.fingerprint));
  return (
    <StationLayout
      title="Cut"
      docket={
        <>
          <Findings findings={findings} />
          {batch && <BatchNote batch={batch} />}
          <AtCutter
            cuts={atCutter}
            own={own}
            cutsKey={cutsKey}
            isBusy={act.isPending || inCutter !== null || elsewhere !== null}
          />
          {sheets.length > 0 && (
            <section aria-label="What is left to cut">
              <h3>To cut</h3>
              <Queue aria-label="Sheets to cut">
                {sheets.map((sheet) => (
                  <li key={sheet.id}>
                    <Entry
                      type="button"
                      aria-pressed={sheet.id === id}
                      disabled={inCutter !== null}
                      onClick={() => setChosen(sheet.id)}
                    >
                      {sheet.films.map((film, i) => (
                        <Swatch key={i} film={film} size={18} />
                      ))}
                      <span>
                        {sayFilms(sheet)}
                        {saySection(sheet)}
                        {sheet.copies.length > 1 &&
                          `, ${sheet.panels.length > 1 || sheet.films.length > 1 ? count(sheet.copies.length, 'layer') : sheet.perStrip > 1 ? count(sheet.copies.length, 'strip') : count(sheet.copies.length, 'copy', 'copies')}`}
                      </span>
                      <Figure>{sayDuration(plan?.programs?.[sheets.indexOf(sheet)]?.seconds ?? 0)}</Figure>
                    </Entry>
                  </li>
                ))}
              </Queue>
            </section>
          )}
          {!inCutter && planned && program && !stopped && (
            <LoadedQuestion
              key={planned.id}
              sheet={planned}
              action="Cut this sheet"
              hpglUrl={`/api/jobs/${job.id}/sheets/${planned.id}/hpgl`}
              busy={act.isPending || handle.saving !== 'saved' || elsewhere !== null}
              onCut={(loadedFilmIds) =>
                act.mutate({
                  path: `/api/jobs/${job.id}/sheets/${planned.id}/cut`,
                  json: { loadedFilmIds, revision: job.revision },
                })
              }
            />
          )}
          {stopped && sheets.length > 0 && (
            <Refused>Nothing is cut before this is put right: {stopped.message}</Refused>
          )}
          {act.error && <Refused role="alert">{act.error.message}</Refused>}
          {plan?.toCut && sheets.length === 0 && !batch && undecided.length === 0 && !inCutter && done.length > 0 && (
            <Small>Everything of this job is cut.</Small>
          )}
          {sheets.length === 0 && cuts.length === 0 && !batch && (
            <Small>There is nothing to cut yet. Sheets are made at the Sheets station.</Small>
          )}
          {done.length > 0 && (
            <section aria-label="What is cut">
              <h3>Already cut</h3>
              <Queue aria-label="Sheets that were cut">
                {done.map((sheet) => (
                  <li key={sheet.id}>
                    <Entry
                      type="button"
                      aria-pressed={sheet.id === id}
                      disabled={inCutter !== null}
                      onClick={() => setChosen(sheet.id)}
                    >
                      {filmsOfSheet(sheet).map((film) => (
                        <Swatch key={film.id} film={film} size={18} />
                      ))}
                      <span>
                        {sayFilmsOfSheet(sheet)}
                        {sheet.restOf
                          ? ', the rest'
                          : sheet.groups.length > 1 && `, ${countGroups(sheet.groups.length, sheet.groups)}`}
                        <Small as="span">{fate(sheet, { how, wanted, jobId: job.id })}</Small>
                      </span>
                      <Figure>{sayDateTime(sheet.runs.at(-1)!.startedAt)}</Figure>
                    </Entry>
                    {!inCutter && sheet.id === id && how.get(sheet.id) === 'good' && wanted.size > 0 && (
                      <NoLongerFits sheet={sheet} wanted={[{ jobId: job.id, fingerprints: [...wanted] }]} />
                    )}
                  </li>
                ))}
              </Queue>
            </section>
          )}
          <Rulings
            rulings={rulings.filter((ruling) => !planned || planned.films.some(({ id }) => ruling.id === `cut.${id}`))}
          />
          <CutterSwitches />
        </>
      }
    >
      <LightTable
        label={
          drawn
            ? `${frozen ? sayFilmsOfSheet(frozen) : planned ? sayFilms(planned) : drawn.film.name}${frozen ? ', as it was sent to the cutter' : ''}`
            : 'No sheet'
        }
        box={drawn ? sheetBox(drawn) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
        unit={unit}
        {...(drawn ? { feedFrom: drawn.usedLengthMm } : {})}
        caption={planned && program ? captionOf(planned, program) : frozen ? captionOfFrozen(frozen) : ''}
      >
        {drawn && (
          <SheetPicture sheet={drawn}>
            {frozen && drawing && (
              <LiveCut
                runs={drawing.runs}
                pairsDone={progress && inCutter ? progress.pairsDone : (farthestRun(frozen.runs)?.pairsDone ?? 0)}
                head={inCutter ? progress : null}
                usedLengthMm={frozen.usedLengthMm}
              />
            )}
          </SheetPicture>
        )}
      </LightTable>
    </StationLayout>
  );
}

/** What became of a sheet, and whether it still fits the job. */
function fate(
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

function captionOf(
  { edges }: SheetView,
  program: {
    readonly paths: number;
    readonly cutMm: number;
    readonly travelMm: number;
    readonly forceG: number;
    readonly speedMmS: number;
  },
): string {
  return `${program.paths} cuts, ${(program.cutMm / 1000).toFixed(1)} m with the knife down, ${(program.travelMm / 1000).toFixed(1)} m lifted · ${program.forceG} g at ${program.speedMmS} mm/s${edges ? ` · dotted: ${edges.sides} mm stay free` : ''}`;
}

function captionOfFrozen({ cutMm, forceG, speedMmS, groups, runs }: FrozenSheet): string {
  const revision = groups[0]?.revision;
  return `${(cutMm / 1000).toFixed(1)} m of cuts · ${forceG} g at ${speedMmS} mm/s${revision ? ` · as the job was at its change ${revision}` : ''}${runs.length > 1 ? ` · ${count(runs.length, 'time')} in the cutter` : ''}`;
}
