import { SHAPE_CHOICES } from '../../../core/stations/prepare/index.js';
import type { PanelView } from '../../../core/plan/page/plan-view.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { ByEye } from './by-eye.js';
import { Small } from '../../ui/plain-fields.js';

/** The change that puts one mark somewhere, on all layers at once; the others stay where they are. */
export function useMarksByHand(panel: PanelView | undefined): (index: number, xMm: number, yMm: number) => void {
  const { handle } = useJobContext();
  return (index, xMm, yMm) =>
    handle.change({
      preparation: {
        marksAt: (panel?.marksAt ?? []).map((mark, i) =>
          i === index ? { xMm, yMm } : { xMm: rounded(mark.xMm), yMm: rounded(mark.yMm) },
        ),
      },
    });
}

/** Farther off no mark stands, mm. */
const FARTHEST = 100_000;
const rounded = (mm: number) => Math.round(mm * 100) / 100;

/** What marks look like, how large they are, and where each of them stands. */
export function MarksByHand({
  panel,
  sizeMm,
  canMove,
}: {
  readonly panel: PanelView;
  readonly sizeMm: number;
  readonly canMove: boolean;
}) {
  const { handle, recipe, unit } = useJobContext();
  const { markShape, markSizeMm, marksAt } = recipe.preparation;
  const move = useMarksByHand(panel);
  return (
    <section aria-label="Marks">
      <h3>Marks</h3>
      <Small as="div">
        Shape{' '}
        <Picker
          label="Shape of the marks"
          value={markShape}
          options={SHAPE_CHOICES.map(([id, text]) => ({ id, text }))}
          onChange={(shape) => handle.change({ preparation: { markShape: shape as typeof markShape } })}
        />
        ,{' '}
        <FigureField
          label="Size of the marks"
          mm={markSizeMm ?? sizeMm}
          unit={unit}
          min={2}
          max={50}
          stepMm={0.5}
          onChange={(mm) => handle.change({ preparation: { markSizeMm: mm } })}
        />{' '}
        across
        {markSizeMm !== null && (
          <>
            {' '}
            <WordButton onPress={() => handle.change({ preparation: { markSizeMm: null } })}>
              As the films want it
            </WordButton>
          </>
        )}
        .
      </Small>
      {canMove &&
        panel.marksAt.map(({ shape, xMm, yMm }, i) => (
          <Small as="div" key={i}>
            {i + 1}. {shape}:{' '}
            <FigureField
              label={`Mark ${i + 1}, from the left`}
              mm={xMm}
              unit={unit}
              min={-FARTHEST}
              max={FARTHEST}
              stepMm={1}
              onChange={(x) => move(i, x, yMm)}
            />{' '}
            across,{' '}
            <FigureField
              label={`Mark ${i + 1}, from the top`}
              mm={yMm}
              unit={unit}
              min={-FARTHEST}
              max={FARTHEST}
              stepMm={1}
              onChange={(y) => move(i, xMm, y)}
            />{' '}
            down
          </Small>
        ))}
      {canMove && (
        <Small>
          Drag them on the light table, or change the figures. They move on all layers at once, and are taken off at the
          end.{' '}
          {marksAt.length > 0 && (
            <WordButton onPress={() => handle.change({ preparation: { marksAt: [] } })}>Put the marks back</WordButton>
          )}
        </Small>
      )}
      <ByEye />
    </section>
  );
}
