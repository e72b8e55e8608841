import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { colour, radius, type } from '../tokens.js';

interface PercentFieldProps {
  readonly label: string;
  readonly value: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}

/** A share in hundredths, edited where it stands. */
export function PercentField({ label, value, max, onChange }: PercentFieldProps) {
  const [text, setText] = useState(String(value));
  useEffect(() => setText(String(value)), [value]);
  const commit = () => {
    const number = Number(text.replace(',', '.'));
    if (text.trim() === '' || !(number >= 0) || number > max) setText(String(value));
    else if (number !== value) onChange(number);
  };
  return <Input inputMode="decimal" aria-label={label} value={text} onChange={(event) => setText(event.target.value)} onBlur={commit} onKeyDown={(event) => event.key === 'Enter' && commit()} />;
}

const Input = styled.input`
  width: 3.6em; padding: 1px 4px; text-align: right; border: 0; border-bottom: 1.5px dashed ${colour.accent}; border-radius: ${radius.s} ${radius.s} 0 0;
  background: ${colour.accentWash}; color: ${colour.ink}; font: 650 1em/1.3 ${type.text};
`;
