import { createFilteredRowModel, createSortedRowModel, globalFilteringFeature, columnFilteringFeature, rowSortingFeature, tableFeatures, useTable, type ColumnDef } from '@tanstack/react-table';
import { useMemo, useState, useSyncExternalStore, type ReactNode } from 'react';
import { Cell, Column, ResizableTableContainer, Row, Table, TableBody, TableHeader, TableLayout, Virtualizer, type SortDescriptor } from 'react-aria-components';
import styled from 'styled-components';
import { colour, radius, space, type, width } from '../tokens.js';
import { TextInput } from '../ui/plain-fields.js';

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

const FEATURES = tableFeatures({ columnFilteringFeature, globalFilteringFeature, rowSortingFeature, filteredRowModel: createFilteredRowModel(), sortedRowModel: createSortedRowModel() });
const ROW_PX = 36;

/** Records as a list that is searched, sorted by its heads, and moved through by keys; of thousands only those in view are drawn. */
export function ShopTable<T extends object>({ label, columns: all, rows, idOf, wordsOf, searchLabel, sortBy, openId, onOpen, tools, empty }: ShopTableProps<T>) {
  const isPhone = useIsPhone();
  const columns = useMemo(() => (isPhone ? all.filter(({ isExtra }) => !isExtra) : all), [all, isPhone]);
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState(sortBy);
  const words = useMemo(() => new Map(rows.map((row) => [row, wordsOf(row).toLowerCase()])), [rows, wordsOf]);
  const defs = useMemo(() => columns.map(({ id, value }): ColumnDef<typeof FEATURES, T> => ({ id, accessorFn: value, sortFn: (a, b, column) => compare(a.getValue(column), b.getValue(column)) })), [columns]);
  const data = rows as T[];
  const wanted = search.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const state = useMemo(() => ({ sorting: [{ id: String(sort.column), desc: sort.direction === 'descending' }], globalFilter: search.trim() === '' ? undefined : search }), [sort, search]);
  const table = useTable({
    features: FEATURES,
    columns: defs,
    data,
    state,
    getRowId: idOf,
    getColumnCanGlobalFilter: () => true,
    globalFilterFn: (row) => wanted.every((word) => words.get(row.original)?.includes(word)),
  });
  const shown = table.getRowModel().rows.map((row) => row.original);
  return (
    <Frame>
      <Tools>
        <TextInput type="search" aria-label={searchLabel} placeholder="search" value={search} onChange={(event) => setSearch(event.target.value)} />
        {tools}
        <Count role="status">{shown.length === rows.length ? `${rows.length}` : `${shown.length} of ${rows.length}`}</Count>
      </Tools>
      <Scroller>
        <Virtualizer layout={TableLayout} layoutOptions={{ rowHeight: ROW_PX, headingHeight: 32 }}>
          <Grid aria-label={label} sortDescriptor={sort} onSortChange={setSort} onRowAction={(key) => onOpen(String(key))}>
            <TableHeader>
              {columns.map(({ id, head, isFigure, share = 1 }, i) => (
                <Head key={id} id={id} isRowHeader={i === 0} allowsSorting width={`${share}fr`} data-figure={isFigure || undefined}>
                  {({ sortDirection }) => (
                    <>
                      {head}
                      <span aria-hidden>{sortDirection === 'ascending' ? ' ↑' : sortDirection === 'descending' ? ' ↓' : ''}</span>
                    </>
                  )}
                </Head>
              ))}
            </TableHeader>
            <TableBody items={shown.map((row) => ({ id: idOf(row), row }))} renderEmptyState={() => <Empty>{rows.length === 0 ? empty : 'Nothing has these words. Search for fewer.'}</Empty>} dependencies={[columns, openId]}>
              {({ id, row }) => (
                <Line id={id} data-open={id === openId || undefined}>
                  {columns.map((column) => (
                    <Field key={column.id} data-figure={column.isFigure || undefined}>
                      <Text>{column.cell ? column.cell(row) : column.value(row)}</Text>
                    </Field>
                  ))}
                </Line>
              )}
            </TableBody>
          </Grid>
        </Virtualizer>
      </Scroller>
    </Frame>
  );
}

const PHONE = `(max-width: ${width.phone})`;

function useIsPhone(): boolean {
  return useSyncExternalStore((listener) => {
    const media = window.matchMedia(PHONE);
    media.addEventListener('change', listener);
    return () => media.removeEventListener('change', listener);
  }, () => window.matchMedia(PHONE).matches);
}

const COLLATOR = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

function compare(a: unknown, b: unknown): number {
  return typeof a === 'number' && typeof b === 'number' ? a - b : COLLATOR.compare(String(a), String(b));
}

const Frame = styled.div`flex: 1; min-height: 0; min-width: 0; display: flex; flex-direction: column; gap: ${space.s};`;
const Tools = styled.div`display: flex; flex-wrap: wrap; align-items: center; gap: ${space.s}; input[type='search'] { width: 200px; }`;
const Count = styled.p`font-size: ${type.small}; color: ${colour.quiet}; font-variant-numeric: tabular-nums; margin-left: auto;`;
const Scroller = styled(ResizableTableContainer)`flex: 1; min-height: 220px; overflow: auto; background: ${colour.raised}; border: 1px solid ${colour.line}; border-radius: ${radius.m};`;
const Grid = styled(Table)`outline: none; font-size: ${type.small}; font-variant-numeric: tabular-nums; > [role='rowgroup']:first-child { background: ${colour.raised}; z-index: 1; }`;
const Head = styled(Column)`
  padding: 8px ${space.s}; color: ${colour.quiet}; font-weight: 600; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; cursor: pointer; border-bottom: 1px solid ${colour.line}; outline: none; background: ${colour.raised};
  &[data-figure] { text-align: right; }
  &[data-focus-visible] { outline: 2px solid ${colour.accent}; outline-offset: -2px; }
`;
const Line = styled(Row)`
  cursor: pointer; outline: none; border-bottom: 1px solid ${colour.faint};
  &[data-hovered] { background: ${colour.docket}; }
  &[data-open] { background: ${colour.accentWash}; }
  &[data-focus-visible] { outline: 2px solid ${colour.accent}; outline-offset: -2px; }
` as unknown as typeof Row;
const Field = styled(Cell)`
  height: ${ROW_PX}px; line-height: ${ROW_PX}px; padding: 0 ${space.s}; overflow: hidden; outline: none;
  &[data-figure] { text-align: right; }
  &[data-focus-visible] { outline: 2px solid ${colour.accent}; outline-offset: -2px; }
`;
const Text = styled.span`display: block; overflow: hidden; white-space: nowrap; text-overflow: ellipsis; > span[aria-hidden], > img { margin-right: ${space.s}; } > img { vertical-align: -8px; }`;
const Empty = styled.div`padding: ${space.l}; color: ${colour.quiet}; max-width: 34rem; display: grid; gap: ${space.s}; justify-items: start;`;
