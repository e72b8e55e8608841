import { useId } from 'react';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [value: T, label: string])[];
  readonly onChange: (value: T) => void;
}

/** One of a few, all of them in view. */
export function Choice<T extends string>({ label, value, options, onChange }: ChoiceProps<T>) {
  const name = useId();
  return (
    <Row>
      <legend className="unseen">{label}</legend>
      {options.map(([option, text]) => (
        <Cell key={option}>
          <input type="radio" name={name} value={option} checked={option === value} onChange={() => onChange(option)} />
          <span>{text}</span>
        </Cell>
      ))}
    </Row>
  );
}

const Row = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px;
`;

const Cell = styled.label`
  position: relative;
  cursor: pointer;
  input {
    position: absolute;
    opacity: 0;
    inset: 0;
    margin: 0;
    cursor: pointer;
  }
  span {
    display: block;
    padding: 5px ${space.s};
    font: 550 ${type.small} / 1.2 ${type.text};
    border-radius: ${radius.s};
    border-bottom: 2px solid transparent;
    color: ${colour.quiet};
  }
  input:checked + span {
    color: ${colour.ink};
    border-bottom-color: ${colour.accent};
    background: ${colour.accentWash};
  }
  input:hover + span {
    color: ${colour.ink};
  }
  @media (forced-colors: active) {
    span {
      border-bottom-color: Canvas;
    }
    input:checked + span {
      border-bottom-color: Highlight;
    }
  }
  input:focus-visible + span {
    outline: 2.5px solid ${colour.accent};
    outline-offset: 1px;
  }
`;
