import styled from 'styled-components';
import {
  GARMENT_SIZES,
  GARMENTS,
  measuredFrom,
  SPOTS,
  widthOnSize,
  type Garments,
  type Spot,
} from '../../../core/engines/surface/index.js';
import type { SizeWanted } from '../../../core/stations/surface/index.js';
import { useJobContext } from '../../job/job-context.js';
import { space } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Picker } from '../../ui/picker.js';
import { Said, useMeasures } from './surface-fields.js';
import { TeamList } from './team-list.js';

const SPOT_WORDS: Readonly<Record<Spot, string>> = {
  'left chest': 'the left chest',
  'full front': 'the front',
  back: 'the back',
  sleeve: 'a sleeve',
  leg: 'a leg',
};
const PIECES: Readonly<Record<Garments, string>> = { shirt: 'a shirt', apron: 'an apron', trousers: 'trousers' };
/** What an order usually has. */
const USUAL = ['S', 'M', 'L', 'XL', 'XXL'];

/** A print may sit to either side of the middle line, as far as a garment is wide, mm. */
const FARTHEST_MM = 1000;

/** A print on garments: where it sits, the sizes of the order, and who it is for. */
export function GarmentMeasures() {
  const { unit, plan } = useJobContext();
  const { measures, set } = useMeasures('garment');
  const { piece, spot, downMm, offMiddleMm, sizes } = measures;
  const spots: readonly Spot[] = GARMENTS[piece];
  const usual = SPOTS[spot];
  const width = plan?.surface?.widthMm ?? usual.widthMm;
  const change = (i: number, part: Partial<SizeWanted>) =>
    set({ sizes: sizes.map((one, k) => (k === i ? { ...one, ...part } : one)) });
  const left = Object.keys(GARMENT_SIZES).filter((size) => !sizes.some((one) => one.size === size));
  return (
    <>
      <Said>
        The garment is{' '}
        <Picker
          label="What garment it is"
          value={piece}
          options={Object.entries(PIECES).map(([id, text]) => ({ id, text }))}
          onChange={(id) =>
            set({
              piece: id as Garments,
              ...((GARMENTS[id as Garments] as readonly Spot[]).includes(spot)
                ? {}
                : { spot: GARMENTS[id as Garments][0], downMm: null, offMiddleMm: null }),
            })
          }
        />
        . The print sits on{' '}
        <Picker
          label="Where it sits"
          value={spot}
          options={spots.map((id) => ({ id, text: SPOT_WORDS[id] }))}
          onChange={(id) => set({ spot: id as Spot, downMm: null, offMiddleMm: null })}
        />
        , its top{' '}
        <FigureField
          label="Below the collar or seam"
          mm={downMm ?? usual.downMm}
          unit={unit}
          stepMm={5}
          onChange={(mm) => set({ downMm: mm })}
        />{' '}
        below {measuredFrom(piece, spot)}, its middle{' '}
        <FigureField
          label="Off the middle line"
          mm={offMiddleMm ?? usual.offMiddleMm}
          min={-FARTHEST_MM}
          unit={unit}
          stepMm={5}
          onChange={(mm) => set({ offMiddleMm: mm })}
        />{' '}
        off the middle line.{' '}
        {(downMm !== null || offMiddleMm !== null) && (
          <WordButton onPress={() => set({ downMm: null, offMiddleMm: null })}>As is usual</WordButton>
        )}
      </Said>
      {sizes.length > 0 && (
        <Sizes aria-label="Sizes of the order">
          {sizes.map(({ size, copies, widthMm }, i) => (
            <li key={size}>
              <strong>{size}</strong>:{' '}
              <NumberField
                label={`Pieces in ${size}`}
                value={copies}
                min={0}
                max={500}
                onChange={(to) => change(i, { copies: to })}
              />{' '}
              of it,{' '}
              <FigureField
                label={`Width on ${size}`}
                mm={widthMm ?? widthOnSize(width, size)}
                unit={unit}
                min={1}
                stepMm={5}
                onChange={(mm) => change(i, { widthMm: mm })}
              />{' '}
              wide{' '}
              {widthMm !== null && (
                <WordButton aria-label={`As ruled, on ${size}`} onPress={() => change(i, { widthMm: null })}>
                  As ruled
                </WordButton>
              )}{' '}
              <WordButton
                aria-label={`Take away ${size}`}
                onPress={() => set({ sizes: sizes.filter((_, k) => k !== i) })}
              >
                Take away
              </WordButton>
            </li>
          ))}
        </Sizes>
      )}
      <div>
        {sizes.length === 0 && (
          <WordButton onPress={() => set({ sizes: USUAL.map((size) => ({ size, copies: 1, widthMm: null })) })}>
            Several sizes, S to XXL
          </WordButton>
        )}{' '}
        {left.length > 0 && (
          <Picker
            label="One more size"
            value=""
            placeholder="one more size …"
            options={left.map((size) => ({ id: size, text: size }))}
            onChange={(size) => set({ sizes: [...sizes, { size, copies: 1, widthMm: null }] })}
          />
        )}
      </div>
      <TeamList />
    </>
  );
}

const Sizes = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.xs};
  line-height: 1.9;
`;
