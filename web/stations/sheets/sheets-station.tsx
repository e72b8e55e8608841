import { useState } from 'react';
import styled from 'styled-components';
import type { Batch, BatchSheetView, BetterView } from '../../../core/batch/index.js';
import type { JobFinding } from '../../../core/recipe/index.js';
import { count } from '../../../core/words/index.js';
import { BatchProgress } from '../../batch/batch-progress.js';
import { BatchSheetPicture } from '../../batch/batch-sheet-picture.js';
import { HowItIsLaidOut, WhatToFetch } from '../../batch/how-it-is-laid-out.js';
import { LayingBar, useLayingByHand } from '../../batch/laid-by-hand.js';
import { Noticed } from '../../batch/noticed.js';
import { PrintedLists } from '../../batch/printed-lists.js';
import { sayFilms, saySection } from '../../batch/say-sheet.js';
import { sheetFound, useBatchActs, useBatchOf, useBatchPlan, useLaidOutAgain } from '../../batch/use-batches.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Small } from '../../ui/plain-fields.js';
import { sayPanels } from '../../ui/say-panels.js';
import { SheetsInBatch } from './in-batch.js';

/** A strip begins with so many copies side by side, where a run is too short for the app to propose one. */
const FIRST_STRIP = 4;

/** Which pieces of film carry which layers, and the list to fetch them by: of the job alone, or of the batch that it is cut in. */
export function SheetsStation() {
  const { job } = useJobContext();
  const batch = useBatchOf(job.id);
  if (!batch) return <Small role="status">Fetching its batch …</Small>;
  return batch.number === null ? <SheetsAlone batch={batch} /> : <SheetsInBatch batch={batch} />;
}

function SheetsAlone({ batch }: { readonly batch: Batch }) {
  const { plan, recipe, unit, shop } = useJobContext();
  const { findings, rulings } = useSaid('sheets');
  const state = useBatchPlan(batch.id);
  useLaidOutAgain(batch.id, plan?.toCut);
  const acts = useBatchActs();
  const [chosen, setChosen] = useState<string | null>(null);
  const [better, setBetter] = useState<BetterView | null>(null);
  const sheets = state.plan?.sheets ?? [];
  const sheet = sheets.find(({ key }) => key === chosen) ?? sheets[0] ?? null;
  const found = sheetFound(better, sheet?.key);
  const wish = (change: Partial<Batch['wish']>) => acts.change(batch, { wish: { ...batch.wish, ...change } });
  const laying = useLayingByHand(batch, { sheet, films: shop.films, isLayingOut: state.done !== null }, (pins) =>
    wish({ pins }),
  );
  return (
    <StationLayout
      title="Sheets"
      docket={
        <>
          <BatchProgress state={state} />
          <Findings findings={findings} />
          {state.plan && <Noticed batch={batch} plan={state.plan} onChange={wish} />}
          <Copies findings={findings} />
          <AlreadyCut />
          <WhatToFetch batch={batch} state={state} />
          {sheets.length > 0 && (
            <Small>
              {Math.round((state.plan!.keptMm2 / state.plan!.takenMm2) * 100)} % of the film taken stays on the job.
            </Small>
          )}
          <Rulings rulings={rulings} />
          <HowItIsLaidOut
            batch={batch}
            state={state}
            isBusy={acts.isBusy || state.done !== null}
            onBetter={setBetter}
          />
        </>
      }
    >
      {sheets.length > 1 && (
        <Choice
          label="Sheet"
          value={sheet!.key}
          options={sheets.map((one, i) => [one.key, nameIn(one, i)] as const)}
          onChange={setChosen}
        />
      )}
      {sheet && <LayingBar laying={laying} sheet={sheet} />}
      <BatchSheetPicture
        sheet={found ?? sheet}
        unit={unit}
        jobId={null}
        byHand={found ? null : laying.byHand}
        isSoFar={found !== null}
      />
      <PrintedLists title={recipe.title} lead="Sheets" sheets={sheets} unit={unit} />
    </StationLayout>
  );
}

function nameIn(sheet: BatchSheetView, at: number): string {
  const panels = sayPanels(sheet.panels);
  return `${at + 1} · ${sayFilms(sheet)}${saySection(sheet)}${panels && `, ${panels}`}`;
}

/** How many copies are made, how far apart, and whether they are aligned in strips. */
function Copies({ findings }: { readonly findings: readonly JobFinding[] }) {
  const { plan, recipe, handle, unit } = useJobContext();
  const { copies, spacingMm } = recipe.sheets;
  // Where a run is long enough the app proposes strips itself.
  const canGang =
    copies > 1 &&
    !recipe.preparation.gang &&
    plan?.prepare?.panels.length === 1 &&
    !findings.some(({ code }) => code === 'gang-saves');
  const inStrips = { across: Math.min(copies, FIRST_STRIP), down: 1, rows: 'straight', gapMm: spacingMm } as const;
  return (
    <Said>
      Make{' '}
      <NumberField
        label="Copies"
        value={copies}
        min={1}
        max={500}
        onChange={(more) => handle.change({ sheets: { copies: more } })}
      />{' '}
      of it,{' '}
      <FigureField
        label="Spacing on the sheet"
        mm={spacingMm}
        unit={unit}
        max={100}
        stepMm={1}
        onChange={(apartMm) => handle.change({ sheets: { spacingMm: apartMm } })}
      />{' '}
      apart on the film.{' '}
      {canGang && (
        <WordButton onPress={() => handle.change({ preparation: { gang: inStrips } })}>Align them in strips</WordButton>
      )}
    </Said>
  );
}

/** How much of the job is cut already, where anything is. */
function AlreadyCut() {
  const { plan } = useJobContext();
  const taken = plan?.toCut?.reduce((sum, layer) => sum + layer.taken, 0) ?? 0;
  const wanted = plan?.toCut?.reduce((sum, layer) => sum + layer.copies, 0) ?? 0;
  if (taken === 0) return null;
  return (
    <Small>
      {taken === wanted
        ? 'All layers are cut or in the cutter. Nothing is left to be laid out.'
        : `${taken} of ${count(wanted, 'layer')} ${taken === 1 ? 'is' : 'are'} cut or in the cutter (each copy has one for each film). What is laid out here is what is left.`}
    </Small>
  );
}

const Said = styled.p`
  font-size: ${type.body};
  line-height: 2;
  padding-bottom: ${space.hair};
`;
