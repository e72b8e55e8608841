import { Link } from 'react-router';
import styled from 'styled-components';
import type { Batch } from '../../core/batch/index.js';
import { space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { Small } from '../ui/plain-fields.js';
import { sayDay } from '../ui/say.js';

interface JobsInBatchProps {
  readonly batch: Batch;
  readonly looked: string | null;
  readonly onLook: (jobId: string | null) => void;
  readonly onTakeOut: (jobId: string) => void;
  readonly onEnd: () => void;
}

/** The jobs of a batch: seen alone on the sheets, taken out one by one, or all apart. */
export function JobsInBatch({ batch, looked, onLook, onTakeOut, onEnd }: JobsInBatchProps) {
  return (
    <section aria-label="Jobs in this batch">
      <h3>Jobs in it</h3>
      <List>
        {batch.jobs.map(({ id, title, due }) => (
          <li key={id}>
            <span>
              <Link to={`/jobs/${id}/sheets`}>{title}</Link>
              <Small as="span"> {due ? `due ${sayDay(due)}` : ''}</Small>
            </span>
            <span>
              <WordButton
                aria-pressed={looked === id}
                aria-label={`${looked === id ? 'Show all, not only' : 'Show only'} ${title}`}
                onPress={() => onLook(looked === id ? null : id)}
              >
                {looked === id ? 'Show all' : 'Show only'}
              </WordButton>{' '}
              {batch.jobs.length > 1 && (
                <WordButton aria-label={`Take out ${title}`} onPress={() => onTakeOut(id)}>
                  Take out
                </WordButton>
              )}
            </span>
          </li>
        ))}
      </List>
      <WordButton onPress={onEnd}>Take the batch apart</WordButton>
      <Small>Each job is then cut alone again. What is cut stays cut.</Small>
    </section>
  );
}

const List = styled.ul`
  list-style: none;
  font-size: ${type.small};
  display: grid;
  gap: ${space.xs};
  padding-bottom: ${space.s};
  li {
    display: flex;
    justify-content: space-between;
    gap: ${space.m};
  }
  li > :first-child {
    overflow-wrap: anywhere;
  }
  li > :last-child {
    white-space: nowrap;
  }
`;
