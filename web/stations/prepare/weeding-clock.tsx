import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { weededSeconds, type FrozenSheet } from '../../../core/stations/cut/index.js';
import { ask } from '../../api/client.js';
import { space } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { useNotify } from '../../ui/notices.js';
import { Small } from '../../ui/plain-fields.js';
import { usePutSheet } from '../../job/cut-copies.js';

function sayClock(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** The clock of weeding a sheet: started and stopped on the map. The server holds it, so it runs on whatever happens to this page. */
export function WeedingClock({ sheet, isAllOut }: { readonly sheet: FrozenSheet; readonly isAllOut: boolean }) {
  const put = usePutSheet();
  const client = useQueryClient();
  const notify = useNotify();
  const isRunning = sheet.weedTimes.at(-1)?.stoppedAt === null;
  const now = useNow(isRunning);
  const turn = useMutation({
    mutationFn: (clock: 'start' | 'stop' | 'drop') =>
      ask<FrozenSheet>(`/api/sheets/${sheet.id}/weeding`, { method: 'POST', json: { clock } }),
    onSuccess: (told) => {
      put(told);
      // What was timed to its end teaches the shop's own figures.
      void client.invalidateQueries({ queryKey: ['weeding'] });
    },
    onError: (error) => notify(`The clock was not turned. ${error.message}`),
  });
  const seconds = weededSeconds(sheet, now);
  return (
    <Row>
      <WordButton onPress={() => turn.mutate(isRunning ? 'stop' : 'start')}>
        {isRunning ? 'Stop the clock' : seconds > 0 ? 'Go on timing' : 'Time it'}
      </WordButton>
      {seconds > 0 && <Time aria-label="Time weeded so far">{sayClock(seconds)}</Time>}
      {!isRunning && seconds > 0 && <WordButton onPress={() => turn.mutate('drop')}>Forget this time</WordButton>}
      {isRunning && isAllOut && <Small>All is out: stop the clock.</Small>}
    </Row>
  );
}

/** The time, anew every second while it is looked at. */
function useNow(isRunning: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!isRunning) return undefined;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [isRunning]);
  return now;
}

const Row = styled.span`
  display: inline-flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.xs} ${space.m};
`;
const Time = styled.strong`
  font-variant-numeric: tabular-nums;
  min-width: 3.5em;
`;
