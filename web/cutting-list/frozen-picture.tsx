import { farthestRun, type FrozenSheet, type RunProgress } from '../../core/stations/cut/index.js';
import type { LengthUnit } from '../../core/words/index.js';
import { useDrawnSheet, useFrozenDrawing } from '../job/use-frozen-drawing.js';
import { LightTable } from '../light-table/light-table.js';
import { SheetPicture, sheetBox } from '../light-table/sheet-picture.js';
import { LiveCut } from '../stations/cut/live-cut.js';

/** A sheet as it was sent to the cutter, with what the knife has driven of it. */
export function FrozenPicture({
  sheet,
  name,
  progress,
  unit,
}: {
  readonly sheet: FrozenSheet;
  readonly name: string;
  readonly progress: RunProgress | null;
  readonly unit: LengthUnit;
}) {
  const drawing = useFrozenDrawing(sheet);
  const drawn = useDrawnSheet(sheet, drawing);
  return (
    <LightTable
      label={`${name}, as it was sent to the cutter`}
      box={drawn ? sheetBox(drawn) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
      unit={unit}
      {...(drawn ? { feedFrom: drawn.usedLengthMm } : {})}
      caption={`${(sheet.cutMm / 1000).toFixed(1)} m of cuts · ${sheet.forceG} g at ${sheet.speedMmS} mm/s`}
    >
      {drawn && (
        <SheetPicture sheet={drawn}>
          {drawing && (
            <LiveCut
              runs={drawing.runs}
              pairsDone={progress?.pairsDone ?? farthestRun(sheet.runs)?.pairsDone ?? 0}
              head={progress}
              usedLengthMm={sheet.usedLengthMm}
            />
          )}
        </SheetPicture>
      )}
    </LightTable>
  );
}
