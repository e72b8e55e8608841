import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { useServerAway } from '../api/presence.js';
import { colour, space, type, width } from '../tokens.js';

/** Says that the server does not answer, for as long as it does not. What was fetched before is asked for again when it is back. */
export function ServerAway() {
  const since = useServerAway();
  const client = useQueryClient();
  const wasAway = useRef(false);
  useEffect(() => {
    if (wasAway.current && !since) void client.invalidateQueries();
    wasAway.current = since !== null;
  }, [since, client]);
  return (
    <div role="status">
      {since && (
        <Band>
          <strong>
            The bench computer has not answered since{' '}
            {since.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}.
          </strong>{' '}
          What you change is kept in this browser and saved when it is back. A cut that was begun may go on or wait;
          look at the cutter itself.
        </Band>
      )}
    </div>
  );
}

const Band = styled.p`
  padding: ${space.s} ${space.l};
  background: ${colour.warnWash};
  color: ${colour.ink};
  border-left: 4px solid ${colour.warn};
  font-size: ${type.small};
  @media (max-width: ${width.phone}) {
    padding: ${space.s};
  }
`;
