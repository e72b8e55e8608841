import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { colour } from '../tokens.js';
import { useDraftOf } from './use-draft.js';

interface ColourFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (colour: string) => void;
  readonly onTry: (colour: string | null) => void;
}

/** A colour picked in the browser’s own picker: shown while it is moved through, taken as one step when the picker is done. */
export function ColourField({ label, value, onChange, onTry }: ColourFieldProps) {
  const ref = useRef<HTMLInputElement>(null);
  const [tried, setTried] = useState<string | null>(null);
  const show = (next: string | null) => {
    setTried(next);
    onTry(next);
  };
  const draft = useDraftOf<string>({
    label,
    shown: value,
    read: (text) => ({ value: text }),
    onKeep: onChange,
    onTry: show,
    onLost: () => {},
    focus: () => ref.current?.focus(),
  });
  useEffect(() => {
    // React calls every step of the picker a change; the browser’s own is the last one.
    const input = ref.current!;
    const onDone = () => void draft.keep();
    input.addEventListener('change', onDone);
    return () => input.removeEventListener('change', onDone);
  }, [draft]);
  return (
    <Well
      ref={ref}
      type="color"
      aria-label={label}
      value={tried ?? value}
      onInput={(event) => draft.try(event.currentTarget.value, event.currentTarget.value)}
      onChange={() => {}}
      onBlur={() => draft.keep()}
    />
  );
}

const Well = styled.input`
  width: 34px;
  height: 26px;
  padding: 1px;
  border: 1px solid ${colour.quiet};
  border-radius: 4px;
  background: ${colour.raised};
  vertical-align: middle;
  margin-right: 4px;
  cursor: pointer;
`;
