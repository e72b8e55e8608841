import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

/** A list of things in order, one of which is chosen. */
export const Queue = styled.ol`
  list-style: none;
  display: grid;
  gap: 2px;
`;

export const Entry = styled.button`
  display: flex;
  gap: ${space.s};
  align-items: center;
  width: 100%;
  padding: 7px ${space.s};
  border: 0;
  border-left: 3px solid transparent;
  background: none;
  text-align: left;
  font-size: ${type.small};
  cursor: pointer;
  border-radius: 0 ${radius.m} ${radius.m} 0;
  color: ${colour.ink};
  &:hover {
    background: ${colour.faint};
  }
  &[aria-pressed='true'] {
    border-left-color: ${colour.accent};
    background: ${colour.accentWash};
    font-weight: 600;
  }
  &:disabled {
    cursor: default;
    color: ${colour.quiet};
  }
  span span {
    display: block;
    font-weight: 400;
  }
`;

/** An entry's figure, at its end. */
export const Figure = styled.span`
  margin-left: auto;
  font-variant-numeric: tabular-nums;
  font-weight: 400;
  white-space: nowrap;
`;

/** Why something was not done. */
export const Refused = styled.p`
  background: ${colour.badWash};
  color: ${colour.bad};
  padding: ${space.s} ${space.m};
  border-radius: ${radius.m};
  font-size: ${type.small};
`;
