import { farthestRun, type FrozenSheet, type RunProgress } from '../../../core/stations/cut/index.js';
import { count, type LengthUnit } from '../../../core/words/index.js';
import { useDrawnSheet, useFrozenDrawing } from '../../job/use-frozen-drawing.js';
import { LightTable } from '../../light-table/light-table.js';
import { SheetPicture, sheetBox } from '../../light-table/sheet-picture.js';
import { LiveCut } from './live-cut.js';

/** A sheet as it was sent to the cutter, with what the knife has driven of it. */
export function FrozenPicture({
  sheet,
  name,
  progress,
  unit,
  caption,
}: {
  readonly sheet: FrozenSheet;
  readonly name: string;
  readonly progress: RunProgress | null;
  readonly unit: LengthUnit;
  readonly caption: string;
}) {
  const drawing = useFrozenDrawing(sheet);
  const drawn = useDrawnSheet(sheet, drawing);
  return (
    <LightTable
      label={`${name}, as it was sent to the cutter`}
      box={drawn ? sheetBox(drawn) : { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
      unit={unit}
      {...(drawn ? { feedFrom: drawn.usedLengthMm } : {})}
      caption={caption}
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

/** What a sheet was cut with, and as what of its job. */
export function captionOfFrozen({ cutMm, forceG, speedMmS, groups, runs }: FrozenSheet): string {
  const revision = groups[0]?.revision;
  return `${(cutMm / 1000).toFixed(1)} m of cuts · ${forceG} g at ${speedMmS} mm/s${revision ? ` · as the job was at its change ${revision}` : ''}${runs.length > 1 ? ` · ${count(runs.length, 'time')} in the cutter` : ''}`;
}
