import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { colour, radius, type } from '../tokens.js';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}

/** A whole number edited where it stands. */
export function NumberField({ label, value, min, max, onChange }: NumberFieldProps) {
  const [text, setText] = useState(String(value));
  useEffect(() => setText(String(value)), [value]);
  const commit = () => {
    const number = Math.round(Number(text));
    if (text.trim() === '' || !Number.isFinite(number)) setText(String(value));
    else if (Math.min(max, Math.max(min, number)) === value) setText(String(value));
    else onChange(Math.min(max, Math.max(min, number)));
  };
  return <Input type="number" aria-label={label} min={min} max={max} step={1} value={text} onChange={(event) => setText(event.target.value)} onBlur={commit} onKeyDown={(event) => event.key === 'Enter' && commit()} />;
}

const Input = styled.input`
  width: 4.5em; padding: 1px 4px; text-align: right; border: 0; border-bottom: 1.5px dashed ${colour.accent}; border-radius: ${radius.s} ${radius.s} 0 0;
  background: ${colour.accentWash}; color: ${colour.ink}; font: 650 1em/1.3 ${type.text};
`;
