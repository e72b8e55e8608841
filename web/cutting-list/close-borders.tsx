import { useMutation } from '@tanstack/react-query';
import type { Job } from '../../core/recipe/index.js';
import { CLOSE_BORDERS } from '../../core/stations/prepare/close-borders.js';
import { count } from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { useBatchesAnew } from '../batch/use-batches.js';
import { WordButton } from '../ui/button.js';
import { useNotify } from '../ui/notices.js';
import { Small } from '../ui/plain-fields.js';

interface CloseBordersProps {
  /** Those that are laid out. */
  readonly jobIds: readonly string[];
  readonly isBusy: boolean;
}

type Written = Pick<Job, 'id' | 'revision'>;

/** One press for a decision that is each job's own: its border follows what stays, and closely. Each job is written by itself, from the revision that was read, and can take it back. */
export function CloseBorders({ jobIds, isBusy }: CloseBordersProps) {
  const notify = useNotify();
  const onSettled = useBatchesAnew();
  const undo = useMutation({
    mutationFn: async (written: readonly Written[]) => {
      for (const { id, revision } of written)
        await ask<Job>(`/api/jobs/${id}/undo`, { method: 'POST', json: { revision } });
    },
    onSuccess: () => notify('The borders are as they were.'),
    onError: (error) => notify(`Not all borders are as they were. ${error.message}`),
    onSettled,
  });
  const close = useMutation({
    mutationFn: async () => {
      const written: Written[] = [];
      for (const id of jobIds) {
        try {
          const { recipe, revision } = await ask<Job>(`/api/jobs/${id}`);
          const { border, borderGapMm } = recipe.preparation;
          if (border === CLOSE_BORDERS.border && borderGapMm === CLOSE_BORDERS.borderGapMm) continue;
          written.push(
            await ask<Job>(`/api/jobs/${id}/recipe`, {
              method: 'PUT',
              json: { recipe: { ...recipe, preparation: { ...recipe.preparation, ...CLOSE_BORDERS } }, revision },
            }),
          );
        } catch (error) {
          // What is written stays written, and can be taken back.
          return {
            written,
            stopped: `The other jobs stayed as they are. ${error instanceof Error ? error.message : ''}`,
          };
        }
      }
      return { written, stopped: null };
    },
    onSuccess({ written, stopped }) {
      const done =
        written.length > 0
          ? `Borders in ${count(written.length, 'job')} now follow what stays, ${CLOSE_BORDERS.borderGapMm} mm clear.`
          : 'Nothing was changed: all borders are close already.';
      notify(
        stopped ? `${written.length > 0 ? `${done} ` : ''}${stopped}` : done,
        ...(written.length > 0 ? [{ label: 'Undo', run: () => undo.mutate(written) }] : []),
      );
    },
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
