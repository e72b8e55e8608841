import { useEffect, useId, useState } from 'react';
import styled from 'styled-components';
import { colour, radius, type } from '../tokens.js';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}

/** A whole number edited where it stands. What is none, or out of range, is refused in a sentence and stays in the field. */
export function NumberField({ label, value, min, max, onChange }: NumberFieldProps) {
  const [text, setText] = useState(String(value));
  const [wrong, setWrong] = useState<string | null>(null);
  const hint = useId();
  useEffect(() => {
    setText(String(value));
    setWrong(null);
  }, [value]);
  const commit = () => {
    const number = Number(text);
    if (text.trim() === '' || !Number.isInteger(number)) setWrong(`“${text}” is not a whole number. Nothing was changed.`);
    else if (number < min || number > max) setWrong(`It must be from ${min} to ${max}. Nothing was changed.`);
    else {
      setWrong(null);
      if (number !== value) onChange(number);
    }
  };
  return (
    <>
      <Input
        inputMode="numeric"
        aria-label={label}
        aria-invalid={wrong !== null}
        aria-describedby={wrong ? hint : undefined}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') {
            setText(String(value));
            setWrong(null);
          }
          if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            const next = Math.round(Number(text)) + (event.key === 'ArrowUp' ? 1 : -1);
            if (next >= min && next <= max) setText(String(next));
          }
        }}
      />
      {wrong && (
        <Wrong id={hint} role="alert">
          {wrong}
        </Wrong>
      )}
    </>
  );
}

const Wrong = styled.span`display: block; color: ${colour.bad}; font-size: ${type.small};`;

const Input = styled.input`
  width: 4.5em; padding: 1px 4px; text-align: right; border: 0; border-bottom: 1.5px dashed ${colour.accent}; border-radius: ${radius.s} ${radius.s} 0 0;
  background: ${colour.accentWash}; color: ${colour.ink}; font: 650 1em/1.3 ${type.text};
  &[aria-invalid='true'] { border-bottom: 2px solid ${colour.bad}; background: ${colour.badWash}; }
`;
