import { useMemo, useRef } from 'react';
import {
  Autocomplete,
  Button,
  Dialog,
  Input,
  ListBox,
  ListBoxItem,
  ListLayout,
  Popover,
  SearchField,
  useFilter,
  Virtualizer,
} from 'react-aria-components';
import styled from 'styled-components';
import { colour, radius, space, type, width } from '../tokens.js';
import type { PickOption } from './picker.js';

interface PickerListProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly PickOption[];
  /** What it is opened from. */
  readonly button: HTMLButtonElement;
  readonly onPick: (id: string) => void;
  readonly onClose: () => void;
}

/** With more than so many, there is a field to search them. */
const FEW = 9;
const ROW_PX = 34;
const HIGHEST_PX = 340;

/** The list behind a button: searched by typing, moved through by keys. However long, only what is seen of it is drawn. */
export function PickerList({ label, value, options, button, onPick, onClose }: PickerListProps) {
  const { contains } = useFilter({ sensitivity: 'base' });
  const trigger = useMemo(() => ({ current: button }), [button]);
  const isLong = options.length > FEW;
  const shown = useRef<HTMLDivElement>(null);
  /** Enter in the search takes the first that was found. */
  const takeFirst = () => {
    const key = shown.current?.querySelector('[role="option"]')?.getAttribute('data-key');
    if (key) onPick(key);
  };
  const list = (
    <Virtualizer layout={ListLayout} layoutOptions={{ rowSize: ROW_PX, padding: 4 }}>
      <List
        aria-label={label}
        style={{ height: Math.min(HIGHEST_PX, options.length * ROW_PX + 8) }}
        items={options}
        selectionMode="single"
        selectedKeys={[value]}
        disallowEmptySelection
        autoFocus={!isLong}
        // It scrolls, so it can be reached by keys as well while the focus is in the search.
        ref={(element) => {
          shown.current = element;
          element?.setAttribute('tabindex', '0');
        }}
        onSelectionChange={(keys) => {
          const [key] = keys as Set<string>;
          if (key !== undefined) onPick(key);
        }}
        renderEmptyState={() => <Empty>Nothing has these words. Try only one.</Empty>}
      >
        {(option) => (
          <Row id={option.id} textValue={`${option.text} ${option.hint ?? ''}`}>
            {option.mark}
            <span>{option.text}</span>
            {option.hint && <small>{option.hint}</small>}
          </Row>
        )}
      </List>
    </Virtualizer>
  );
  return (
    <Popover triggerRef={trigger} isOpen onOpenChange={(open) => !open && onClose()} placement="bottom start">
      <Sheet aria-label={label}>
        {isLong ? (
          <Autocomplete filter={contains}>
            <Search aria-label={`Search: ${label}`} autoFocus onSubmit={takeFirst}>
              <Input placeholder="type to search" />
              <Button aria-label="Clear the search">×</Button>
            </Search>
            {list}
          </Autocomplete>
        ) : (
          list
        )}
      </Sheet>
    </Popover>
  );
}

const Sheet = styled(Dialog)`
  width: min(400px, calc(100vw - 24px));
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  box-shadow: 0 10px 34px ${colour.shadow};
  overflow: hidden;
  outline: none;
  @media (max-width: ${width.phone}) {
    width: calc(100vw - 24px);
  }
`;

const Search = styled(SearchField)`
  display: flex;
  border-bottom: 1px solid ${colour.faint};
  input {
    flex: 1;
    border: 0;
    padding: ${space.s} ${space.m};
    background: transparent;
    color: ${colour.ink};
    font-size: ${type.small};
    outline: none;
  }
  button {
    border: 0;
    background: none;
    color: ${colour.quiet};
    padding: 0 ${space.m};
    cursor: pointer;
  }
  &[data-empty] button {
    display: none;
  }
`;

const List = styled(ListBox)`
  overflow-y: auto;
  outline: none;
` as unknown as typeof ListBox;

const Row = styled(ListBoxItem)`
  display: flex;
  align-items: center;
  gap: ${space.s};
  height: ${ROW_PX}px;
  padding: 0 ${space.s};
  margin: 0 4px;
  border-radius: ${radius.s};
  cursor: pointer;
  outline: none;
  font-size: ${type.small};
  span:not([aria-hidden]) {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    margin-left: auto;
    color: ${colour.quiet};
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  &[data-selected] {
    font-weight: 650;
    background: ${colour.faint};
  }
  &[data-focused] {
    background: ${colour.accentWash};
    outline: 2px solid ${colour.accent};
    outline-offset: -2px;
  }
`;

const Empty = styled.p`
  padding: ${space.m};
  color: ${colour.quiet};
  font-size: ${type.small};
`;
