import { Link } from 'react-router';
import styled from 'styled-components';
import type { Batch } from '../../core/batch/index.js';
import { count } from '../../core/words/index.js';
import { colour, radius, space, type } from '../tokens.js';

/** Told at a job's stations: it is cut together with others, and where. */
export function BatchNote({ batch }: { readonly batch: Batch }) {
  const others = batch.jobs.length - 1;
  return (
    <Note aria-label="Batch">
      This job is cut {others > 0 ? `together with ${count(others, 'other job')}, ` : 'from the cutting list, '}in{' '}
      <Link to={`/cutting-list/${batch.id}`}>batch {batch.number}</Link>. Its sheets are laid out and sent to the cutter
      there.
    </Note>
  );
}

const Note = styled.section`
  padding: ${space.s} ${space.m};
  background: ${colour.accentWash};
  border-left: 4px solid ${colour.accent};
  border-radius: ${radius.m};
  font-size: ${type.small};
`;
