import styled from 'styled-components';
import type { Reading } from './draft.js';
import { FigureInput, WrongNote } from './figure-style.js';
import { useDraft } from './use-draft.js';

interface PercentFieldProps {
  readonly label: string;
  readonly value: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}

/** A share in hundredths, edited where it stands. */
export function PercentField({ label, value, max, onChange }: PercentFieldProps) {
  const read = (text: string): Reading<number> => {
    const number = Number(text.replace(',', '.'));
    if (text.trim() === '' || Number.isNaN(number)) return { wrong: `“${text}” is not a number. Nothing was changed.` };
    return number < 0 || number > max
      ? { wrong: `It must be from 0 to ${max}. Nothing was changed.` }
      : { value: number };
  };
  const { draft, props } = useDraft<number>({ label, shown: String(value), read, onKeep: onChange });
  return (
    <>
      <Input inputMode="decimal" {...props} />
      <WrongNote draft={draft} />
    </>
  );
}

const Input = styled(FigureInput)`
  width: 3.6em;
`;
