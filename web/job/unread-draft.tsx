import { useEffect, useState } from 'react';
import { useBlocker } from 'react-router';
import { Button, MainButton } from '../ui/button.js';
import { hasDrafts, keepDrafts, type OpenDraft } from '../ui/draft.js';
import { AskCard, AskRow } from './ask-card.js';
import { useJobContext } from './job-context.js';

/**
 * What was typed is kept when its station is left. What cannot be read is asked about first, and leaving the page with anything that the
 * server does not hold is asked about by the browser.
 */
export function UnreadDraft() {
  const { saving } = useJobContext().handle;
  const [unread, setUnread] = useState<OpenDraft | null>(null);
  const blocker = useBlocker(() => {
    const draft = keepDrafts();
    setUnread(draft);
    return draft !== null;
  });
  useEffect(() => {
    const onLeave = (event: BeforeUnloadEvent) => {
      keepDrafts();
      if (saving !== 'saved' || hasDrafts()) event.preventDefault();
    };
    window.addEventListener('beforeunload', onLeave);
    return () => window.removeEventListener('beforeunload', onLeave);
  }, [saving]);
  if (blocker.state !== 'blocked' || !unread) return null;
  return (
    <AskCard role="alertdialog" aria-label="A figure could not be read">
      <p>
        {unread.label}: {unread.state.wrong}
      </p>
      <AskRow>
        <MainButton
          autoFocus
          onPress={() => {
            blocker.reset();
            unread.focus();
          }}
        >
          Go back to it
        </MainButton>
        <Button
          onPress={() => {
            unread.giveUp();
            blocker.proceed();
          }}
        >
          Leave it as it was
        </Button>
      </AskRow>
    </AskCard>
  );
}
