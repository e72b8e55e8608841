import styled, { keyframes } from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

/** Round what takes its time: a sentence, how far it is, a way to stop it. */
export const DoingBox = styled.div`
  display: grid;
  gap: ${space.xs};
  font-size: ${type.small};
  padding: ${space.s} ${space.m};
  background: ${colour.accentWash};
  border-radius: ${radius.m};
  progress {
    width: 100%;
    height: 8px;
    accent-color: ${colour.accent};
  }
`;

const appear = keyframes`to { visibility: visible; }`;

/** The same of what may be soon over: then it does not show up. */
export const LateDoingBox = styled(DoingBox)`
  visibility: hidden;
  animation: ${appear} 0s 400ms forwards;
`;
