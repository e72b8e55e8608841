import styled from 'styled-components';
import { PREPARING_SHARE } from '../../core/batch/before-laying.js';
import { listed } from '../../core/words/index.js';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { LateDoingBox } from '../ui/doing.js';
import type { BatchPlanState } from './use-batches.js';

/** A batch that is being laid out: how far, and a way to stop it; why it is not. */
export function BatchProgress({
  state: { done, waitsFor, error, plan, stop, again },
}: {
  readonly state: BatchPlanState;
}) {
  if (done !== null) {
    return (
      <LateDoingBox role="status">
        <span>
          {waitsFor.length > 0
            ? `Waiting for its turn after ${listed(waitsFor)}`
            : done < PREPARING_SHARE
              ? 'Preparing the layers'
              : 'Laying them out'}{' '}
          … <WordButton onPress={stop}>Stop</WordButton>
        </span>
        <progress aria-label="Laying out the batch" value={done} max={1} />
      </LateDoingBox>
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

const Failed = styled.p`
  font-size: ${type.small};
  padding: ${space.s} ${space.m};
  background: ${colour.warnWash};
  border-radius: ${radius.m};
`;
