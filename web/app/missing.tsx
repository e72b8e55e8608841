import { Link, useRouteError } from 'react-router';
import styled from 'styled-components';
import { space, type } from '../tokens.js';

/** An address that leads nowhere, or a screen that broke: says which, and the way back. */
export function Missing() {
  const error = useRouteError();
  return (
    <Middle>
      <h1>{error ? 'This screen stopped working' : 'There is nothing at this address'}</h1>
      <p>{error ? 'The job itself is safe: every decision is saved as you make it. Load the page again, or go back to the jobs.' : 'The job may have been deleted, or the address mistyped.'}</p>
      <p>
        <Link to="/">To the jobs</Link>
      </p>
    </Middle>
  );
}

const Middle = styled.div`
  max-width: 34rem; margin: 12vh auto; padding: ${space.l}; display: grid; gap: ${space.m};
  h1 { font-size: ${type.title}; }
`;
