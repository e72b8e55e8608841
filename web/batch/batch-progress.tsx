import styled, { keyframes } from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import type { BatchPlanState } from './use-batches.js';

/** A batch that is being laid out: how far, and a way to stop it; why it is not. */
export function BatchProgress({ state: { done, error, plan, stop, again } }: { readonly state: BatchPlanState }) {
  if (done !== null) {
    return (
      <Doing role="status">
        <span>
          {done < 0.7 ? 'Preparing the layers' : 'Laying them out'} … <WordButton onPress={stop}>Stop</WordButton>
        </span>
        <progress aria-label="Laying out the batch" value={done} max={1} />
      </Doing>
    );
  }
  if (error) {
    return (
      <Failed role="alert">
        {error.message} <WordButton onPress={again}>Try again</WordButton>
      </Failed>
    );
  }
  return plan ? null : (
    <Failed>
      It was stopped before it was laid out. <WordButton onPress={again}>Lay it out</WordButton>
    </Failed>
  );
}

const appear = keyframes`to { visibility: visible; }`;

const Doing = styled.div`
  display: grid; gap: ${space.xs}; font-size: ${type.small}; padding: ${space.s} ${space.m}; background: ${colour.accentWash}; border-radius: ${radius.m};
  visibility: hidden; animation: ${appear} 0s 400ms forwards;
  progress { width: 100%; height: 8px; accent-color: ${colour.accent}; }
`;
const Failed = styled.p`font-size: ${type.small}; padding: ${space.s} ${space.m}; background: ${colour.warnWash}; border-radius: ${radius.m};`;
