import type { ReactNode } from 'react';
import { filmsOfSheet, sayFilmsOfSheet, type FrozenSheet } from '../../../core/stations/cut/index.js';
import { JudgeWholeSheet } from '../../batch/judge-whole-sheet.js';
import { NoLongerFits, type WantedOfJob } from '../../batch/no-longer-fits.js';
import { Small } from '../../ui/plain-fields.js';
import { Entry, Figure, Queue } from '../../ui/queue.js';
import { sayDateTime } from '../../ui/say.js';
import { Swatches } from '../../ui/swatch.js';
import type { Cuts } from './use-cuts.js';

interface SheetsCutProps {
  readonly cuts: Cuts;
  readonly shownId: string | undefined;
  readonly onChoose: (sheet: FrozenSheet) => void;
  /** What became of a sheet. */
  readonly fateOf: (sheet: FrozenSheet) => ReactNode;
  /** What is to be cut of the jobs today. */
  readonly wanted: readonly WantedOfJob[];
}

/** A frozen sheet by its films. */
export function nameOfSheet(sheet: FrozenSheet): string {
  return `${sayFilmsOfSheet(sheet)}${sheet.restOf ? ', the rest' : ''}`;
}

/** What is cut, the newest first: what became of each sheet, and whether it still fits. */
export function SheetsCut({ cuts: { done, how, inCutter }, shownId, onChoose, fateOf, wanted }: SheetsCutProps) {
  if (done.length === 0) return null;
  const isLocked = inCutter !== null;
  return (
    <section aria-label="What is cut">
      <h3>Already cut</h3>
      <Queue aria-label="Sheets that were cut">
        {done.map((sheet) => (
          <li key={sheet.id}>
            <Entry
              type="button"
              aria-pressed={sheet.id === shownId}
              disabled={isLocked}
              onClick={() => onChoose(sheet)}
            >
              <Swatches films={filmsOfSheet(sheet)} />
              <span>
                {nameOfSheet(sheet)}
                <Small as="span">{fateOf(sheet)}</Small>
              </span>
              <Figure>{sayDateTime(sheet.runs.at(-1)!.startedAt)}</Figure>
            </Entry>
            {!isLocked && sheet.id === shownId && how.get(sheet.id) === 'good' && <JudgeWholeSheet sheet={sheet} />}
            {how.get(sheet.id) === 'good' && sheet.restOf === null && <NoLongerFits sheet={sheet} wanted={wanted} />}
          </li>
        ))}
      </Queue>
    </section>
  );
}
