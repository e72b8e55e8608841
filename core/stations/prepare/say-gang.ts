import type { GangWish } from '../../engines/nesting/index.js';
import type { Box } from '../../geometry/index.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { PreparePatch } from './decisions.js';

const ONE_BY_ONE = { preparation: { gang: null } } as const satisfies PreparePatch;

/** What a strip of a gang holds. */
export function sayGang(
  gang: GangWish,
  { box, marks }: { readonly box: Box; readonly marks: unknown },
  layers: number,
): Ruling<PreparePatch> {
  const { across, down, rows, gapMm } = gang;
  const other = rows === 'straight' ? 'tight' : 'straight';
  return {
    id: 'prepare.gang',
    stage: 'prepare',
    subject: 'Gang',
    sentence: marks
      ? 'One set of marks holds a strip of {value}.'
      : layers > 1
        ? 'They are laid by eye, a strip of {value} at a time.'
        : 'They are cut in strips of {value}.',
    value: `${across} × ${down}`,
    unit: '',
    because: [
      layers > 1
        ? 'All films share this layout, so a strip is aligned, and not each copy. None of them is turned.'
        : 'None of them is turned.',
      rows === 'straight'
        ? `Straight gutters of ${formatLength(gapMm)} mm run between them, which a knife can follow along a ruler.`
        : `They lie as near as their outlines come, ${formatLength(gapMm)} mm apart. A ruler does not fit between all of them.`,
      `A strip is ${formatLength(box.maxX - box.minX)} × ${formatLength(box.maxY - box.minY)} mm with what is round it.${layers > 1 ? ' It is laid in one piece, so the trap is reckoned for its size.' : ''}`,
    ],
    alternatives: [
      {
        label: other === 'tight' ? 'As near as their outlines come' : 'Straight gutters',
        patch: { preparation: { gang: { ...gang, rows: other } } },
      },
      { label: 'Align each copy by itself', patch: ONE_BY_ONE },
    ],
  };
}

/** A gang of what is laid piece by piece anyway. */
export function sayGangIdle(): Finding<PreparePatch> {
  return {
    code: 'gang-idle',
    severity: 'note',
    stage: 'prepare',
    message:
      'You asked for strips with one set of marks. This job is laid in panels, or has several designs, so each is still aligned by itself.',
    remedies: [{ label: 'Do not ask for strips', patch: ONE_BY_ONE }],
  };
}
