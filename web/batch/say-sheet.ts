import type { Batch, BatchSheetView } from '../../core/batch/index.js';
import type { LaidSheetView } from '../../core/plan/index.js';
import { count, formatLength, listed, type LengthUnit } from '../../core/words/index.js';
import type { OnPiece } from '../../core/laying/index.js';
import { sayPanels } from '../ui/say-panels.js';
import type { FilmPiece, Rectangle } from '../../core/shop/index.js';

/** What a piece is, as one looks for it in the rack: "offcut 12, 280 × 210 mm", "the roll, 590 mm wide". */
export function sayPieceToFetch({ kind, number, widthMm, lengthMm }: FilmPiece, unit: LengthUnit): string {
  const mm = (value: number) => formatLength(value, unit);
  if (kind === 'roll') return `the roll, ${mm(widthMm)} ${unit} wide`;
  return `${kind === 'offcut' ? `offcut${number === null ? '' : ` ${number}`}` : 'a sheet'}, ${mm(widthMm)} × ${mm(lengthMm)} ${unit}`;
}

/** Which section of a roll it is: ", section 1 of 2"; nothing where the roll is cut in one. */
export function saySection({ section }: Pick<LaidSheetView, 'section'>): string {
  return section ? `, section ${section.number} of ${section.of}` : '';
}

/** The films of a sheet by name. */
export function sayFilms({ films }: Pick<LaidSheetView, 'films'>): string {
  return listed([...new Set(films.map(({ name }) => name))]);
}

/** How many copies of how many jobs lie on a sheet: “4 layers of 2 jobs”; of a job alone “3 copies”, “2 layers” or “5 strips”. */
export function sayCarried(
  { carries, films, panels, laid }: Pick<BatchSheetView, 'carries' | 'films' | 'panels' | 'laid'>,
  { number }: Pick<Batch, 'number'>,
): string {
  const inAll = carries.reduce((sum, { copies }) => sum + copies, 0);
  if (number !== null)
    return `${count(inAll, 'layer')} of ${count(new Set(carries.map(({ jobId }) => jobId)).size, 'job')}`;
  if (films.length > 1 || panels.length > 1) return count(inAll, 'layer');
  return laid.some(({ perStrip }) => perStrip > 1) ? count(inAll, 'strip') : count(inAll, 'copy', 'copies');
}

/** What a job of a batch is called; nothing of a job alone, which needs no name at its own stations. */
export function titleIn({ jobs, number }: Batch, jobId: string): string {
  return number === null ? '' : (jobs.find(({ id }) => id === jobId)?.title ?? '');
}

/** How large what is left over is: in whole millimetres, as much as there is for sure. */
export function sayLeftover(
  { widthMm, lengthMm }: { readonly widthMm: number; readonly lengthMm: number },
  unit: LengthUnit,
): string {
  return `${formatLength(Math.floor(widthMm + 1e-6), unit)} × ${formatLength(Math.floor(lengthMm + 1e-6), unit)} ${unit}`;
}

/** Rectangles that are cut off a piece by hand, alike ones together: "2 of 74 × 54 mm". */
export function sayCuts(cuts: readonly Rectangle[], unit: LengthUnit): string {
  const sizes = cuts.map(
    ({ widthMm, lengthMm }) => `${formatLength(widthMm, unit)} × ${formatLength(lengthMm, unit)} ${unit}`,
  );
  return listed(
    [...new Set(sizes)].map((size) => {
      const many = sizes.filter((one) => one === size).length;
      return many === 1 ? size : `${many} of ${size}`;
    }),
  );
}

/** Which designs lie on a piece: “Boat name, panel 1 of 2; Badge, 3 times”; nothing where a job by itself has one design. */
export function sayOnPiece(carries: readonly OnPiece[], titleOf: (jobId: string) => string): string {
  return carries
    .map(({ jobId, panel, groups, perStrip }) => {
      const named = [jobId === null ? '' : titleOf(jobId), sayPanels([panel])].filter((part) => part !== '').join(', ');
      if (named === '') return '';
      const often = perStrip > 1 ? count(groups, 'strip') : groups > 1 ? `${groups} times` : '';
      return often === '' ? named : `${named}, ${often}`;
    })
    .filter((part) => part !== '')
    .join('; ');
}
