import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

/** What is to be done at the bench with a sheet that is cut, with a list of its pieces. */
export const AtBenchCard = styled.section`
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-left: 4px solid ${colour.good};
  border-radius: ${radius.m};
  font-size: ${type.small};
  h3 {
    font-size: ${type.body};
    margin: 0;
  }
  ul {
    list-style: none;
    display: grid;
    gap: ${space.xs};
  }
  li {
    display: flex;
    align-items: center;
    gap: ${space.s};
  }
`;
