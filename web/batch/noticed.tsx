import { Link } from 'react-router';
import styled from 'styled-components';
import type { Batch, BatchView } from '../../core/batch/index.js';
import type { LayWish } from '../../core/laying/index.js';
import { count } from '../../core/words/index.js';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';

interface NoticedProps {
  readonly batch: Batch;
  readonly plan: BatchView;
  readonly onChange: (wish: LayWish) => void;
}

/** What a batch is laid out without: jobs that something stops, film that is short, and copies that no longer lie where a hand laid them. The stations of a job alone say the first two themselves. */
export function Noticed({ batch, plan: { stopped, short, loose }, onChange }: NoticedProps) {
  const isAlone = batch.number === null;
  if (loose === 0 && (isAlone || (stopped.length === 0 && short.length === 0))) return null;
  const titleOf = (jobId: string) => batch.jobs.find(({ id }) => id === jobId)?.title ?? '';
  return (
    <List aria-label="Findings of the layout">
      {!isAlone &&
        stopped.map(({ jobId, why }) => (
          <li key={jobId} data-severity="warning">
            <Link to={`/jobs/${jobId}/artwork`}>{titleOf(jobId)}</Link> is left out. Something stops it: {why}
          </li>
        ))}
      {!isAlone &&
        short.map(({ filmId, message, spacingMm }) => (
          <li key={filmId} data-severity="blocker">
            {message}{' '}
            {spacingMm !== null && (
              <WordButton onPress={() => onChange({ ...batch.wish, spacingMm })}>
                Keep {spacingMm} mm between pieces
              </WordButton>
            )}
          </li>
        ))}
      {loose > 0 && (
        <li data-severity="warning">
          {count(loose, 'copy', 'copies')} that you laid by hand cannot lie there any more: the layer, the piece or what
          lies beside it has changed. The app has laid {loose === 1 ? 'it' : 'them'}.
        </li>
      )}
    </List>
  );
}

const List = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  li {
    padding: ${space.s} ${space.m};
    border-radius: ${radius.m};
    background: ${colour.warnWash};
    border-left: 4px solid ${colour.warn};
    overflow-wrap: anywhere;
  }
  li[data-severity='blocker'] {
    background: ${colour.badWash};
    border-left-color: ${colour.bad};
  }
`;
