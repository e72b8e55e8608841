import styled from 'styled-components';
import type { Reading } from './draft.js';
import { FigureInput, WrongNote } from './figure-style.js';
import { useDraft } from './use-draft.js';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}

/** A whole number edited where it stands. What is none, or out of range, is refused in a sentence and stays in the field. */
export function NumberField({ label, value, min, max, onChange }: NumberFieldProps) {
  const read = (text: string): Reading<number> => {
    const number = Number(text);
    if (text.trim() === '' || !Number.isInteger(number))
      return { wrong: `“${text}” is not a whole number. Nothing was changed.` };
    return number < min || number > max
      ? { wrong: `It must be from ${min} to ${max}. Nothing was changed.` }
      : { value: number };
  };
  const nudge = (text: string, way: 1 | -1) => {
    const next = Math.round(Number(text)) + way;
    return next >= min && next <= max ? { value: next, text: String(next) } : null;
  };
  const { draft, props } = useDraft<number>({ label, shown: String(value), read, nudge, onKeep: onChange });
  return (
    <>
      <Input inputMode="numeric" {...props} />
      <WrongNote draft={draft} />
    </>
  );
}

const Input = styled(FigureInput)`
  width: 4.5em;
`;
