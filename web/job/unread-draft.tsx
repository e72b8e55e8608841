import { useEffect, useState } from 'react';
import { guardLeaving } from '../ui/guarded-router.js';
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
  const [asked, setAsked] = useState<{ readonly draft: OpenDraft; readonly go: () => void } | null>(null);
  useEffect(
    () =>
      guardLeaving((go) => {
        const draft = keepDrafts();
        setAsked(draft && { draft, go });
        return draft === null;
      }),
    [],
  );
  useEffect(() => {
    const onLeave = (event: BeforeUnloadEvent) => {
      keepDrafts();
      if (saving !== 'saved' || hasDrafts()) event.preventDefault();
    };
    window.addEventListener('beforeunload', onLeave);
    return () => window.removeEventListener('beforeunload', onLeave);
  }, [saving]);
  if (!asked) return null;
  const { draft, go } = asked;
  return (
    <AskCard role="alertdialog" aria-label="A figure could not be read">
      <p>
        {draft.label}: {draft.state.wrong}
      </p>
      <AskRow>
        <MainButton
          autoFocus
          onPress={() => {
            setAsked(null);
            draft.focus();
          }}
        >
          Go back and correct it
        </MainButton>
        <Button
          onPress={() => {
            draft.giveUp();
            setAsked(null);
            go();
          }}
        >
          Leave it as it was
        </Button>
      </AskRow>
    </AskCard>
  );
}
