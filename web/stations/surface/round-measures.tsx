import type { ReactNode } from 'react';
import { slantOf, uprightOf } from '../../../core/engines/surface/index.js';
import { formatLength } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { Small } from '../../ui/plain-fields.js';
import { Said, Trouble, useMeasures } from './surface-fields.js';

interface Props {
  readonly troubles: ReadonlyMap<string, string>;
}

/** A round thing with straight sides: its girth, its straight part, what stays free, its handle. */
export function CylinderMeasures({ troubles }: Props) {
  const { unit } = useJobContext();
  const { measures, set, field } = useMeasures('cylinder');
  const { girthBy, girthMm, hand, wraps, gapMm } = measures;
  const other = girthBy === 'diameter' ? girthMm * Math.PI : girthMm / Math.PI;
  return (
    <>
      <Said>
        {girthBy === 'circumference' ? 'A tape round it reads' : 'A calliper reads'}{' '}
        {field(girthBy === 'circumference' ? 'Circumference' : 'Diameter', 'girthMm')}.{' '}
        <WordButton
          onPress={() =>
            set(
              girthBy === 'circumference'
                ? { girthBy: 'diameter', girthMm: Number(other.toFixed(2)) }
                : { girthBy: 'circumference', girthMm: Number(other.toFixed(2)) },
            )
          }
        >
          {girthBy === 'circumference' ? 'Measure across instead' : 'Measure round it instead'}
        </WordButton>
      </Said>
      <Small>
        That is {formatLength(other, unit)} {unit} {girthBy === 'circumference' ? 'across' : 'round'}. Of two readings
        the smaller counts.
      </Small>
      <Said>Its straight part is {field('Straight height', 'straightHeightMm')} high.</Said>
      <LipAndFoot field={field} troubles={troubles} />
      {gapMm > 0 && (
        <p>
          <Choice
            label="Which hand holds it"
            value={hand}
            options={[
              ['right', 'held in the right hand'],
              ['left', 'in the left'],
            ]}
            onChange={(to) => set({ hand: to })}
          />
        </p>
      )}
      <Round wraps={wraps} onChange={(to) => set({ wraps: to })} />
    </>
  );
}

/** A round thing that is wider at one end. */
export function TaperMeasures({ troubles }: Props) {
  const { unit } = useJobContext();
  const { measures, set, field } = useMeasures('taper');
  const { d1Mm, d2Mm, wide, sideBy, sideMm, wraps } = measures;
  const other = sideBy === 'slant' ? uprightOf(sideMm, d1Mm, d2Mm) : slantOf(sideMm, d1Mm, d2Mm);
  return (
    <>
      <Said>
        It is {field('Larger diameter', 'd1Mm')} across at its {wide} and {field('Smaller diameter', 'd2Mm')} at its{' '}
        {wide === 'top' ? 'foot' : 'top'}.{' '}
        <WordButton onPress={() => set({ wide: wide === 'top' ? 'foot' : 'top' })}>
          It is wide at the {wide === 'top' ? 'foot' : 'top'}
        </WordButton>
      </Said>
      <Trouble>{troubles.get('d1Mm')}</Trouble>
      <Said>
        {sideBy === 'slant' ? 'Along its side it measures' : 'It stands'}{' '}
        {field(sideBy === 'slant' ? 'Slant' : 'Upright height', 'sideMm')}
        {sideBy === 'slant' ? '' : ' high'}.{' '}
        {other > 0 && (
          <WordButton
            onPress={() => set({ sideBy: sideBy === 'slant' ? 'upright' : 'slant', sideMm: Number(other.toFixed(2)) })}
          >
            {sideBy === 'slant' ? 'Measure it upright instead' : 'Measure along the side instead'}
          </WordButton>
        )}
      </Said>
      {other > 0 && (
        <Small>
          That is {formatLength(other, unit)} {unit} {sideBy === 'slant' ? 'upright' : 'along the side'}.
        </Small>
      )}
      <LipAndFoot field={field} troubles={troubles} />
      <Round wraps={wraps} onChange={(to) => set({ wraps: to })} />
    </>
  );
}

function LipAndFoot({
  field,
  troubles,
}: Props & {
  readonly field: (label: string, key: 'lipMm' | 'footMm' | 'gapMm', how: { readonly min: number }) => ReactNode;
}) {
  return (
    <>
      <Said>
        Keep free: {field('Below the lip', 'lipMm', { min: 0 })} below the lip,{' '}
        {field('Above the foot', 'footMm', { min: 0 })} above the foot, and{' '}
        {field('Round the handle', 'gapMm', { min: 0 })} for the handle or the seam.
      </Said>
      <Trouble>{troubles.get('lipMm')}</Trouble>
      <Trouble>{troubles.get('gapMm')}</Trouble>
    </>
  );
}

function Round({ wraps, onChange }: { readonly wraps: boolean; readonly onChange: (wraps: boolean) => void }) {
  return (
    <p>
      <Choice
        label="How far round"
        value={wraps ? 'round' : 'side'}
        options={[
          ['side', 'on one side'],
          ['round', 'all the way round'],
        ]}
        onChange={(to) => onChange(to === 'round')}
      />
    </p>
  );
}
