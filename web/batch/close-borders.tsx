import { useMutation } from '@tanstack/react-query';
import type { Job } from '../../core/recipe/index.js';
import { CLOSE_BORDERS } from '../../core/stations/prepare/close-borders.js';
import { count } from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { useBatchesAnew } from './use-batches.js';
import { WordButton } from '../ui/button.js';
import { useNotify } from '../ui/notices.js';
import { Small } from '../ui/plain-fields.js';

interface CloseBordersProps {
  /** Those that are laid out. */
  readonly jobIds: readonly string[];
  readonly isBusy: boolean;
}

type Written = Pick<Job, 'id' | 'revision'>;

interface Undone {
  readonly stayed: readonly { readonly title: string; readonly why: string }[];
}

/** One press for a decision that is each job's own: its border follows what stays, and closely. All jobs are written as one; what cannot be undone later is named. */
export function CloseBorders({ jobIds, isBusy }: CloseBordersProps) {
  const notify = useNotify();
  const onSettled = useBatchesAnew();
  const undo = useMutation({
    mutationFn: (jobs: readonly Written[]) => ask<Undone>('/api/jobs/undo', { method: 'POST', json: { jobs } }),
    onSuccess: ({ stayed }) =>
      notify(
        stayed.length === 0
          ? 'The borders are as they were.'
          : `The borders of the other jobs are as they were. These stayed: ${stayed.map(({ title, why }) => `${title}. ${why}`).join(' ')}`,
      ),
    onError: (error) => notify(error.message),
    onSettled,
  });
  const close = useMutation({
    mutationFn: async () => {
      const jobs = await Promise.all(jobIds.map((id) => ask<Job>(`/api/jobs/${id}`)));
      return ask<Written[]>('/api/jobs/changes', {
        method: 'POST',
        json: { jobs: jobs.map(({ id, revision }) => ({ id, revision })), preparation: CLOSE_BORDERS },
      });
    },
    onSuccess: (written) => {
      if (written.length === 0) notify('Nothing was changed: all borders are close already.');
      else
        notify(
          `Borders in ${count(written.length, 'job')} now follow what stays, ${CLOSE_BORDERS.borderGapMm} mm clear.`,
          { label: 'Undo', run: () => undo.mutate(written.map(({ id, revision }) => ({ id, revision }))) },
        );
    },
    onError: (error) => notify(`No border was changed. ${error.message}`),
    onSettled,
  });
  return (
    <Small as="div">
      <WordButton
        isDisabled={isBusy || jobIds.length === 0 || close.isPending || undo.isPending}
        onPress={() => close.mutate()}
      >
        Make borders close in all jobs
      </WordButton>{' '}
      They then follow what stays, {CLOSE_BORDERS.borderGapMm} mm clear. It takes less film, and more care to weed.
      Stencils keep their margin.
    </Small>
  );
}
