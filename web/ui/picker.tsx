import { useRef, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { fetchedLate, Part } from './part.js';

/** One of those that can be picked. */
export interface PickOption {
  readonly id: string;
  /** What it is called; what is searched. */
  readonly text: string;
  /** Said behind its name, smaller. */
  readonly hint?: string;
  /** A sign before its name. */
  readonly mark?: ReactNode;
}

interface PickerProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly PickOption[];
  /** What is said while the value is none of the options. */
  readonly placeholder?: string;
  readonly isDisabled?: boolean;
  readonly onChange: (id: string) => void;
}

// Most are never opened: the list is fetched with the first that is looked at.
const loadList = () => import('./picker-list.js');
const PickerList = fetchedLate(loadList, (m) => m.PickerList);

/** One of several, of which only the one picked is seen; the others come in a list that can be searched when it is long. */
export function Picker({ label, value, options, placeholder = 'choose …', isDisabled = false, onChange }: PickerProps) {
  const chosen = options.find(({ id }) => id === value);
  return (
    <PickerButton label={label} said={chosen?.text ?? placeholder} mark={chosen?.mark} isDisabled={isDisabled}>
      {({ button, close }) => (
        <PickerList
          label={label}
          value={value}
          options={options}
          button={button}
          onClose={close}
          onPick={(id) => {
            close();
            onChange(id);
          }}
        />
      )}
    </PickerButton>
  );
}

interface PickerButtonProps {
  readonly label: string;
  readonly said: string;
  readonly mark?: ReactNode;
  readonly isDisabled?: boolean;
  readonly children: (list: { readonly button: HTMLButtonElement; readonly close: () => void }) => ReactNode;
}

/** What shows the one that is picked, and opens the list of the others. */
export function PickerButton({ label, said, mark, isDisabled = false, children }: PickerButtonProps) {
  const button = useRef<HTMLButtonElement>(null);
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Shown
        ref={button}
        type="button"
        aria-label={`${label}: ${said}`}
        aria-haspopup="listbox"
        aria-expanded={isOpen}
        disabled={isDisabled}
        onFocus={() => void loadList().catch(() => {})}
        onClick={() => setOpen(true)}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
          event.preventDefault();
          setOpen(true);
        }}
      >
        {mark}
        <span>{said}</span>
        <i aria-hidden>▾</i>
      </Shown>
      {isOpen && (
        <Part name="This list" fallback={null}>
          {children({
            button: button.current!,
            close: () => {
              setOpen(false);
              button.current?.focus();
            },
          })}
        </Part>
      )}
    </>
  );
}

const Shown = styled.button`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  max-width: 100%;
  min-height: 30px;
  padding: 3px ${space.s};
  cursor: pointer;
  vertical-align: middle;
  text-align: left;
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  background: ${colour.raised};
  color: ${colour.ink};
  font: 500 ${type.small} / 1.2 ${type.text};
  > span:not([aria-hidden]) {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  i {
    margin-left: auto;
    color: ${colour.quiet};
    font-style: normal;
    font-size: 0.75em;
  }
  &:hover:not(:disabled) {
    border-color: ${colour.accent};
  }
  &:disabled {
    color: ${colour.quiet};
    border-style: dashed;
    cursor: default;
  }
`;
