import { Link } from 'react-router';
import styled from 'styled-components';
import { space, type } from '../tokens.js';

/** An address that leads nowhere, and the way back. */
export function Missing() {
  return (
    <Middle>
      <h1>There is nothing at this address</h1>
      <p>The job may have been deleted, or the address mistyped.</p>
      <p>
        <Link to="/">All jobs</Link>
      </p>
    </Middle>
  );
}

const Middle = styled.div`
  max-width: 34rem;
  margin: 12vh auto;
  padding: ${space.l};
  display: grid;
  gap: ${space.m};
  h1 {
    font-size: ${type.title};
  }
`;
