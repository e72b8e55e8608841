import { useState } from 'react';
import styled from 'styled-components';
import { count } from '../../../core/words/index.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Small } from '../../ui/plain-fields.js';
import { sayPanels } from '../../ui/say-panels.js';
import { PickList } from '../../batch/pick-list.js';
import { PrintedLists } from '../../batch/printed-lists.js';
import { sayFilms, saySection } from '../../batch/say-sheet.js';
import { useBatchOf } from '../../batch/use-batches.js';
import { SheetsInBatch } from './in-batch.js';
import { SheetPicture, sheetBox } from '../../light-table/sheet-picture.js';

/** A strip begins with so many copies side by side, where a run is too short for the app to propose one. */
const FIRST_STRIP = 4;

/** Which pieces of film carry which layers, and the list to fetch them by: of the job alone, or of the batch that it is cut in. */
export function SheetsStation() {
  const { job } = useJobContext();
  const batch = useBatchOf(job.id);
  return batch ? <SheetsInBatch batch={batch} /> : <SheetsAlone />;
}

function SheetsAlone() {
  const { plan, recipe, handle, unit } = useJobContext();
  const { findings, rulings } = useSaid('sheets');
  const [chosen, setChosen] = useState('0');
  const sheets = plan?.sheets ?? [];
  const [taken, wanted] = [
    plan?.toCut?.reduce((sum, layer) => sum + layer.taken, 0) ?? 0,
    plan?.toCut?.reduce((sum, layer) => sum + layer.copies, 0) ?? 0,
  ];
  const { copies, spacingMm } = recipe.sheets;
  // Where a run is long enough the app proposes strips itself.
  const canGang =
    copies > 1 &&
    !recipe.preparation.gang &&
    plan?.prepare?.panels.length === 1 &&
    !findings.some(({ code }) => code === 'gang-saves');
  const sheet = sheets[Number(chosen)] ?? sheets[0];
  return (
    <StationLayout
      title="Sheets"
      docket={
        <>
          <Findings findings={findings} />
          <Said>
            Make{' '}
            <NumberField
              label="Copies"
              value={recipe.sheets.copies}
              min={1}
              max={500}
              onChange={(copies) => handle.change({ sheets: { copies } })}
            />{' '}
            of it,{' '}
            <FigureField
              label="Spacing on the sheet"
              mm={recipe.sheets.spacingMm}
              unit={unit}
              max={100}
              stepMm={1}
              onChange={(spacingMm) => handle.change({ sheets: { spacingMm } })}
            />{' '}
            apart on the film.{' '}
            {canGang && (
              <WordButton
                onPress={() =>
                  handle.change({
                    preparation: {
                      gang: { across: Math.min(copies, FIRST_STRIP), down: 1, rows: 'straight', gapMm: spacingMm },
                    },
                  })
                }
              >
                Align them in strips
              </WordButton>
            )}
          </Said>
          {taken > 0 && (
            <Small>
              {taken === wanted
                ? 'All layers are cut or in the cutter. Nothing is left to be laid out.'
                : `${taken} of ${count(wanted, 'layer')} ${taken === 1 ? 'is' : 'are'} cut or in the cutter (each copy has one for each film). What is laid out here is what is left.`}
            </Small>
          )}
          {sheets.length > 0 && <PickList sheets={sheets} unit={unit} />}
          {plan?.density !== undefined && sheets.length > 0 && (
            <Small>{Math.round(plan.density * 100)} % of the film taken stays on the job.</Small>
          )}
          <Rulings rulings={rulings} />
        </>
      }
    >
      {sheets.length > 1 && (
        <Choice
          label="Sheet"
          value={String(sheets.indexOf(sheet!))}
          options={sheets.map(
            (s, i) =>
              [
                String(i),
                `${i + 1} · ${sayFilms(s)}${saySection(s)}${sayPanels(s.panels) && `, ${sayPanels(s.panels)}`}`,
              ] as const,
          )}
          onChange={setChosen}
        />
      )}
      <LightTable
        label={
          sheet
            ? `${sheet.zones ? `Mat with ${count(sheet.zones.length, 'piece')}` : 'Sheet'}: ${sayFilms(sheet)}`
            : 'No sheet yet'
        }
        box={sheet ? sheetBox(sheet) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
        unit={unit}
        {...(sheet ? { feedFrom: sheet.usedLengthMm } : {})}
        caption={
          sheet
            ? `fed upwards · 0: counted from here · ${sheet.edges ? 'dotted: stays free · ' : ''}dashed: border · hatched: left over`
            : ''
        }
      >
        {sheet && <SheetPicture sheet={sheet} />}
      </LightTable>
      <PrintedLists
        title={recipe.title}
        lead="Sheets"
        sheets={sheets}
        unit={unit}
        settingsOf={(i) => plan?.programs?.[i]}
      />
    </StationLayout>
  );
}

const Said = styled.p`
  font-size: ${type.body};
  line-height: 2;
  padding-bottom: ${space.hair};
`;
