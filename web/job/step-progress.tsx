import styled, { keyframes } from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { useJobContext } from './job-context.js';

/** What takes its time, how far along it is, and a way to stop it; what is soon over does not show up. */
export function StepProgress() {
  const { step, stop } = useJobContext();
  if (!step) return null;
  return (
    <Doing role="status">
      <span>
        {step.doing} … <WordButton onPress={stop}>Stop</WordButton>
      </span>
      <progress aria-label={step.doing} value={step.done} max={1} />
    </Doing>
  );
}

const appear = keyframes`to { visibility: visible; }`;

const Doing = styled.div`
  display: grid; gap: ${space.xs}; font-size: ${type.small}; padding: ${space.s} ${space.m}; background: ${colour.accentWash}; border-radius: ${radius.m};
  visibility: hidden; animation: ${appear} 0s 400ms forwards;
  progress { width: 100%; height: 8px; accent-color: ${colour.accent}; }
`;
