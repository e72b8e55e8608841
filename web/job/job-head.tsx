import { useState, useSyncExternalStore } from 'react';
import styled from 'styled-components';
import { colour, space, type, width } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { hasDrafts, onDrafts } from '../ui/draft.js';
import { WrongNote } from '../ui/figure-style.js';
import { sayDay } from '../ui/say.js';
import { useDraft } from '../ui/use-draft.js';
import type { SavingState } from './edit-queue.js';
import { useJobContext } from './job-context.js';
import { fetchedLate, Part } from '../ui/part.js';

// A calendar is large, and most visits set no date.
const DueDate = fetchedLate(
  () => import('./due-date.js'),
  (m) => m.DueDate,
);

const SAVING_WORDS: Readonly<Record<SavingState, string>> = {
  saved: 'saved',
  saving: 'saving …',
  away: 'not saved yet: the server is away',
  refused: 'not saved',
};

/** The head of the job card: what it is called, for whom, by when; undo and redo over all of it. */
export function JobHead() {
  const { handle, job, recipe, working } = useJobContext();
  const [isDating, setDating] = useState(false);
  const isTyping = useSyncExternalStore(onDrafts, hasDrafts);
  return (
    <Row>
      <h1 className="unseen">{recipe.title}</h1>
      <Line label="Title" value={recipe.title} wide required onChange={(title) => handle.change({ title })} />
      <Line
        label="Customer"
        value={recipe.customer}
        placeholder="who is it for?"
        onChange={(customer) => handle.change({ customer })}
      />
      <Due>
        <span aria-hidden>due</span>
        {isDating ? (
          <Part name="The calendar" fallback={<span>{recipe.due ? sayDay(recipe.due) : '…'}</span>}>
            <DueDate due={recipe.due} onChange={(due) => handle.change({ due })} />
          </Part>
        ) : (
          <WordButton
            aria-label={`Due date: ${recipe.due ? sayDay(recipe.due) : 'no date'}`}
            onPress={() => setDating(true)}
          >
            {recipe.due ? sayDay(recipe.due) : 'no date'}
          </WordButton>
        )}
      </Due>
      <State role="status" data-saving={handle.saving}>
        {handle.saving === 'saved' && isTyping ? 'not saved yet' : SAVING_WORDS[handle.saving]}
      </State>
      <Working aria-hidden>{working ? 'planning …' : ''}</Working>
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
  const { draft, props } = useDraft<string>({
    label,
    shown: value,
    read: (text) =>
      required && text.trim() === '' ? { wrong: `${label}: it cannot be empty.` } : { value: text.trim() },
    onKeep: (text) => text !== value && onChange(text),
  });
  return (
    <>
      <Written $wide={wide} placeholder={placeholder} maxLength={200} {...props} />
      <WrongNote draft={draft} />
    </>
  );
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.xs} ${space.m};
  padding: 0 ${space.l} ${space.s};
  @media (max-width: ${width.phone}) {
    padding: 0 ${space.s} ${space.xs};
  }
`;

const Written = styled.input<{ $wide: boolean }>`
  border: 0;
  border-bottom: 1px dashed transparent;
  background: transparent;
  padding: 2px 4px;
  min-width: 0;
  text-overflow: ellipsis;
  ${(p) => (p.$wide ? `font: 650 1.25rem/1.3 ${type.display}; flex: 2 1 300px;` : `font: 500 ${type.small}/1.3 ${type.text}; flex: 1 1 150px; color: ${colour.quiet};`)}
  &:hover {
    border-bottom-color: ${colour.line};
  }
  &:focus {
    border-bottom-color: ${colour.accent};
    color: ${colour.ink};
  }
  &::placeholder {
    color: ${colour.quiet};
    opacity: 1;
    font-style: italic;
  }
`;

const Due = styled.span`
  display: inline-flex;
  align-items: center;
  gap: ${space.xs};
  font-size: ${type.small};
  color: ${colour.quiet};
`;

const State = styled.span`
  font-size: ${type.small};
  color: ${colour.quiet};
  min-width: 5.5em;
  text-align: right;
  &[data-saving='away'],
  &[data-saving='refused'] {
    color: ${colour.warn};
    font-weight: 600;
  }
`;

const Working = styled.span`
  font-size: ${type.small};
  color: ${colour.quiet};
  min-width: 7.2em;
`;
