import { useState } from 'react';
import { useAsked } from '../../job/use-asked.js';
import { useJobContext } from '../../job/job-context.js';
import type { TrialAnswer } from '../../../core/stations/layers/index.js';
import { WordButton } from '../../ui/button.js';
import { Small } from '../../ui/plain-fields.js';

/** The layers are laid so often, seen from a metre; one in a hundred may show a gap. */
const WISH = { placements: 1000, seed: 1, readingMm: 1000, risk: 0.01 };

/** The gap trial's word on whether this build needs marks. */
export function ByEye() {
  const { recipe, handle } = useJobContext();
  const [isAsked, setAsked] = useState(false);
  const answer = useAsked<{ readonly marked: TrialAnswer; readonly byEye: TrialAnswer } | null | undefined>(
    isAsked ? (api, id) => api.gapTrial(id, WISH) : null,
    undefined,
    String(isAsked),
  );
  if (!isAsked) return <WordButton onPress={() => setAsked(true)}>Would it do by eye?</WordButton>;
  if (!answer) return <Small role="status">Trying it many times …</Small>;
  const say = (risk: number) => (risk < 0.0005 ? 'never' : `in ${(100 * risk).toFixed(risk < 0.1 ? 1 : 0)} of 100`);
  const isEnough = answer.byEye.risk <= WISH.risk;
  return (
    <Small role="status">
      Laid a thousand times and seen from a metre, a gap shows {say(answer.marked.risk)} with marks, and{' '}
      {say(answer.byEye.risk)} by eye. {isEnough ? 'By eye is good enough here.' : 'Here the marks are needed.'}{' '}
      {isEnough && recipe.preparation.marks && (
        <WordButton onPress={() => handle.change({ preparation: { marks: false } })}>Lay it by eye</WordButton>
      )}
    </Small>
  );
}
