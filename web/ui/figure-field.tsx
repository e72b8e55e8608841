import styled from 'styled-components';
import { formatLength, readLength, sayUnclear, type LengthRead, type LengthUnit } from '../../core/words/index.js';
import type { Reading } from './draft.js';
import { FigureInput, WrongNote } from './figure-style.js';
import { useDraft } from './use-draft.js';

interface FigureFieldProps {
  readonly label: string;
  readonly mm: number;
  readonly unit: LengthUnit;
  /** Less than nothing for a place, which may lie before where it is counted from. */
  readonly min?: number;
  readonly max?: number;
  /** Why it cannot be more, as a sentence. */
  readonly whyMax?: string;
  /** Arrow keys move by this much; what they come to is tried until the field is left. */
  readonly stepMm?: number;
  readonly onChange: (mm: number) => void;
  readonly onTry?: (mm: number | null) => void;
}

/** A length edited where it stands, in any way people say lengths; arrow keys nudge it. */
export function FigureField({
  label,
  mm,
  unit,
  min = 0,
  max = 100_000,
  whyMax,
  stepMm,
  onChange,
  onTry,
}: FigureFieldProps) {
  const parse = (text: string): LengthRead => {
    const isBefore = min < 0 && /^\s*[-−–]/.test(text);
    const length = readLength(isBefore ? text.replace(/^\s*[-−–]/, '') : text, unit);
    return isBefore && 'mm' in length ? { mm: -length.mm } : length;
  };
  const say = (length: number) => (length < 0 ? `−${formatLength(-length, unit)}` : formatLength(length, unit));
  const read = (text: string): Reading<number> => {
    const length = parse(text);
    if ('problem' in length)
      return {
        wrong:
          length.problem === 'unclear'
            ? sayUnclear(text.trim(), length.either)
            : `“${text}” is not a length; try 120, 12 cm or 4 3/4".`,
      };
    if (length.mm < min || length.mm > max)
      return {
        wrong: `It must be from ${say(min)} to ${formatLength(max, unit)} ${unit}.${whyMax && length.mm > max ? ` ${whyMax}` : ''}`,
      };
    return { value: length.mm };
  };
  const nudge = (text: string, way: 1 | -1) => {
    const length = parse(text);
    const value = Math.min(max, Math.max(min, ('mm' in length ? length.mm : mm) + way * stepMm!));
    return { value, text: say(value) };
  };
  const { draft, props } = useDraft<number>({
    label,
    shown: say(mm),
    read,
    onKeep: onChange,
    onTry,
    ...(stepMm ? { nudge } : {}),
  });
  return (
    <Wrap>
      <Input {...props} size={Math.max(4, draft.text.length)} />
      <span aria-hidden>{unit}</span>
      <WrongNote draft={draft} />
    </Wrap>
  );
}

const Wrap = styled.span`
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
`;
const Input = styled(FigureInput)`
  width: auto;
  min-width: 3.2em;
  max-width: 9em;
  margin: 0 3px 0 0;
  field-sizing: content;
`;
