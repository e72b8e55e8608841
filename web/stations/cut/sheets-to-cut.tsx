import type { DragEvent } from 'react';
import styled from 'styled-components';
import type { Batch, BatchSheetView } from '../../../core/batch/index.js';
import { count, formatLength, sayDuration } from '../../../core/words/index.js';
import { sayCarried, sayFilms, saySection } from '../../batch/say-sheet.js';
import { colour, radius, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Small } from '../../ui/plain-fields.js';
import { Entry, Figure, Queue } from '../../ui/queue.js';
import { useSettings } from '../../ui/settings.js';
import { Swatches } from '../../ui/swatch.js';
import { LoadedQuestion } from './loaded-question.js';

interface SheetsToCutProps {
  readonly batch: Batch;
  /** In the order of cutting. */
  readonly sheets: readonly BatchSheetView[];
  /** The one that is shown. */
  readonly shownId: string | undefined;
  readonly onChoose: (sheet: BatchSheetView) => void;
  /** The cutter is at a sheet of the batch: none is chosen, and nothing is asked. */
  readonly isLocked: boolean;
  /** Something stops the job: nothing can be sent. */
  readonly isStopped: boolean;
  readonly isBusy: boolean;
  /** Puts the sheets into another order, by their keys. */
  readonly onOrder: (keys: readonly string[]) => void;
  readonly onCut: (sheet: BatchSheetView, loadedFilmIds: readonly string[]) => void;
}

/** What is dragged is a sheet of this list, by its number. */
const DRAGGED = 'application/x-lantern-sheet';

/** What is left to cut, in order: the sheet that is chosen can be moved in the order, and sent to the cutter. */
export function SheetsToCut({ sheets, shownId, onOrder, ...rest }: SheetsToCutProps) {
  if (sheets.length === 0) return null;
  const put = (from: number, to: number) => {
    const keys = sheets.map(({ key }) => key);
    keys.splice(to, 0, ...keys.splice(from, 1));
    onOrder(keys);
  };
  return (
    <section aria-label="What is left to cut">
      <h3>{sheets.length > 1 ? 'To cut, in this order' : 'To cut'}</h3>
      <Queue aria-label="Sheets to cut">
        {sheets.map((sheet, i) => (
          <SheetToCut
            key={sheet.id}
            {...rest}
            sheet={sheet}
            at={i}
            of={sheets.length}
            isShown={sheet.id === shownId}
            onPut={put}
          />
        ))}
      </Queue>
    </section>
  );
}

interface SheetToCutProps extends Omit<SheetsToCutProps, 'sheets' | 'shownId' | 'onOrder'> {
  readonly sheet: BatchSheetView;
  /** Its place in the order, from 0, of how many. */
  readonly at: number;
  readonly of: number;
  readonly isShown: boolean;
  readonly onPut: (from: number, to: number) => void;
}

function SheetToCut({ batch, sheet, at, of, isShown, isLocked, isStopped, isBusy, ...on }: SheetToCutProps) {
  const dragging = {
    draggable: of > 1,
    onDragStart: (event: DragEvent) => event.dataTransfer.setData(DRAGGED, String(at)),
    onDragOver: (event: DragEvent) => event.dataTransfer.types.includes(DRAGGED) && event.preventDefault(),
    onDrop: (event: DragEvent) => on.onPut(Number(event.dataTransfer.getData(DRAGGED)), at),
  };
  return (
    <li>
      <Entry type="button" aria-pressed={isShown} disabled={isLocked} onClick={() => on.onChoose(sheet)} {...dragging}>
        {of > 1 && <Rank>{at + 1}</Rank>}
        <Swatches films={sheet.films} />
        <span>
          {sayFilms(sheet)}
          {saySection(sheet)}
          <Small as="span">
            {sayCarried(sheet, batch)}
            {sheet.zones && sheet.zones.length > 1 ? `, ${count(sheet.zones.length, 'piece')} on the mat` : ''},{' '}
            {sheet.forceG} g<Mirrored sheet={sheet} />
          </Small>
        </span>
        <Figure>{sayDuration(sheet.seconds)}</Figure>
      </Entry>
      {isShown && !isLocked && (
        <>
          {of > 1 && <Moves at={at} of={of} isBusy={isBusy} onPut={on.onPut} />}
          <LongFeed sheet={sheet} longFeedMm={batch.wish.longFeedMm} />
          {!isStopped && (
            <LoadedQuestion
              sheet={sheet}
              action="Cut this sheet"
              hpglUrl={`/api/batches/${batch.id}/sheets/${sheet.id}/hpgl`}
              busy={isBusy}
              onCut={(loadedFilmIds) => on.onCut(sheet, loadedFilmIds)}
            />
          )}
        </>
      )}
    </li>
  );
}

function Mirrored({ sheet: { carries } }: { readonly sheet: BatchSheetView }) {
  if (!carries.some(({ isMirrored }) => isMirrored)) return null;
  return (
    <>
      , <Loud>{carries.every(({ isMirrored }) => isMirrored) ? 'cut mirrored' : 'partly cut mirrored'}</Loud>
    </>
  );
}

function Moves({ at, of, isBusy, onPut }: Pick<SheetToCutProps, 'at' | 'of' | 'isBusy' | 'onPut'>) {
  return (
    <Row>
      <WordButton
        isDisabled={at === 0 || isBusy}
        aria-label={`Cut earlier: sheet ${at + 1}`}
        onPress={() => onPut(at, at - 1)}
      >
        Cut earlier
      </WordButton>
      <WordButton
        isDisabled={at === of - 1 || isBusy}
        aria-label={`Cut later: sheet ${at + 1}`}
        onPress={() => onPut(at, at + 1)}
      >
        Cut later
      </WordButton>
    </Row>
  );
}

/** A roll that is fed so far in one pass may drift. */
function LongFeed({
  sheet: { piece, usedLengthMm },
  longFeedMm,
}: {
  readonly sheet: BatchSheetView;
  readonly longFeedMm: number;
}) {
  const { unit } = useSettings();
  if (piece?.kind !== 'roll' || usedLengthMm <= longFeedMm) return null;
  return (
    <Warned>
      This sheet feeds {formatLength(usedLengthMm, unit)} {unit} of the roll. So far it may drift, and it cannot be cut
      in shorter sections. Pull the slack off the roll, then feed the whole length out and back once before you cut.
    </Warned>
  );
}

const Row = styled.div`
  display: flex;
  gap: ${space.m};
  padding: 0 ${space.s} ${space.xs};
`;
const Loud = styled.b`
  color: ${colour.bad};
`;
const Warned = styled.p`
  font-size: ${type.small};
  padding: ${space.s} ${space.m};
  margin: ${space.xs} 0;
  background: ${colour.warnWash};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
`;
const Rank = styled.b`
  min-width: 1.2em;
  font-variant-numeric: tabular-nums;
`;
