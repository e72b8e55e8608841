import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import styled from 'styled-components';
import type { SpoiledOfJob } from '../../../core/stations/cut/index.js';
import { count } from '../../../core/words/index.js';
import { ask } from '../../api/client.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { useNotify } from '../../ui/notices.js';
import { NumberField } from '../../ui/number-field.js';
import { Small } from '../../ui/plain-fields.js';

/** How many copies of a job were spoiled: new batches cut so many more. */
export function SpoiledCopies({ jobId }: { readonly jobId: string }) {
  const client = useQueryClient();
  const notify = useNotify();
  const { data } = useQuery({
    queryKey: ['cuts', jobId, 'spoiled'],
    queryFn: () => ask<SpoiledOfJob>(`/api/jobs/${jobId}/spoiled`),
  });
  const save = useMutation({
    mutationFn: (spoiled: number | null) =>
      ask<SpoiledOfJob>(`/api/jobs/${jobId}/spoiled`, { method: 'PUT', json: { spoiled } }),
    onSuccess: (kept) => {
      client.setQueryData(['cuts', jobId, 'spoiled'], kept);
      return client.invalidateQueries({ queryKey: ['spares'] });
    },
    onError: (error) => notify(error.message),
  });
  if (!data || data.cut === 0) return null;
  return (
    <Spoiled aria-label="Spoiled copies">
      <p>
        Of {count(data.cut, 'copy', 'copies')} that {data.cut === 1 ? 'is' : 'are'} cut,{' '}
        <NumberField
          label="Copies that were spoiled"
          value={data.spoiled ?? 0}
          min={0}
          max={data.cut}
          onChange={(spoiled) => save.mutate(spoiled)}
        />{' '}
        {data.spoiled === 1 ? 'was' : 'were'} spoiled while you weeded and laid them.
      </p>
      {data.spoiled === null ? (
        <Small>
          This is not said yet. <WordButton onPress={() => save.mutate(0)}>None was spoiled</WordButton>
        </Small>
      ) : (
        <Small>
          New batches cut spares by it. <WordButton onPress={() => save.mutate(null)}>Forget it</WordButton>
        </Small>
      )}
    </Spoiled>
  );
}

const Spoiled = styled.section`
  display: grid;
  gap: ${space.xs};
  font-size: ${type.body};
  p {
    line-height: 1.7;
  }
`;
