import { WordButton } from '../ui/button.js';
import { LateDoingBox } from '../ui/doing.js';
import { useJobContext } from './job-context.js';

/** What takes its time, how far along it is, and a way to stop it; what is soon over does not show up. */
export function StepProgress() {
  const { step, stop } = useJobContext();
  if (!step) return null;
  return (
    <LateDoingBox role="status">
      <span>
        {step.doing} … <WordButton onPress={stop}>Stop</WordButton>
      </span>
      <progress aria-label={step.doing} value={step.done} max={1} />
    </LateDoingBox>
  );
}
