import styled from 'styled-components';
import { colour, radius, space, type, width } from '../tokens.js';

/** A question above the work that must be answered before it goes on. */
export const AskCard = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.s} ${space.l};
  margin: 0 ${space.l} ${space.s};
  padding: ${space.s} ${space.m};
  background: ${colour.warnWash};
  border: 1px solid ${colour.line};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
  font-size: ${type.small};
  p {
    flex: 1 1 320px;
  }
  @media (max-width: ${width.phone}) {
    margin: 0 ${space.s} ${space.s};
  }
`;

export const AskRow = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
`;
