import { useState } from 'react';
import type { BatchSheetView, LaidCopy } from '../../core/batch/index.js';
import { count, type LengthUnit } from '../../core/words/index.js';
import { LightTable } from '../light-table/light-table.js';
import { PointHandles } from '../light-table/point-handles.js';
import { SheetPicture, sheetBox } from '../light-table/sheet-picture.js';
import { sayFilms } from './say-sheet.js';

/** Laying copies by hand: what each is called, and what happens when one is let go somewhere else. */
export interface ByHand {
  readonly nameOf: (copy: LaidCopy) => string;
  /** Moved by so much, mm, y down. */
  readonly onMove: (shape: number, dx: number, dy: number) => void;
}

interface BatchSheetPictureProps {
  readonly sheet: BatchSheetView | null;
  readonly unit: LengthUnit;
  /** The job that is looked at: what is of others steps back. */
  readonly jobId: string | null;
  readonly byHand?: ByHand | null;
  /** The best that a search has found so far. */
  readonly isSoFar?: boolean;
}

/** A sheet of a batch on the light table. */
export function BatchSheetPicture({ sheet, unit, jobId, byHand, isSoFar = false }: BatchSheetPictureProps) {
  const [held, setHeld] = useState<{ readonly id: string; readonly x: number; readonly y: number } | null>(null);
  const isBack = (shape: number) => jobId !== null && sheet!.laid[shape]?.jobId !== jobId;
  const points =
    sheet && byHand
      ? sheet.laid.map((copy, shape) => ({
          id: String(shape),
          label: byHand.nameOf(copy),
          xMm: copy.xMm,
          yMm: copy.yMm,
        }))
      : [];
  return (
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
          ? `${isSoFar ? 'the best found so far · ' : ''}${byHand ? 'drag a copy by its point' : 'fed upwards · 0: counted from here · dashed: border · hatched: left over'}${jobId ? ' · pale: other jobs' : ''}${sheet.laid.some(({ isPinned }) => isPinned) ? ' · pin: laid by hand' : ''}`
          : ''
      }
      {...(sheet && byHand
        ? {
            handles: (view) => (
              <PointHandles
                points={points}
                view={view}
                onHold={setHeld}
                onMove={(id, x, y) =>
                  byHand.onMove(Number(id), x - sheet.laid[Number(id)]!.xMm, y - sheet.laid[Number(id)]!.yMm)
                }
              />
            ),
          }
        : {})}
    >
      {sheet && (
        <SheetPicture sheet={sheet} isBack={isBack} heldBy={(shape) => (held?.id === String(shape) ? held : null)}>
          {sheet.laid.map((copy, i) => (copy.isPinned ? <Pin key={i} xMm={copy.xMm} yMm={copy.yMm} /> : null))}
        </SheetPicture>
      )}
    </LightTable>
  );
}

/** Here something was laid by hand. */
function Pin({ xMm, yMm }: { readonly xMm: number; readonly yMm: number }) {
  return (
    <g transform={`translate(${xMm} ${yMm})`} fill="#182325" stroke="#ffffff" strokeWidth="1">
      <path d="M-0.6 0L0 6L0.6 0Z" vectorEffect="non-scaling-stroke" />
      <circle r="2.2" cy="-1.5" vectorEffect="non-scaling-stroke" />
    </g>
  );
}
