import { useMutation } from '@tanstack/react-query';
import styled from 'styled-components';
import { ask } from '../../api/client.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';

const SWITCHES: readonly (readonly [label: string, request: object])[] = [
  ['Run out of film', { do: 'fail', how: 'out-of-film' }],
  ['Jam it', { do: 'fail', how: 'jammed' }],
  ['Slow its buffer', { do: 'fail', how: 'slow-buffer' }],
  ['Pull the cable for 4 s', { do: 'pull-cable', seconds: 4 }],
  ['Cut its power', { do: 'power-cut' }],
  ['Repair it', { do: 'clear' }],
  ['Real time', { do: 'time-lapse', factor: 1 }],
  ['20 times as fast', { do: 'time-lapse', factor: 20 }],
];

/** What a hand could do at the simulated cutter itself. */
export function CutterSwitches() {
  const turn = useMutation({
    mutationFn: (request: object) =>
      ask<{ state?: string; error?: string }>('/api/cutter/control', { method: 'POST', json: request }),
  });
  return (
    <Box>
      <summary>At the simulated cutter</summary>
      <p>
        {SWITCHES.map(([label, request]) => (
          <WordButton key={label} onPress={() => turn.mutate(request)}>
            {label}
          </WordButton>
        ))}
      </p>
      <Answer role="status">
        {turn.error?.message ?? turn.data?.error ?? (turn.data?.state ? `The cutter says: ${turn.data.state}.` : '')}
      </Answer>
    </Box>
  );
}

const Box = styled.details`
  font-size: ${type.small};
  color: ${colour.quiet};
  border-top: 1px dashed ${colour.line};
  padding-top: ${space.s};
  summary {
    cursor: pointer;
    padding: 4px 0;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: ${space.xs} ${space.m};
    padding: ${space.s} 0 0;
  }
`;

const Answer = styled.span`
  display: block;
  min-height: 1.4em;
`;
