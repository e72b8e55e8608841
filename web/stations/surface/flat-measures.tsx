import styled from 'styled-components';
import { MOST_FREE_PLACES, type FreePlace } from '../../../core/engines/surface/index.js';
import { useJobContext } from '../../job/job-context.js';
import { space } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Small } from '../../ui/plain-fields.js';
import { Said, Trouble, useMeasures } from './surface-fields.js';
import { FreeName } from './free-name.js';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** A board or a pane: its size, its margins, and the places that must stay free. */
export function FlatMeasures({
  thing,
  troubles,
}: {
  readonly thing: 'board' | 'pane';
  readonly troubles: ReadonlyMap<string, string>;
}) {
  const { unit } = useJobContext();
  const { measures, set, field } = useMeasures('flat');
  const { marginMm, free, widthMm, heightMm } = measures;
  const place = (i: number, to: FreePlace) => set({ free: free.map((one, k) => (k === i ? to : one)) });
  const add = (made: FreePlace) => set({ free: [...free, made] });
  const figure = (label: string, mm: number, onChange: (mm: number) => void, min = 1) => (
    <FigureField label={label} mm={mm} unit={unit} min={min} stepMm={1} onChange={onChange} />
  );
  return (
    <>
      <Said>
        The {thing} is {field('Width', 'widthMm', { stepMm: 5 })} wide and {field('Height', 'heightMm', { stepMm: 5 })}{' '}
        high.
      </Said>
      <Said>
        Keep free:{' '}
        {SIDES.map((side, i) => (
          <span key={side}>
            {i > 0 && (i === 3 ? ' or ' : ', ')}
            <FigureField
              label={`Margin ${side}`}
              mm={marginMm[side]}
              unit={unit}
              stepMm={1}
              onChange={(mm) => set({ marginMm: { ...marginMm, [side]: mm } })}
            />{' '}
            at the {side}
          </span>
        ))}
        .
      </Said>
      <Trouble>{troubles.get('margins')}</Trouble>
      {free.length > 0 && (
        <Places aria-label="Places that must stay free">
          {free.map((one, i) => (
            <li key={i}>
              <FreeName
                label={`What place ${i + 1} is`}
                value={one.what}
                onChange={(what) => place(i, { ...one, what })}
              />
              {one.shape === 'circle' ? (
                <>
                  {' '}
                  {figure(`Place ${i + 1} across`, one.diameterMm, (diameterMm) =>
                    place(i, { ...one, diameterMm }),
                  )}{' '}
                  across, its middle{' '}
                  {figure(`Place ${i + 1} from the left`, one.xMm, (xMm) => place(i, { ...one, xMm }), -100_000)} from
                  the left and{' '}
                  {figure(`Place ${i + 1} from the top`, one.yMm, (yMm) => place(i, { ...one, yMm }), -100_000)} from
                  the top.
                </>
              ) : (
                <>
                  {' '}
                  {figure(`Place ${i + 1} wide`, one.widthMm, (to) => place(i, { ...one, widthMm: to }))} ×{' '}
                  {figure(`Place ${i + 1} high`, one.heightMm, (to) => place(i, { ...one, heightMm: to }))},{' '}
                  {figure(`Place ${i + 1} from the left`, one.xMm, (xMm) => place(i, { ...one, xMm }), -100_000)} from
                  the left and{' '}
                  {figure(`Place ${i + 1} from the top`, one.yMm, (yMm) => place(i, { ...one, yMm }), -100_000)} from
                  the top.
                </>
              )}{' '}
              <WordButton
                onPress={() => set({ free: free.filter((_, k) => k !== i) })}
                aria-label={`Take away place ${i + 1}`}
              >
                Take away
              </WordButton>
            </li>
          ))}
        </Places>
      )}
      {free.length < MOST_FREE_PLACES ? (
        <div>
          <WordButton
            onPress={() => add({ shape: 'circle', what: 'hole', xMm: widthMm / 2, yMm: heightMm / 2, diameterMm: 20 })}
          >
            Keep a round place free
          </WordButton>{' '}
          <WordButton
            onPress={() =>
              add({
                shape: 'rectangle',
                what: 'handle',
                xMm: widthMm / 2 - 40,
                yMm: heightMm / 2 - 15,
                widthMm: 80,
                heightMm: 30,
              })
            }
          >
            Keep a rectangle free
          </WordButton>
        </div>
      ) : (
        <Small>{MOST_FREE_PLACES} places are kept free, which is all that can be.</Small>
      )}
    </>
  );
}

const Places = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.s};
  line-height: 1.9;
`;
