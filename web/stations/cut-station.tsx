import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { ENDED, type Run } from '../../core/records/index.js';
import { ask } from '../api/client.js';
import { Findings } from '../job/findings.js';
import { useJobContext, useSaid } from '../job/job-context.js';
import { Rulings } from '../job/rulings.js';
import { StationLayout } from '../job/station-layout.js';
import { LightTable } from '../light-table/light-table.js';
import { colour, radius, space, type } from '../tokens.js';
import { Small } from '../ui/plain-fields.js';
import { sayDuration } from '../ui/say.js';
import { Swatch } from '../ui/swatch.js';
import { CutterSwitches } from './cutter-switches.js';
import { LiveCut } from './live-cut.js';
import { LoadedQuestion } from './loaded-question.js';
import { RunPanel } from './run-panel.js';
import { SheetPicture, sheetBox } from './sheet-picture.js';
import { useRunProgress } from './use-run-progress.js';

/** The queue of sheets, the question what is loaded, and the cutter at work. */
export function CutStation() {
  const { plan, job, runs, unit } = useJobContext();
  const { findings, rulings } = useSaid('cut');
  const active = runs.find((run) => !ENDED.includes(run.state)) ?? null;
  const progress = useRunProgress(job.id, active);
  const [chosen, setChosen] = useState<number | null>(null);
  const sheets = plan?.sheets ?? [];
  const isCut = (i: number) => runs.some((run) => run.sheet === i + 1 && run.state === 'finished');
  const nextUp = Math.max(0, sheets.findIndex((_, i) => !isCut(i)));
  const at = active ? active.sheet - 1 : Math.min(chosen ?? nextUp, Math.max(0, sheets.length - 1));
  const sheet = sheets[at];
  const program = plan?.programs?.[at];
  const client = useQueryClient();
  const act = useMutation({
    mutationFn: ({ path, json }: { path: string; json?: unknown }) => ask<Run>(path, { method: 'POST', ...(json ? { json } : {}) }),
    onSettled: () => client.invalidateQueries({ queryKey: ['runs', job.id] }),
  });
  return (
    <StationLayout
      title="Cut"
      docket={
        <>
          <Findings findings={findings} />
          <Queue aria-label="Sheets to cut">
            {sheets.map((s, i) => (
              <li key={`${s.film.id}${s.id}`}>
                <Entry type="button" aria-pressed={i === at} disabled={active !== null && i !== at} onClick={() => setChosen(i)}>
                  <Swatch film={s.film} size={18} />
                  <span>
                    {i + 1} · {s.film.name}
                  </span>
                  <Figure>{active?.sheet === i + 1 ? 'in the cutter' : isCut(i) ? '✓ cut' : sayDuration(plan?.programs?.[i]?.seconds ?? 0)}</Figure>
                </Entry>
              </li>
            ))}
          </Queue>
          {active && sheet && <RunPanel run={active} progress={progress} onAct={(name) => act.mutate({ path: `/api/runs/${active.id}/${name}` })} />}
          {!active && sheet && program && (
            <LoadedQuestion
              key={at}
              sheet={sheet}
              again={isCut(at)}
              hpglUrl={`/api/jobs/${job.id}/sheets/${at + 1}/hpgl`}
              busy={act.isPending}
              onCut={(loadedFilmId) => act.mutate({ path: `/api/jobs/${job.id}/sheets/${at + 1}/cut`, json: { loadedFilmId } })}
            />
          )}
          {act.error && (
            <Refused role="alert">
              {act.error.message}
            </Refused>
          )}
          {sheets.length === 0 && <Small>There is nothing to cut yet: the sheets come from the station before.</Small>}
          <Rulings rulings={rulings.filter((ruling) => !sheet || ruling.id === `cut.${sheet.film.id}`)} />
          <CutterSwitches />
        </>
      }
    >
      <LightTable
        label={sheet ? `Sheet ${at + 1} in the cutter` : 'No sheet'}
        box={sheet ? sheetBox(sheet) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
        unit={unit}
        {...(sheet ? { feedFrom: sheet.usedLengthMm } : {})}
        caption={program ? `${program.paths} cuts, ${(program.cutMm / 1000).toFixed(1)} m with the knife down, ${(program.travelMm / 1000).toFixed(1)} m lifted · ${program.forceG} g at ${program.speedMmS} mm/s` : ''}
      >
        {sheet && (
          <SheetPicture sheet={sheet}>{program && progress && active && <LiveCut program={program} progress={progress} usedLengthMm={sheet.usedLengthMm} />}</SheetPicture>
        )}
      </LightTable>
    </StationLayout>
  );
}

const Queue = styled.ol`list-style: none; display: grid; gap: 2px;`;

const Entry = styled.button`
  display: flex; gap: ${space.s}; align-items: center; width: 100%; padding: 7px ${space.s}; border: 0; border-left: 3px solid transparent; background: none; text-align: left; font-size: ${type.small}; cursor: pointer;
  border-radius: 0 ${radius.m} ${radius.m} 0;
  &:hover { background: ${colour.faint}; }
  &[aria-pressed='true'] { border-left-color: ${colour.accent}; background: ${colour.accentWash}; font-weight: 600; }
  &:disabled { cursor: default; color: ${colour.quiet}; }
`;

const Figure = styled.span`margin-left: auto; font-variant-numeric: tabular-nums; font-weight: 400;`;

const Refused = styled.p`background: ${colour.badWash}; color: ${colour.bad}; padding: ${space.s} ${space.m}; border-radius: ${radius.m}; font-size: ${type.small};`;
