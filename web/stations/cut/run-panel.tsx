import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import type { Run, RunProgress, RunState } from '../../../core/stations/cut/index.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Button, MainButton } from '../../ui/button.js';
import { sayDuration } from '../../../core/words/index.js';

const STATE_WORDS: Readonly<Record<RunState, string>> = {
  cutting: 'Cutting',
  paused: 'Paused',
  waiting: 'Waiting for the cutter',
  stuck: 'The cutter needs you',
  interrupted: 'Interrupted',
  cancelling: 'Cancelling',
  finished: 'Cut',
  cancelled: 'Cancelled',
  failed: 'Failed',
};

interface RunPanelProps {
  readonly filmName: string;
  readonly run: Run;
  readonly progress: RunProgress | null;
  readonly onAct: (name: 'pause' | 'resume' | 'cancel') => void;
}

/** A cut under way: how far, how long yet, and the three things one can do about it. */
export function RunPanel({ filmName, run, progress, onAct }: RunPanelProps) {
  const state = progress?.state ?? run.state;
  const message = progress?.message ?? run.message;
  const share = progress?.share ?? run.share;
  const rests = state === 'paused' || state === 'interrupted';
  return (
    <Card tabIndex={-1} aria-label={`The cut of ${filmName}`}>
      <h3>
        {filmName}: <span role="status">{STATE_WORDS[state]}</span>
      </h3>
      <Bar value={100 * share} aria-label="Progress of the cut">
        <span style={{ width: `${100 * share}%` }} />
      </Bar>
      <Line>
        <span>{Math.round(100 * share)} %</span>
        <span>{sayDuration(progress?.secondsLeft ?? run.estimateSeconds * (1 - run.share))} of cutting left</span>
      </Line>
      {message && <Word>{message}</Word>}
      {state !== 'cancelling' && (
        <Row>
          {rests ? (
            <MainButton onPress={() => onAct('resume')}>Resume</MainButton>
          ) : (
            <Button onPress={() => onAct('pause')}>Pause</Button>
          )}
          <Button onPress={() => onAct('cancel')}>Cancel this sheet</Button>
        </Row>
      )}
    </Card>
  );
}

const Card = styled.section`
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-left: 4px solid ${colour.accent};
  border-radius: ${radius.m};
  h3 {
    font-size: ${type.body};
    margin: 0;
  }
`;

const Bar = styled(ProgressBar)`
  height: 10px;
  border-radius: 5px;
  background: ${colour.faint};
  overflow: hidden;
  border: 1px solid ${colour.line};
  span {
    display: block;
    height: 100%;
    background: ${colour.accent};
  }
`;

const Line = styled.p`
  display: flex;
  justify-content: space-between;
  font-size: ${type.small};
  font-variant-numeric: tabular-nums;
`;
const Word = styled.p`
  font-size: ${type.small};
  color: ${colour.warn};
`;
const Row = styled.div`
  display: flex;
  gap: ${space.s};
`;
