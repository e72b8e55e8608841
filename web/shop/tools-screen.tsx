import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import {
  newCutter,
  type Blade,
  type CutterCard,
  type MatCard,
  type Press,
  type ShopRecords,
  type Tape,
} from '../../core/shop/index.js';
import { formatLength } from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { Button } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { Picker } from '../ui/picker.js';
import { useSettings } from '../ui/settings.js';
import { KindScreen } from './kind-screen.js';
import { useKnownShop, useShopActs } from './shop-context.js';
import type { ShopColumn } from './shop-table.js';

type ToolKind = 'mats' | 'blades' | 'cutters' | 'tapes' | 'presses';

const KINDS = [
  ['mats', 'Mats'],
  ['blades', 'Blades'],
  ['cutters', 'Cutters'],
  ['tapes', 'Tapes'],
  ['presses', 'Presses'],
] as const satisfies readonly (readonly [ToolKind, string])[];
const ONE: Readonly<Record<ToolKind, string>> = {
  mats: 'mat',
  blades: 'blade',
  cutters: 'cutter',
  tapes: 'tape',
  presses: 'press',
};

const FRESH: { readonly [K in ToolKind]: (id: string) => ShopRecords[K] } = {
  mats: (id) => ({ id, name: 'New mat', widthMm: 300, lengthMm: 300, edgeMm: 5, usesBefore: 0, retired: false }),
  blades: (id) => ({
    id,
    name: 'New blade',
    angleDeg: '45',
    offsetMm: 0.25,
    metresBefore: 0,
    note: '',
    retired: false,
  }),
  cutters: (id) => ({ ...newCutter(id), name: 'New cutter' }),
  tapes: (id) => ({
    id,
    name: 'New tape',
    tack: 'medium',
    matter: 'paper',
    widthMm: 300,
    uses: 0,
    lastsUses: 1,
    costPerM2: 0,
    note: '',
    retired: false,
  }),
  presses: (id) => ({
    id,
    name: 'New press',
    kind: 'platen',
    widthMm: 380,
    lengthMm: 380,
    mostC: 220,
    note: '',
    retired: false,
  }),
};

/** Mats, blades, cutters, tapes and presses. */
export function ToolsScreen() {
  const { id } = useParams();
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const shop = useKnownShop();
  const { unit } = useSettings();
  const { save, attempt } = useShopActs();
  const wear = useQuery({
    queryKey: ['wear', shop.revision],
    queryFn: () => ask<{ mats: Record<string, number>; blades: Record<string, number> }>('/api/shop/wear'),
    placeholderData: (before) => before,
  }).data;
  // An opened tool says of what kind it is.
  const kind =
    KINDS.find(([name]) => shop[name].some((one) => one.id === id))?.[0] ??
    KINDS.find(([name]) => name === params.get('kind'))?.[0] ??
    'mats';
  const columns = useMemo(() => {
    const size = ({ widthMm, lengthMm }: { widthMm: number; lengthMm: number }) =>
      `${formatLength(widthMm, unit)} × ${formatLength(lengthMm, unit)} ${unit}`;
    const name = { id: 'name', head: 'Name', share: 2, value: (one: { name: string }) => one.name };
    const mats: ShopColumn<MatCard>[] = [
      name,
      { id: 'size', head: 'Size', value: (one) => one.widthMm, cell: size },
      { id: 'uses', head: 'Uses', isFigure: true, value: (one) => one.usesBefore + (wear?.mats[one.id] ?? 0) },
    ];
    const blades: ShopColumn<Blade>[] = [
      name,
      { id: 'angle', head: 'Angle', value: (one) => Number(one.angleDeg), cell: (one) => `${one.angleDeg}°` },
      {
        id: 'metres',
        head: 'Has cut',
        isFigure: true,
        value: (one) => one.metresBefore + (wear?.blades[one.id] ?? 0),
        cell: (one) => `${(one.metresBefore + (wear?.blades[one.id] ?? 0)).toFixed(0)} m`,
      },
    ];
    const cutters: ShopColumn<CutterCard>[] = [
      { ...name, cell: (one) => `${one.name}${one.id === shop.cutter.id ? ' (in use)' : ''}` },
      {
        id: 'width',
        head: 'Widest',
        isFigure: true,
        value: (one) => one.widthMm,
        cell: (one) => `${formatLength(one.widthMm, unit)} ${unit}`,
      },
      {
        id: 'address',
        head: 'Address',
        value: (one) => one.host ?? '',
        cell: (one) => (one.host === null ? 'takes files' : `${one.host}:${one.port}`),
      },
      { id: 'blade', head: 'Blade', value: (one) => shop.blades.find((blade) => blade.id === one.bladeId)?.name ?? '' },
    ];
    const tapes: ShopColumn<Tape>[] = [
      name,
      { id: 'tack', head: 'Tack', value: (one) => one.tack },
      {
        id: 'uses',
        head: 'Uses',
        isFigure: true,
        value: (one) => one.uses,
        cell: (one) => `${one.uses} of ${one.lastsUses}`,
      },
    ];
    const presses: ShopColumn<Press>[] = [
      name,
      { id: 'kind', head: 'Kind', value: (one) => one.kind },
      { id: 'size', head: 'Size', value: (one) => one.widthMm, cell: size },
    ];
    return { mats, blades, cutters, tapes, presses };
  }, [unit, wear, shop.cutter.id, shop.blades]);
  const set = (change: Parameters<typeof save>[0], said: string) =>
    void attempt(() => save(change, shop.revision, said));
  return (
    <KindScreen
      key={kind}
      kind={kind}
      one={ONE[kind]}
      records={shop[kind] as readonly ShopRecords[ToolKind][]}
      columns={columns[kind] as unknown as readonly ShopColumn<ShopRecords[ToolKind]>[]}
      fresh={FRESH[kind]}
      address="/shop/tools"
      query={`?kind=${kind}`}
      tools={
        <Choice
          label="Kind of tool"
          value={kind}
          options={KINDS}
          onChange={(next) => void navigate(`/shop/tools?kind=${next}`)}
        />
      }
      more={(record) => {
        if (kind === 'cutters') {
          const cutter = record as CutterCard;
          return (
            <section>
              <h3>Blade in it</h3>
              <Picker
                label="Blade in it"
                value={cutter.bladeId ?? ''}
                options={[
                  { id: '', text: 'not said' },
                  ...shop.blades
                    .filter((blade) => !blade.retired || blade.id === cutter.bladeId)
                    .map((blade) => ({ id: blade.id, text: blade.name })),
                ]}
                onChange={(bladeId) =>
                  set(
                    [{ kind: 'cutters', value: { ...cutter, bladeId: bladeId === '' ? null : bladeId } }],
                    'The blade is noted. What is cut from now on is added to its metres.',
                  )
                }
              />
              <p>
                {cutter.id === shop.cutter.id
                  ? 'The shop cuts with this cutter.'
                  : cutter.host === null
                    ? 'It is given files.'
                    : ''}
              </p>
              {cutter.id !== shop.cutter.id && !cutter.retired && (
                <Button
                  onPress={() =>
                    set(
                      [{ kind: 'settings', value: { ...shop.settings, cutterId: cutter.id } }],
                      `The shop cuts with ${cutter.name} from now on.`,
                    )
                  }
                >
                  Cut with this one
                </Button>
              )}
            </section>
          );
        }
        if (kind === 'tapes') {
          const tape = record as Tape;
          return (
            <section>
              <h3>
                {tape.uses >= tape.lastsUses
                  ? 'This piece has had its uses'
                  : `Used ${tape.uses} of ${tape.lastsUses} times`}
              </h3>
              <Button
                onPress={() =>
                  set([{ kind: 'tapes', value: { ...tape, uses: tape.uses + 1 } }], 'One use more is noted.')
                }
              >
                Used once more
              </Button>{' '}
              <Button
                onPress={() =>
                  set([{ kind: 'tapes', value: { ...tape, uses: 0 } }], 'A new piece of tape: no uses yet.')
                }
              >
                New piece
              </Button>
            </section>
          );
        }
        return null;
      }}
    />
  );
}
