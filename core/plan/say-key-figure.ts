import type { CutCounts } from '../stations/record/index.js';
import { count, formatLength, sayDuration, type LengthUnit, type StationName } from '../words/index.js';
import type { JobFigures } from './job-card.js';

/** A station's key figure, as it stands on its tab; empty while there is none. */
export function sayKeyFigure(station: StationName, figures: JobFigures, cuts: CutCounts, unit: LengthUnit): string {
  const { colours, films, design, designs, trapMm, counters, sheets, seconds, steps } = figures;
  switch (station) {
    case 'artwork':
      return figures.parts === 0 ? 'start here' : colours === undefined ? '' : count(colours, 'colour');
    case 'films':
      return films === undefined ? '' : count(films, 'film');
    case 'surface':
      return designs !== undefined
        ? count(designs, 'design')
        : design
          ? `${formatLength(design.widthMm, unit)} × ${formatLength(design.heightMm, unit)}`
          : '';
    case 'build':
      return films === undefined
        ? ''
        : films === 1
          ? 'one layer'
          : trapMm
            ? `trap ${formatLength(trapMm, unit)}`
            : 'no trap';
    case 'prepare':
      return counters === undefined ? '' : count(counters, 'counter');
    case 'sheets':
      return sheets === undefined ? '' : isAllCut(cuts) ? 'all cut' : count(sheets, 'sheet');
    case 'cut':
      return cuts.undecided > 0
        ? `${cuts.undecided} to decide`
        : seconds === undefined
          ? ''
          : isAllCut(cuts)
            ? 'all cut'
            : sayDuration(seconds);
    case 'assemble':
      return steps === undefined ? '' : count(steps, 'step');
    case 'record':
      return cuts.finished > 0 && sheets !== undefined ? `${cuts.copies} of ${cuts.ofCopies} cut` : '';
  }
}

function isAllCut({ copies, ofCopies }: CutCounts): boolean {
  return ofCopies > 0 && copies >= ofCopies;
}
