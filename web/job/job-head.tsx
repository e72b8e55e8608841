import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { colour, radius, space, type, width } from '../tokens.js';
import { Button } from '../ui/button.js';
import type { SavingState } from './edit-queue.js';
import { useJobContext } from './job-context.js';

const SAVING_WORDS: Readonly<Record<SavingState, string>> = { saved: 'saved', saving: 'saving …', away: 'not saved yet: the server is away', refused: 'not saved' };

/** The head of the job card: what it is called, for whom, by when; undo and redo over all of it. */
export function JobHead() {
  const { handle, job, recipe, working } = useJobContext();
  return (
    <Row>
      <h1 className="unseen">{recipe.title}</h1>
      <Line label="Title" value={recipe.title} wide required onChange={(title) => handle.change({ title })} />
      <Line label="Customer" value={recipe.customer} placeholder="for whom?" onChange={(customer) => handle.change({ customer })} />
      <Due>
        due
        <input type="date" aria-label="Due date" value={recipe.due ?? ''} onChange={(event) => handle.change({ due: event.target.value || null })} />
      </Due>
      <State role="status" data-saving={handle.saving}>
        {SAVING_WORDS[handle.saving]}
        {working ? ' · working it out …' : ''}
      </State>
      <Button onPress={handle.undo} isDisabled={!job.canUndo} aria-keyshortcuts="Control+Z">
        Undo
      </Button>
      <Button onPress={handle.redo} isDisabled={!job.canRedo} aria-keyshortcuts="Control+Shift+Z">
        Redo
      </Button>
    </Row>
  );
}

interface LineProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly wide?: boolean;
  readonly required?: boolean;
  readonly onChange: (value: string) => void;
}

function Line({ label, value, placeholder, wide = false, required = false, onChange }: LineProps) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const commit = () => {
    const tidy = text.trim();
    if (required && tidy === '') setText(value);
    else if (tidy !== value) onChange(tidy);
  };
  return (
    <Written
      aria-label={label}
      $wide={wide}
      value={text}
      placeholder={placeholder}
      maxLength={200}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape') setText(value);
      }}
    />
  );
}

const Row = styled.div`
  display: flex; flex-wrap: wrap; align-items: center; gap: ${space.xs} ${space.m}; padding: 0 ${space.l} ${space.s};
  @media (max-width: ${width.phone}) { padding: 0 ${space.s} ${space.xs}; }
`;

const Written = styled.input<{ $wide: boolean }>`
  border: 0; border-bottom: 1px dashed transparent; background: transparent; padding: 2px 4px; min-width: 0; text-overflow: ellipsis;
  ${(p) => (p.$wide ? `font: 650 1.25rem/1.3 ${type.display}; flex: 2 1 300px;` : `font: 500 ${type.small}/1.3 ${type.text}; flex: 1 1 150px; color: ${colour.quiet};`)}
  &:hover { border-bottom-color: ${colour.line}; }
  &:focus { border-bottom-color: ${colour.accent}; color: ${colour.ink}; }
  &::placeholder { color: ${colour.quiet}; opacity: 1; font-style: italic; }
`;

const Due = styled.label`
  display: inline-flex; align-items: center; gap: ${space.xs}; font-size: ${type.small}; color: ${colour.quiet};
  input { border: 1px solid ${colour.line}; background: ${colour.docket}; border-radius: ${radius.s}; padding: 3px 6px; font-size: ${type.small}; color: ${colour.ink}; }
`;

const State = styled.span`
  font-size: ${type.small}; color: ${colour.quiet}; min-width: 7.5em; text-align: right;
  &[data-saving='away'], &[data-saving='refused'] { color: ${colour.warn}; font-weight: 600; }
`;
