import { useMemo } from 'react';
import { measureOf, newBlank, type Blank } from '../../core/shop/index.js';
import { formatLength } from '../../core/words/index.js';
import { useSettings } from '../ui/settings.js';
import { pictureUrl, Swatch } from '../ui/swatch.js';
import { BlankEditor } from './blank-editor.js';
import { KindScreen } from './kind-screen.js';
import { useKnownShop } from './shop-context.js';
import type { ShopColumn } from './shop-table.js';

/** Things that get decorated: measured once, and what worked on them. */
export function BlanksScreen() {
  const { blanks } = useKnownShop();
  const { unit } = useSettings();
  const columns = useMemo(
    (): readonly ShopColumn<Blank>[] => [
      {
        id: 'name',
        head: 'Blank',
        share: 2.2,
        value: ({ name }) => name,
        cell: (blank) => (
          <>
            {blank.photo ? (
              <img src={pictureUrl(blank.photo)} alt="" width="26" height="26" style={{ objectFit: 'cover' }} />
            ) : (
              <Swatch film={{ colour: blank.colour, finish: 'matt' }} />
            )}{' '}
            {blank.name}
          </>
        ),
      },
      { id: 'kind', isExtra: true, head: 'Kind', value: ({ kind }) => kind },
      { id: 'matter', isExtra: true, head: 'Made of', value: ({ matter }) => matter },
      { id: 'size', head: 'Measured', share: 1.8, value: (blank) => sayMeasured(blank, unit) },
      { id: 'held', isExtra: true, head: 'Held', share: 1.3, value: ({ trials }) => trials.at(-1)?.held ?? '' },
    ],
    [unit],
  );
  return (
    <KindScreen
      kind="blanks"
      one="blank"
      records={blanks}
      columns={columns}
      fresh={newBlank}
      address="/shop/blanks"
      editor={(blank, change, onChange) => (
        <BlankEditor blank={{ ...blank, ...change }} onChange={(next) => onChange({ ...change, ...next })} />
      )}
    />
  );
}

/** The two measures that say most, the smaller of two readings each. */
function sayMeasured(blank: Blank, unit: 'mm' | 'cm' | 'in'): string {
  const measures = [...new Set(blank.readings.map(({ what }) => what))].slice(0, 2);
  return measures.length === 0
    ? 'not yet'
    : measures.map((what) => `${what} ${formatLength(measureOf(blank, what)!, unit)}`).join(', ');
}
