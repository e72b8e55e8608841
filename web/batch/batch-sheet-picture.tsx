import type { BatchSheetView } from '../../core/batch/index.js';
import type { LengthUnit } from '../../core/words/index.js';
import { LightTable } from '../light-table/light-table.js';
import { SheetPicture, sheetBox } from '../light-table/sheet-picture.js';
import { sayFilms } from './say-sheet.js';

interface BatchSheetPictureProps {
  readonly sheet: BatchSheetView | null;
  readonly unit: LengthUnit;
  /** The job that is looked at: what is of others steps back. */
  readonly jobId: string | null;
}

/** A sheet of a batch on the light table. */
export function BatchSheetPicture({ sheet, unit, jobId }: BatchSheetPictureProps) {
  const isBack = (shape: number) => jobId !== null && sheet!.laid[shape]!.jobId !== jobId;
  return (
    <LightTable
      label={sheet ? `${sheet.zones ? `Mat with ${sheet.zones.length} blanks` : 'Sheet'}: ${sayFilms(sheet)}` : 'No sheet yet'}
      box={sheet ? sheetBox(sheet) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
      unit={unit}
      {...(sheet ? { feedFrom: sheet.usedLengthMm } : {})}
      caption={sheet ? `fed upwards · 0: counted from here · dashed: border · hatched: left over${jobId ? ' · pale: other jobs' : ''}` : ''}
    >
      {sheet && <SheetPicture sheet={sheet} isBack={isBack} />}
    </LightTable>
  );
}
