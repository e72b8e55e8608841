import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Batch, BetterView } from '../../core/batch/index.js';
import type { Film } from '../../core/shop/index.js';
import { count, listed } from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { useBatchesAnew, useSearchSoFar } from './use-batches.js';
import { space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { DoingBox } from '../ui/doing.js';
import { useNotify } from '../ui/notices.js';
import { NumberField } from '../ui/number-field.js';
import { Small } from '../ui/plain-fields.js';

interface SearchForLessProps {
  readonly batch: Batch;
  /** Steps that were made for what is shown. */
  readonly steps: number;
  readonly isBusy: boolean;
  readonly onForget: () => void;
  /** What is found on the way, to be drawn; null once nothing is looked for any more. */
  readonly onBetter: (found: BetterView | null) => void;
  readonly films: readonly Pick<Film, 'id' | 'name'>[];
}

/** Drawing the sheets tighter takes time: as long as the maker gives it. What was found is kept, and can be made again. */
export function SearchForLess({ batch, steps, isBusy, onForget, onBetter, films }: SearchForLessProps) {
  const notify = useNotify();
  const [seconds, setSeconds] = useState(20);
  const search = useMutation({
    mutationFn: () =>
      ask<{ takenMm2: number; beforeMm2: number }>(`/api/batches/${batch.id}/search`, {
        method: 'POST',
        json: { revision: batch.revision, seconds },
      }),
    onSuccess: ({ takenMm2, beforeMm2 }) =>
      notify(
        takenMm2 < beforeMm2
          ? `${((1 - takenMm2 / beforeMm2) * 100).toFixed(1)} % less film is taken.`
          : 'Nothing better was found. The sheets stay as they are.',
      ),
    onError: (error) => notify(error.message),
    onSettled: useBatchesAnew(),
  });
  const { found, waitsFor } = useSearchSoFar(batch.id, search.isPending);
  useEffect(() => onBetter(found), [found, onBetter]);
  return (
    <section aria-label="Search for less film">
      <h3>Less film</h3>
      {search.isPending ? (
        <DoingBox role="status">
          <Clock seconds={seconds} />
          <span>
            {waitsFor.length > 0
              ? `Waiting for its turn after ${listed(waitsFor)} …`
              : found
                ? sayBetter(found, films)
                : 'Nothing better yet.'}
          </span>
          <WordButton onPress={() => void ask(`/api/batches/${batch.id}/search/enough`, { method: 'POST' })}>
            Enough: keep what is found
          </WordButton>
        </DoingBox>
      ) : (
        <Said>
          <Button isDisabled={isBusy} onPress={() => search.mutate()}>
            Look for less film
          </Button>{' '}
          for <NumberField label="Seconds to look" value={seconds} min={1} max={300} onChange={setSeconds} /> s
        </Said>
      )}
      {steps > 0 ? (
        <Small>
          {count(steps, 'step')} of a search made these sheets tighter.{' '}
          <WordButton onPress={onForget}>Lay out without it</WordButton>
        </Small>
      ) : (
        <Small>
          The layers are laid in other orders, then drawn closer together, step by step. Large pieces of odd shapes gain
          most.
        </Small>
      )}
    </section>
  );
}

/** How much less is taken of the film that is laid anew. */
function sayBetter({ filmId, takenMm2, beforeMm2 }: BetterView, films: SearchForLessProps['films']): string {
  const less = beforeMm2 > 0 ? Math.max(0, 1 - takenMm2 / beforeMm2) : 0;
  const name = films.find(({ id }) => id === filmId)?.name ?? filmId;
  return less < 0.0005
    ? `${name} lies tighter, but no film is saved yet.`
    : `${name}: ${(less * 100).toFixed(1)} % less so far.`;
}

function Clock({ seconds }: { readonly seconds: number }) {
  const [gone, setGone] = useState(0);
  useEffect(() => {
    const tick = setInterval(() => setGone((before) => Math.min(seconds, before + 1)), 1000);
    return () => clearInterval(tick);
  }, [seconds]);
  return (
    <>
      <span>Looking for less film, {Math.max(0, seconds - gone)} s left …</span>
      <progress aria-label="Time of the search" value={gone} max={seconds} />
    </>
  );
}

const Said = styled.p`
  font-size: ${type.body};
  padding-bottom: ${space.xs};
`;
