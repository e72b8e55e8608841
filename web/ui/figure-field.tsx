import styled from 'styled-components';
import { formatLength, readLength, sayUnclear, type LengthUnit } from '../../core/words/index.js';
import type { Reading } from './draft.js';
import { FigureInput, WrongNote } from './figure-style.js';
import { useDraft } from './use-draft.js';

interface FigureFieldProps {
  readonly label: string;
  readonly mm: number;
  readonly unit: LengthUnit;
  readonly min?: number;
  readonly max?: number;
  /** Arrow keys move by this much; what they come to is tried until the field is left. */
  readonly stepMm?: number;
  readonly onChange: (mm: number) => void;
  readonly onTry?: (mm: number | null) => void;
}

/** A length edited where it stands, in any way people say lengths; arrow keys nudge it. */
export function FigureField({ label, mm, unit, min = 0, max = 100_000, stepMm, onChange, onTry }: FigureFieldProps) {
  const read = (text: string): Reading<number> => {
    const length = readLength(text, unit);
    if ('problem' in length) return { wrong: length.problem === 'unclear' ? sayUnclear(text.trim(), length.either) : `“${text}” is not a length; try 120, 12 cm or 4 3/4".` };
    if (length.mm < min || length.mm > max) return { wrong: `It must be from ${formatLength(min, unit)} to ${formatLength(max, unit)} ${unit}.` };
    return { value: length.mm };
  };
  const nudge = (text: string, way: 1 | -1) => {
    const length = readLength(text, unit);
    const value = Math.min(max, Math.max(min, ('mm' in length ? length.mm : mm) + way * stepMm!));
    return { value, text: formatLength(value, unit) };
  };
  const { draft, props } = useDraft<number>({ label, shown: formatLength(mm, unit), read, onKeep: onChange, onTry, ...(stepMm ? { nudge } : {}) });
  return (
    <Wrap>
      <Input {...props} size={Math.max(4, draft.text.length)} />
      <span aria-hidden>{unit}</span>
      <WrongNote draft={draft} />
    </Wrap>
  );
}

const Wrap = styled.span`white-space: nowrap; font-variant-numeric: tabular-nums;`;
const Input = styled(FigureInput)`width: auto; min-width: 3.2em; max-width: 9em; margin: 0 3px 0 0; field-sizing: content;`;
