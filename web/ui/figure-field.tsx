import { useEffect, useId, useState } from 'react';
import styled from 'styled-components';
import { formatLength, parseLength, type LengthUnit } from '../../core/job/index.js';
import { colour, radius, type } from '../tokens.js';

interface FigureFieldProps {
  readonly label: string;
  readonly mm: number;
  readonly unit: LengthUnit;
  readonly min?: number;
  readonly max?: number;
  /** Arrow keys move by this much; held, they are tried before they are saved. */
  readonly stepMm?: number;
  readonly onChange: (mm: number) => void;
  readonly onTry?: (mm: number) => void;
  /** What was tried is not wanted after all. */
  readonly onGiveUp?: () => void;
}

/** A length edited where it stands, in any way people say lengths; arrow keys nudge it. */
export function FigureField({ label, mm, unit, min = 0, max = 100_000, stepMm, onChange, onTry, onGiveUp }: FigureFieldProps) {
  const shown = formatLength(mm, unit);
  const [text, setText] = useState(shown);
  const [wrong, setWrong] = useState<string | null>(null);
  const [tried, setTried] = useState(false);
  const hint = useId();
  useEffect(() => {
    setText(shown);
    setWrong(null);
  }, [shown]);
  const commit = () => {
    if (text === shown && !tried) return;
    setTried(false);
    const value = parseLength(text, unit);
    if (value === null) setWrong(`“${text}” is not a length; try 120, 12 cm or 4 3/4".`);
    else if (value < min || value > max) setWrong(`It must be from ${formatLength(min, unit)} to ${formatLength(max, unit)} ${unit}.`);
    else onChange(value);
  };
  return (
    <Wrap>
      <Input
        aria-label={label}
        aria-invalid={wrong !== null}
        aria-describedby={wrong ? hint : undefined}
        value={text}
        size={Math.max(4, text.length)}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') {
            setText(shown);
            setWrong(null);
            setTried(false);
            onGiveUp?.();
          }
          if (stepMm && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
            event.preventDefault();
            const next = Math.min(max, Math.max(min, (parseLength(text, unit) ?? mm) + (event.key === 'ArrowUp' ? stepMm : -stepMm)));
            setText(formatLength(next, unit));
            setTried(true);
            onTry?.(next);
          }
        }}
      />
      <span aria-hidden>{unit}</span>
      {wrong && (
        <Wrong id={hint} role="alert">
          {wrong}
        </Wrong>
      )}
    </Wrap>
  );
}

const Wrap = styled.span`white-space: nowrap; font-variant-numeric: tabular-nums;`;

const Input = styled.input`
  width: auto; min-width: 3.2em; max-width: 9em; padding: 1px 4px; margin: 0 3px 0 0; text-align: right; field-sizing: content;
  border: 0; border-bottom: 1.5px dashed ${colour.accent}; border-radius: ${radius.s} ${radius.s} 0 0;
  background: ${colour.accentWash}; color: ${colour.ink}; font: 650 1em/1.3 ${type.text};
  &[aria-invalid='true'] { border-bottom: 2px solid ${colour.bad}; background: ${colour.badWash}; }
`;

const Wrong = styled.span`display: block; color: ${colour.bad}; font-size: ${type.small}; white-space: normal;`;
