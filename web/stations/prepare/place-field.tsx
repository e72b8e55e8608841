import styled from 'styled-components';
import { formatLength, readLength, type LengthUnit } from '../../../core/words/index.js';
import type { Reading } from '../../ui/draft.js';
import { FigureInput, WrongNote } from '../../ui/figure-style.js';
import { useDraft } from '../../ui/use-draft.js';

interface PlaceFieldProps {
  readonly label: string;
  readonly mm: number;
  readonly unit: LengthUnit;
  readonly onChange: (mm: number) => void;
}

/** Farther off nothing lies, mm. */
const FARTHEST = 100_000;

/** A place along one direction of the design, which may lie before its beginning; arrow keys nudge it by a millimetre. */
export function PlaceField({ label, mm, unit, onChange }: PlaceFieldProps) {
  const parse = (text: string): number | null => {
    const tidy = text.trim();
    const isBefore = /^[-−–]/.test(tidy);
    const length = readLength(isBefore ? tidy.slice(1) : tidy, unit);
    return 'mm' in length && length.mm <= FARTHEST ? (isBefore ? -length.mm : length.mm) : null;
  };
  const read = (text: string): Reading<number> => {
    const value = parse(text);
    return value === null ? { wrong: `“${text}” is not a place; try 120, −8 or 12 cm.` } : { value };
  };
  const { draft, props } = useDraft<number>({ label, shown: sayPlace(mm, unit), read, onKeep: onChange, nudge: (text, way) => {
    const value = (parse(text) ?? mm) + way;
    return { value, text: sayPlace(value, unit) };
  } });
  return (
    <Wrap>
      <Input {...props} size={Math.max(4, draft.text.length)} />
      <span aria-hidden>{unit}</span>
      <WrongNote draft={draft} />
    </Wrap>
  );
}

function sayPlace(mm: number, unit: LengthUnit): string {
  return mm < 0 ? `−${formatLength(-mm, unit)}` : formatLength(mm, unit);
}

const Wrap = styled.span`white-space: nowrap; font-variant-numeric: tabular-nums;`;
const Input = styled(FigureInput)`width: auto; min-width: 3.2em; max-width: 7em; margin: 0 3px 0 0; field-sizing: content;`;
