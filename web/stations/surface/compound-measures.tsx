import { radiusOf } from '../../../core/engines/surface/index.js';
import { formatLength } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { FigureField } from '../../ui/figure-field.js';
import { Small } from '../../ui/plain-fields.js';
import { Said, Trouble, useMeasures } from './surface-fields.js';

/** A thing that bends in two directions: its size, and each bend by a rule laid on it. */
export function CompoundMeasures({ troubles }: { readonly troubles: ReadonlyMap<string, string> }) {
  const { unit } = useJobContext();
  const { measures, set, field } = useMeasures('compound');
  const bend = (name: 'across' | 'down') => {
    const arc = measures[name];
    const radius = radiusOf(arc.chordMm, arc.heightMm);
    const label = name === 'across' ? 'across' : 'downwards';
    return (
      <>
        <Said>
          Lay a rule {label}: between its ends,{' '}
          <FigureField
            label={`Chord ${label}`}
            mm={arc.chordMm}
            unit={unit}
            min={1}
            stepMm={5}
            onChange={(chordMm) => set({ [name]: { ...arc, chordMm } })}
          />{' '}
          apart, the middle stands out by{' '}
          <FigureField
            label={`Height of the arc ${label}`}
            mm={arc.heightMm}
            unit={unit}
            stepMm={1}
            onChange={(heightMm) => set({ [name]: { ...arc, heightMm } })}
          />
          .
        </Said>
        <Trouble>{troubles.get(name)}</Trouble>
        {!troubles.has(name) && (
          <Small>
            {radius === null
              ? 'It is straight that way.'
              : `It bends by a radius of ${formatLength(radius, unit)} ${unit}.`}
          </Small>
        )}
      </>
    );
  };
  return (
    <>
      <Said>
        Along it there is room for {field('Width', 'widthMm', { stepMm: 5 })} by{' '}
        {field('Height', 'heightMm', { stepMm: 5 })}.
      </Said>
      {bend('across')}
      {bend('down')}
    </>
  );
}
