import { useMemo } from 'react';
import { newMaker, type Maker } from '../../core/shop/index.js';
import { formatLength } from '../../core/words/index.js';
import { setMakerAtWork, useMakerAtWork } from '../api/maker.js';
import { Button } from '../ui/button.js';
import { useSettings } from '../ui/settings.js';
import { KindScreen } from './kind-screen.js';
import { useKnownShop } from './shop-context.js';
import type { ShopColumn } from './shop-table.js';

/** Who works here, with what hand, and how truly. */
export function MakersScreen() {
  const { makers } = useKnownShop();
  const { unit } = useSettings();
  const atWork = useMakerAtWork();
  const columns = useMemo(
    (): readonly ShopColumn<Maker>[] => [
      {
        id: 'name',
        head: 'Name',
        share: 2,
        value: ({ name }) => name,
        cell: ({ id, name }) => `${name}${id === atWork ? ' (at work here)' : ''}`,
      },
      { id: 'hand', isExtra: true, head: 'Hand', value: ({ hand }) => hand },
      {
        id: 'marks',
        head: 'With marks within',
        isFigure: true,
        value: ({ placementWithMarksMm }) => placementWithMarksMm,
        cell: ({ placementWithMarksMm }) => `${formatLength(placementWithMarksMm, unit)} ${unit}`,
      },
      {
        id: 'eye',
        head: 'By eye within',
        isFigure: true,
        value: ({ placementByEyeMm }) => placementByEyeMm,
        cell: ({ placementByEyeMm }) => `${formatLength(placementByEyeMm, unit)} ${unit}`,
      },
    ],
    [unit, atWork],
  );
  return (
    <KindScreen
      kind="makers"
      one="maker"
      records={makers}
      columns={columns}
      fresh={newMaker}
      address="/shop/makers"
      more={(maker) => (
        <section>
          <h3>{maker.id === atWork ? 'At work on this device' : 'Who works on this device?'}</h3>
          <p>What is cut or booked here is written down with this name.</p>
          <Button onPress={() => setMakerAtWork(maker.id === atWork ? null : maker.id)}>
            {maker.id === atWork ? 'Not any more' : `${maker.name} is at work here`}
          </Button>
        </section>
      )}
    />
  );
}
