import { useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { formatLength } from '../../core/words/index.js';
import type { JobRuling } from '../../core/recipe/index.js';
import { colour, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { ColouredText } from '../ui/coloured-text.js';
import { Reason } from '../ui/reason.js';
import { useJobContext } from './job-context.js';

interface RulingsProps {
  readonly rulings: readonly JobRuling[];
  /** What stands in place of a ruling's value, so that it can be edited there; by ruling id. */
  readonly editors?: Readonly<Record<string, ReactNode>>;
  /** What stands below a ruling's sentence, by ruling id. */
  readonly below?: Readonly<Record<string, ReactNode>>;
  /** Taking the maker's value back, by ruling id. */
  readonly onReturn?: Readonly<Record<string, () => void>>;
}

/** What the app has decided, in sentences: the figure editable in place, the reasons one key away, an overruled one saying so. */
export function Rulings({ rulings, editors = {}, below = {}, onReturn = {} }: RulingsProps) {
  if (rulings.length === 0) return null;
  return (
    <List aria-label="What was decided">
      {rulings.map((ruling) => (
        <RulingItem
          key={ruling.id}
          ruling={ruling}
          editor={editors[ruling.id]}
          below={below[ruling.id]}
          onReturn={onReturn[ruling.id]}
        />
      ))}
    </List>
  );
}

interface RulingItemProps {
  readonly ruling: JobRuling;
  readonly editor: ReactNode;
  readonly below: ReactNode;
  readonly onReturn: (() => void) | undefined;
}

function RulingItem({ ruling, editor, below, onReturn }: RulingItemProps) {
  const { handle, unit } = useJobContext();
  const [open, setOpen] = useState(false);
  const say = (value: number | string) =>
    ruling.unit === 'mm' && typeof value === 'number'
      ? `${formatLength(value, unit)} ${unit}`
      : `${value}${ruling.unit ? ` ${ruling.unit}` : ''}`;
  const [before, after = ''] = ruling.sentence.split('{value}');
  return (
    <Item tabIndex={-1}>
      <Sentence>
        <ColouredText text={before!} />
        {editor ?? <strong>{say(ruling.value)}</strong>}
        <ColouredText text={after} />
      </Sentence>
      {below}
      {ruling.overridden && (
        <Overruled>
          Your decision
          {ruling.proposed !== undefined && ruling.proposed !== '' ? `. The app would use ${say(ruling.proposed)}` : ''}
          . {onReturn && <WordButton onPress={onReturn}>Let the app decide</WordButton>}
        </Overruled>
      )}
      <div>
        <WordButton
          onPress={() => setOpen(!open)}
          aria-expanded={open}
          aria-label={`${open ? 'Hide reasons' : 'Why?'} ${ruling.subject}`}
        >
          {open ? 'Hide reasons' : 'Why?'}
        </WordButton>{' '}
        {ruling.alternatives?.map((alternative) => (
          <WordButton key={alternative.label} onPress={() => handle.change(alternative.patch)}>
            {alternative.label}
          </WordButton>
        ))}
      </div>
      {open && (
        <Reasons>
          {ruling.because.map((reason) => (
            <li key={reason}>
              <Reason text={reason} />
            </li>
          ))}
        </Reasons>
      )}
    </Item>
  );
}

const List = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.m};
`;
const Item = styled.li`
  display: grid;
  gap: 2px;
  padding-left: ${space.m};
  border-left: 3px solid ${colour.line};
`;
const Sentence = styled.p`
  font-size: 1rem;
  line-height: 1.5;
  strong {
    font-weight: 700;
    font-variant-numeric: tabular-nums;
  }
`;
const Overruled = styled.p`
  font-size: ${type.small};
  color: ${colour.warn};
`;
const Reasons = styled.ul`
  padding-left: 1.1em;
  font-size: ${type.small};
  color: ${colour.quiet};
  display: grid;
  gap: 2px;
`;
