import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import type { Batch, BatchSheetView, LaidCopy } from '../../core/batch/index.js';
import { ask } from '../api/client.js';
import { titleIn } from './say-sheet.js';
import { useBatchesAnew } from './use-batches.js';
import type { ByHand } from './batch-sheet-picture.js';
import type { Film } from '../../core/shop/index.js';
import { colour, space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { Picker } from '../ui/picker.js';
import { useNotify } from '../ui/notices.js';

export interface Laying {
  readonly isOn: boolean;
  readonly setOn: (on: boolean) => void;
  readonly byHand: ByHand | null;
  readonly chosen: number | null;
  readonly choose: (shape: number | null) => void;
  readonly turn: (shape: number, turn: 90 | 180) => void;
  readonly letGo: (copies: readonly LaidCopy[]) => void;
  readonly isBusy: boolean;
}

/** Which copy it is, wherever it lies. */
function idOf({ jobId, fingerprint, copy }: Pick<LaidCopy, 'jobId' | 'fingerprint' | 'copy'>): string {
  return `${jobId} ${fingerprint} ${copy}`;
}

/** What is looked at while copies are laid by hand. */
interface Looked {
  readonly sheet: BatchSheetView | null;
  readonly films: readonly Film[];
  /** The sheets are being laid out again, so what is looked at is older than the batch. */
  readonly isLayingOut: boolean;
}

/** Laying copies of a sheet by hand: the server says where each comes to lie, and lays the rest round it. */
export function useLayingByHand(
  batch: Batch,
  { sheet, films, isLayingOut }: Looked,
  onChange: (pins: Batch['wish']['pins']) => void,
): Laying {
  const [isOn, setOn] = useState(false);
  const [chosenCopy, setChosenCopy] = useState<string | null>(null);
  const choose = (shape: number | null) => setChosenCopy(shape === null ? null : idOf(sheet!.laid[shape]!));
  // Its number on the sheet is another once the rest is laid anew.
  const chosen = sheet && chosenCopy !== null ? sheet.laid.findIndex((copy) => idOf(copy) === chosenCopy) : -1;
  const notify = useNotify();
  const move = useMutation({
    mutationFn: (json: { group: number; dxMm: number; dyMm: number; turn: number }) =>
      ask<Batch>(`/api/batches/${batch.id}/pins`, {
        method: 'POST',
        json: { revision: batch.revision, sheetId: sheet!.id, ...json },
      }),
    onError: (error) => notify(error.message),
    onSettled: useBatchesAnew(),
  });
  /** Moves a copy; one that cannot be moved now says why. */
  const moveCopy = (json: Parameters<typeof move.mutate>[0]) => {
    if (move.isPending) notify('The copy that you moved before is still being laid. Move this one once it lies.');
    else if (isLayingOut) notify('The sheets are still being laid out. Move it once they are there.');
    else move.mutate(json);
  };
  const nameOf = ({ jobId, filmId, copy, perStrip }: LaidCopy) =>
    `${films.find(({ id }) => id === filmId)?.name ?? filmId}${titleIn(batch, jobId) && ` of ${titleIn(batch, jobId)}`}, ${perStrip > 1 ? 'strip' : 'copy'} ${copy + 1}`;
  const byHand: ByHand | null =
    isOn && sheet
      ? {
          nameOf,
          onMove: (at, dx, dy) => (
            choose(at),
            moveCopy({ group: sheet.laid[at]!.group, dxMm: dx, dyMm: -dy, turn: 0 })
          ),
        }
      : null;
  return {
    isOn,
    setOn,
    byHand,
    chosen: chosen < 0 ? null : chosen,
    choose,
    turn: (at, turn) => moveCopy({ group: sheet!.laid[at]!.group, dxMm: 0, dyMm: 0, turn }),
    letGo: (copies) => onChange(batch.wish.pins.filter((pin) => !copies.some((copy) => idOf(copy) === idOf(pin)))),
    isBusy: move.isPending,
  };
}

/** Above the picture: laying by hand on and off, and what can be done with a copy. */
export function LayingBar({ laying, sheet }: { readonly laying: Laying; readonly sheet: BatchSheetView }) {
  const { isOn, setOn, byHand, chosen, choose, turn, letGo, isBusy } = laying;
  const pinned = sheet.laid.filter(({ isPinned }) => isPinned);
  const copy = chosen === null ? null : sheet.laid[chosen]!;
  return (
    <Bar role="group" aria-label="Laying by hand">
      <Button aria-pressed={isOn} onPress={() => setOn(!isOn)}>
        Lay by hand
      </Button>
      {byHand && (
        <>
          <Picker
            label="Copy"
            value={chosen === null ? '' : String(chosen)}
            placeholder="choose a copy …"
            options={sheet.laid.map((one, i) => ({
              id: String(i),
              text: byHand.nameOf(one),
              ...(one.isPinned ? { hint: 'laid by hand' } : {}),
            }))}
            onChange={(id) => choose(Number(id))}
          />
          {copy && (
            <>
              <WordButton isDisabled={isBusy} onPress={() => turn(chosen!, 90)}>
                Turn by a quarter
              </WordButton>
              <WordButton isDisabled={isBusy} onPress={() => turn(chosen!, 180)}>
                Turn by half
              </WordButton>
              {copy.isPinned && <WordButton onPress={() => letGo([copy])}>Let it go</WordButton>}
            </>
          )}
        </>
      )}
      {pinned.length > 0 && <WordButton onPress={() => letGo(pinned)}>Let all go that was laid by hand</WordButton>}
      {isBusy && <span role="status">Laying it …</span>}
    </Bar>
  );
}

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.m};
  font-size: ${type.small};
  button[aria-pressed='true'] {
    border-color: ${colour.accent};
    background: ${colour.accentWash};
    font-weight: 650;
  }
`;
