import { useMemo, useState, type ReactNode } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import type { ShopKind, ShopRecords } from '../../core/shop/index.js';
import type { RecordWrite } from '../plan/shop-writes.js';
import { space, type } from '../tokens.js';
import { Button, MainButton } from '../ui/button.js';
import { Card, ListAndCard } from './list-and-card.js';
import { RecordForm } from './record-form.js';
import { RetiredToo } from './retired-too.js';
import { useKnownShop, useShopActs } from './shop-context.js';
import { ShopTable, type ShopColumn } from './shop-table.js';
import { newId } from '../api/new-id.js';

/** Kinds whose records have a name and can be put away. */
type NamedKind = Exclude<ShopKind, 'settings' | 'pieces'>;

interface KindScreenProps<K extends NamedKind> {
  readonly kind: K;
  /** What one of them is called. */
  readonly one: string;
  readonly records: readonly ShopRecords[K][];
  readonly columns: readonly ShopColumn<ShopRecords[K]>[];
  readonly fresh: (id: string) => ShopRecords[K];
  readonly address: string;
  readonly query?: string;
  readonly tools?: ReactNode;
  /** What else stands on a card of one that is kept. */
  readonly more?: (record: ShopRecords[K]) => ReactNode;
  /** What is edited besides the fields. */
  readonly editor?: (
    record: ShopRecords[K],
    change: Partial<ShopRecords[K]> | undefined,
    onChange: (change: Partial<ShopRecords[K]> | undefined) => void,
  ) => ReactNode;
}

const idOf = ({ id }: { readonly id: string }) => id;
const wordsOf = (record: object) =>
  Object.values(record)
    .filter((value) => typeof value === 'string')
    .join(' ');

/** A list of records of one kind, and the card of the one that is open. */
export function KindScreen<K extends NamedKind>({
  kind,
  one,
  records,
  columns,
  fresh,
  address,
  query = '',
  tools,
  more,
  editor,
}: KindScreenProps<K>) {
  const { id } = useParams();
  const navigate = useNavigate();
  const [retired, setRetired] = useState(false);
  const rows = useMemo(() => records.filter((record) => retired || !record.retired), [records, retired]);
  const open = records.find((record) => record.id === id);
  const close = () => void navigate(`${address}${query}`);
  return (
    <ListAndCard
      list={
        <ShopTable
          label={`${one[0]!.toUpperCase()}${one.slice(1)}s`}
          columns={columns}
          rows={rows}
          idOf={idOf}
          wordsOf={wordsOf}
          searchLabel={`Search by name`}
          sortBy={{ column: 'name', direction: 'ascending' }}
          openId={id}
          onOpen={(opened) => void navigate(`${address}/${opened}${query}`)}
          tools={
            <>
              {tools}
              <RetiredToo isOn={retired} onChange={setRetired} />
              <MainButton onPress={() => void navigate(`${address}/new${query}`)}>New {one}</MainButton>
            </>
          }
          empty={<p>There is none yet. Add one: then the app reckons with it.</p>}
        />
      }
      card={
        open || id === 'new' ? (
          <RecordCard
            key={id}
            kind={kind}
            one={one}
            record={open ?? null}
            fresh={fresh}
            address={address}
            query={query}
            onClose={close}
            {...(more ? { more } : {})}
            {...(editor ? { editor } : {})}
          />
        ) : null
      }
    />
  );
}

type RecordCardProps<K extends NamedKind> = Pick<
  KindScreenProps<K>,
  'kind' | 'one' | 'fresh' | 'address' | 'query' | 'more' | 'editor'
> & { readonly record: ShopRecords[K] | null; readonly onClose: () => void };

function RecordCard<K extends NamedKind>({
  kind,
  one,
  record: kept,
  fresh,
  address,
  query = '',
  more,
  editor,
  onClose,
}: RecordCardProps<K>) {
  const shop = useKnownShop();
  const { save, attempt } = useShopActs();
  const navigate = useNavigate();
  const copied = (useLocation().state as { copyOf?: ShopRecords[K] } | null)?.copyOf;
  const [made] = useState((): ShopRecords[K] => {
    const id = newId();
    return copied ? { ...copied, id, name: `${copied.name} (copy)`.slice(0, 80), retired: false } : fresh(id);
  });
  const [change, setChange] = useState<Partial<ShopRecords[K]> | undefined>(undefined);
  const record = kept ?? made;
  const write = (value: ShopRecords[K]) => [{ kind, value }] as unknown as readonly RecordWrite[];
  const retire = (retired: boolean) =>
    void attempt(() =>
      save(
        write({ ...record, retired }),
        shop.revision,
        retired ? `${record.name} is retired.` : `${record.name} is used again.`,
      ),
    );
  return (
    <Card title={kept ? kept.name : `New ${one}`} lead={kept?.retired ? 'retired' : undefined} onClose={onClose}>
      <RecordForm
        kind={kind}
        record={record}
        revision={shop.revision}
        isNew={!kept}
        {...(change === undefined ? {} : { more: change, hasMore: true })}
        onSave={async (value, revision) => {
          await save(write(value), revision, kept ? `${value.name} is saved.` : `${value.name} is added.`);
          setChange(undefined);
          if (!kept) void navigate(`${address}/${value.id}${query}`, { replace: true });
        }}
        onLeave={onClose}
        acts={
          kept && (
            <>
              <Button onPress={() => void navigate(`${address}/new${query}`, { state: { copyOf: kept } })}>Copy</Button>
              <Button onPress={() => retire(!kept.retired)}>{kept.retired ? 'Use it again' : 'Retire'}</Button>
            </>
          )
        }
      >
        {editor?.(record, change, setChange)}
        {kept && <More>{more?.(kept)}</More>}
      </RecordForm>
    </Card>
  );
}

const More = styled.div`
  font-size: ${type.small};
  section {
    display: grid;
    gap: ${space.s};
    justify-items: start;
  }
  h3 {
    font-size: ${type.body};
  }
`;
