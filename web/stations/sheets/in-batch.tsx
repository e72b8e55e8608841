import { useState } from 'react';
import styled from 'styled-components';
import type { Batch } from '../../../core/batch/index.js';
import { BatchNote } from '../../batch/batch-note.js';
import { BatchProgress } from '../../batch/batch-progress.js';
import { BatchSheetPicture } from '../../batch/batch-sheet-picture.js';
import { sayCarried, sayFilms } from '../../batch/say-sheet.js';
import { useBatchPlan } from '../../batch/use-batches.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Findings } from '../../job/findings.js';
import { StationLayout } from '../../job/station-layout.js';
import { space, type } from '../../tokens.js';
import { Choice } from '../../ui/choice.js';
import { NumberField } from '../../ui/number-field.js';
import { Small } from '../../ui/plain-fields.js';

/** The sheets of a job that is cut together with others: those of the batch that carry it. */
export function SheetsInBatch({ batch }: { readonly batch: Batch }) {
  const { job, recipe, handle, unit } = useJobContext();
  const { findings } = useSaid('sheets');
  const state = useBatchPlan(batch.id);
  const [chosen, setChosen] = useState<string | null>(null);
  const all = state.plan?.sheets ?? [];
  const own = all.filter(({ carries }) => carries.some(({ jobId }) => jobId === job.id));
  const sheet = own.find(({ id }) => id === chosen) ?? own[0] ?? null;
  const stopped = state.plan?.stopped.find(({ jobId }) => jobId === job.id);
  return (
    <StationLayout
      title="Sheets"
      docket={
        <>
          <BatchNote batch={batch} />
          <BatchProgress state={state} />
          {stopped && <Small>Nothing of this job is laid out: {stopped.why}</Small>}
          <Findings findings={findings.filter(({ severity }) => severity !== 'blocker')} />
          <Said>
            Make{' '}
            <NumberField
              label="Copies"
              value={recipe.sheets.copies}
              min={1}
              max={500}
              onChange={(copies) => handle.change({ sheets: { copies } })}
            />{' '}
            of it.
          </Said>
          {state.plan && !stopped && (
            <section aria-label="Sheets that carry this job">
              <h3>{own.length === 0 ? 'Nothing of this job is left to be cut' : 'Sheets that carry this job'}</h3>
              {own.map((one) => (
                <Small key={one.id}>
                  {all.indexOf(one) + 1} · {sayFilms(one)}: {sayCarried(one, batch)}
                </Small>
              ))}
            </section>
          )}
        </>
      }
    >
      {own.length > 1 && (
        <Choice
          label="Sheet"
          value={sheet!.id}
          options={own.map((one) => [one.id, `${all.indexOf(one) + 1} · ${sayFilms(one)}`] as const)}
          onChange={setChosen}
        />
      )}
      <BatchSheetPicture sheet={sheet} unit={unit} jobId={job.id} />
    </StationLayout>
  );
}

const Said = styled.p`
  font-size: ${type.body};
  line-height: 2;
  padding-bottom: ${space.hair};
`;
