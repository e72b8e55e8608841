import {
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  columnFilteringFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/react-table';
import { useMemo, useState, type ReactNode } from 'react';
import {
  Collection,
  GridList,
  GridListItem,
  GridListLoadMoreItem,
  ListLayout,
  Virtualizer,
  type SortDescriptor,
} from 'react-aria-components';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { TextInput } from '../ui/plain-fields.js';
import { useIsPhone } from '../ui/use-is-phone.js';

export interface ShopColumn<T> {
  readonly id: string;
  readonly head: string;
  /** What it is sorted by. */
  readonly value: (row: T) => string | number;
  readonly cell?: (row: T) => ReactNode;
  readonly isFigure?: boolean;
  /** How wide it is against the others. */
  readonly share?: number;
  /** Left out on a phone. */
  readonly isExtra?: boolean;
}

interface ShopTableProps<T> {
  readonly label: string;
  readonly columns: readonly ShopColumn<T>[];
  readonly rows: readonly T[];
  readonly idOf: (row: T) => string;
  /** The words that a search looks through. */
  readonly wordsOf: (row: T) => string;
  readonly searchLabel: string;
  readonly sortBy: SortDescriptor;
  readonly openId?: string | undefined;
  readonly onOpen: (id: string) => void;
  /** What else narrows the list, and what is done with it. */
  readonly tools?: ReactNode;
  readonly empty: ReactNode;
}

const FEATURES = tableFeatures({
  columnFilteringFeature,
  globalFilteringFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
});
const ROW_PX = 36;
/** So many rows are handed to the list at first, and more as its end comes near: it looks at each that it is given, seen or not. */
const AT_FIRST = 30;

/** Records as a list that is searched, sorted by its heads, and moved through by keys; of thousands only those in view are drawn. */
export function ShopTable<T extends object>({
  label,
  columns: all,
  rows,
  idOf,
  wordsOf,
  searchLabel,
  sortBy,
  openId,
  onOpen,
  tools,
  empty,
}: ShopTableProps<T>) {
  const isPhone = useIsPhone();
  const columns = useMemo(() => (isPhone ? all.filter(({ isExtra }) => !isExtra) : all), [all, isPhone]);
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState(sortBy);
  const words = useMemo(() => new Map(rows.map((row) => [row, wordsOf(row).toLowerCase()])), [rows, wordsOf]);
  // Names are held against each other once for an order, and not with every letter of a search.
  const ranks = useMemo(() => {
    const value = (columns.find(({ id }) => id === sort.column) ?? columns[0]!).value;
    return new Map([...rows].sort((a, b) => compare(value(a), value(b))).map((row, rank) => [row, rank]));
  }, [columns, rows, sort.column]);
  const defs = useMemo(
    () =>
      columns.map(({ id, value }): ColumnDef<typeof FEATURES, T> => ({
        id,
        accessorFn: value,
        sortFn: (a, b) => ranks.get(a.original)! - ranks.get(b.original)!,
      })),
    [columns, ranks],
  );
  const data = rows as T[];
  const wanted = search.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const state = useMemo(
    () => ({
      sorting: [{ id: String(sort.column), desc: sort.direction === 'descending' }],
      globalFilter: search.trim() === '' ? undefined : search,
    }),
    [sort, search],
  );
  const table = useTable({
    features: FEATURES,
    columns: defs,
    data,
    state,
    getRowId: idOf,
    getColumnCanGlobalFilter: () => true,
    globalFilterFn: (row) => wanted.every((word) => words.get(row.original)?.includes(word)),
  });
  const shown = table.getRowModel().rows;
  const template = columns.map(({ share = 1 }) => `minmax(0, ${share}fr)`).join(' ');
  // Another search or another order begins at the top again.
  const order = `${search} ${String(sort.column)} ${sort.direction}`;
  const [given, setGiven] = useState({ order, most: AT_FIRST });
  const most = given.order === order ? given.most : AT_FIRST;
  const items = useMemo(() => shown.slice(0, most).map((row) => ({ id: row.id, row: row.original })), [shown, most]);
  return (
    <Frame>
      <Tools>
        <TextInput
          type="search"
          aria-label={searchLabel}
          placeholder="search"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        {tools}
        <Count role="status">
          {shown.length === rows.length ? `${rows.length}` : `${shown.length} of ${rows.length}`}
        </Count>
      </Tools>
      <Sheet>
        <Heads role="group" aria-label="Order of the list" style={{ gridTemplateColumns: template }}>
          {columns.map(({ id, head, isFigure }) => {
            const isSorted = sort.column === id;
            const isUp = sort.direction === 'ascending';
            return (
              <Head
                key={id}
                type="button"
                data-figure={isFigure || undefined}
                aria-label={`${head}${isSorted ? `, sorted ${isUp ? 'upwards' : 'downwards'}` : ''}`}
                onClick={() => setSort({ column: id, direction: isSorted && isUp ? 'descending' : 'ascending' })}
              >
                {head}
                {isSorted && <span aria-hidden>{isUp ? ' ↑' : ' ↓'}</span>}
              </Head>
            );
          })}
        </Heads>
        <Virtualizer layout={ListLayout} layoutOptions={{ rowSize: ROW_PX }}>
          <Lines
            aria-label={label}
            onAction={(key) => onOpen(String(key))}
            renderEmptyState={() => (
              <Empty>{rows.length === 0 ? empty : 'Nothing has these words. Search for fewer.'}</Empty>
            )}
          >
            <Collection items={items} dependencies={[columns, openId]}>
              {({ id, row }) => (
                <Line id={id} textValue={words.get(row) ?? id} data-open={id === openId || undefined}>
                  <Cells style={{ gridTemplateColumns: template }}>
                    {columns.map((column) => (
                      <Cell key={column.id} data-figure={column.isFigure || undefined}>
                        {column.cell ? column.cell(row) : column.value(row)}
                      </Cell>
                    ))}
                  </Cells>
                </Line>
              )}
            </Collection>
            {items.length < shown.length && (
              <GridListLoadMoreItem onLoadMore={() => setGiven({ order, most: most + AT_FIRST })} isLoading={false} />
            )}
          </Lines>
        </Virtualizer>
      </Sheet>
    </Frame>
  );
}

const COLLATOR = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

function compare(a: unknown, b: unknown): number {
  return typeof a === 'number' && typeof b === 'number' ? a - b : COLLATOR.compare(String(a), String(b));
}

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: ${space.s};
`;
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.s};
  input[type='search'] {
    width: 200px;
  }
`;
const Count = styled.p`
  font-size: ${type.small};
  color: ${colour.quiet};
  font-variant-numeric: tabular-nums;
  margin-left: auto;
`;
const Sheet = styled.div`
  flex: 1;
  min-height: 220px;
  min-width: 0;
  display: flex;
  flex-direction: column;
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  overflow: hidden;
  font-size: ${type.small};
  font-variant-numeric: tabular-nums;
`;
const Heads = styled.div`
  flex: none;
  display: grid;
  border-bottom: 1px solid ${colour.line};
  padding-right: 12px;
`;
const Head = styled.button`
  min-width: 0;
  padding: 8px ${space.s};
  border: 0;
  background: none;
  color: ${colour.quiet};
  font: 600 ${type.small} / 1.2 ${type.text};
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: pointer;
  &[data-figure] {
    text-align: right;
  }
  &:hover {
    color: ${colour.ink};
  }
  &:focus-visible {
    outline: 2px solid ${colour.accent};
    outline-offset: -2px;
  }
`;
const Lines = styled(GridList)`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  scrollbar-gutter: stable;
  outline: none;
` as unknown as typeof GridList;
const Line = styled(GridListItem)`
  height: ${ROW_PX}px;
  cursor: pointer;
  outline: none;
  border-bottom: 1px solid ${colour.faint};
  &[data-hovered] {
    background: ${colour.docket};
  }
  &[data-open] {
    background: ${colour.accentWash};
  }
  &[data-focus-visible] {
    outline: 2px solid ${colour.accent};
    outline-offset: -2px;
  }
`;
const Cells = styled.div`
  display: grid;
`;
const Cell = styled.span`
  display: block;
  height: ${ROW_PX}px;
  line-height: ${ROW_PX}px;
  padding: 0 ${space.s};
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  &[data-figure] {
    text-align: right;
  }
  > span[aria-hidden],
  > img {
    margin-right: ${space.s};
  }
  > img {
    vertical-align: -8px;
  }
`;
const Empty = styled.div`
  padding: ${space.l};
  color: ${colour.quiet};
  max-width: 34rem;
  display: grid;
  gap: ${space.s};
  justify-items: start;
`;
