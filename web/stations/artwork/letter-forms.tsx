import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import type { LetteringPart } from '../../../core/stations/artwork/index.js';
import type { Lettering } from '../../../core/engines/artwork/index.js';
import { artworkQuery } from '../../api/artwork-picture.js';
import type { LetterForms } from '../../../core/plan/page/plan-view.js';
import { planner } from '../../plan/planner.js';
import { colour, radius, space } from '../../tokens.js';

/** Letters that the font has other forms for; choosing one shows its forms to choose from. */
export function LetterFormsPicker({
  part,
  onChoose,
}: {
  readonly part: LetteringPart;
  readonly onChoose: (alternates: Lettering['alternates']) => void;
}) {
  const { lettering, fontSource } = part;
  const file = useQuery({ ...artworkQuery(fontSource?.id ?? ''), enabled: fontSource !== null }).data;
  const letters = useQuery({
    queryKey: ['letter forms', lettering.font, lettering.text],
    queryFn: () => planner.ask((api) => api.letterForms(lettering, file ?? null)),
    enabled: fontSource === null || file !== undefined,
    staleTime: Infinity,
  }).data;
  const [at, setAt] = useState<number | null>(null);
  if (!letters || letters.length === 0) return null;
  const open = letters.find((letter) => letter.index === at) ?? null;
  return (
    <section aria-label="Other forms of letters">
      <p>Letters that have other forms:</p>
      <Row>
        {letters.map((letter) => (
          <Key
            key={letter.index}
            type="button"
            aria-expanded={open === letter}
            data-changed={lettering.alternates[letter.index] ? true : undefined}
            onClick={() => setAt(at === letter.index ? null : letter.index)}
          >
            {letter.letter}
          </Key>
        ))}
      </Row>
      {open && (
        <Row role="radiogroup" aria-label={`Forms of ${open.letter}`}>
          {open.forms.map((form, i) => (
            <Form
              key={form.feature ?? 'plain'}
              type="button"
              role="radio"
              aria-checked={(lettering.alternates[open.index] ?? null) === form.feature}
              aria-label={form.feature ? `Form ${i + 1} of ${open.letter}` : `The plain ${open.letter}`}
              onClick={() => onChoose(chosen(lettering.alternates, open, form.feature))}
            >
              <svg viewBox="-250 -950 1500 1400" aria-hidden>
                <path d={form.path} fillRule="evenodd" />
              </svg>
            </Form>
          ))}
        </Row>
      )}
    </section>
  );
}

function chosen(before: Lettering['alternates'], letter: LetterForms, feature: string | null): Lettering['alternates'] {
  const rest = Object.fromEntries(Object.entries(before).filter(([index]) => Number(index) !== letter.index));
  return feature ? { ...rest, [letter.index]: feature } : rest;
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.xs};
  padding: 2px 0;
`;

const Key = styled.button`
  min-width: 28px;
  min-height: 28px;
  border: 1px solid ${colour.line};
  border-radius: ${radius.s};
  background: ${colour.raised};
  color: ${colour.ink};
  font: 600 1rem/1 serif;
  cursor: pointer;
  &[data-changed] {
    border-color: ${colour.accent};
    box-shadow: inset 0 -3px 0 ${colour.accent};
  }
  &[aria-expanded='true'] {
    background: ${colour.accentWash};
  }
`;

const Form = styled.button`
  width: 64px;
  height: 60px;
  padding: 2px;
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  background: ${colour.raised};
  cursor: pointer;
  svg {
    width: 100%;
    height: 100%;
    fill: ${colour.ink};
  }
  &[aria-checked='true'] {
    border: 2px solid ${colour.accent};
    background: ${colour.accentWash};
  }
`;
