import styled from 'styled-components';
import {
  HELD,
  MEASURED_WITH,
  MEASURES,
  measureOf,
  type Blank,
  type BlankReading,
  type BlankTrial,
} from '../../core/shop/index.js';
import { formatLength } from '../../core/words/index.js';
import { makerAtWork } from '../api/maker.js';
import { colour, radius, space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { FigureField } from '../ui/figure-field.js';
import { FileButton } from '../ui/file-button.js';
import { Picker } from '../ui/picker.js';
import { TextInput } from '../ui/plain-fields.js';
import { useSettings } from '../ui/settings.js';
import { pictureUrl } from '../ui/swatch.js';
import { DayField } from './day-field.js';
import { useKnownShop } from './shop-context.js';
import { usePicture } from './use-picture.js';

const asOptions = (words: readonly string[]) => words.map((id) => ({ id, text: id }));

/** A blank's photograph, what was measured of it, and what sizes worked. */
export function BlankEditor({
  blank,
  onChange,
}: {
  readonly blank: Blank;
  readonly onChange: (change: Partial<Blank>) => void;
}) {
  const { unit } = useSettings();
  const { makers } = useKnownShop();
  const today = new Date().toISOString().slice(0, 10);
  const { handIn, problem, isBusy } = usePicture(({ picture }) => onChange({ photo: picture }));
  const { readings, trials, photo } = blank;
  const reading = (at: number, next: Partial<BlankReading>) =>
    onChange({ readings: readings.map((one, i) => (i === at ? { ...one, ...next } : one)) });
  const trial = (at: number, next: Partial<BlankTrial>) =>
    onChange({ trials: trials.map((one, i) => (i === at ? { ...one, ...next } : one)) });
  const by = makers.find(({ id }) => id === makerAtWork())?.name ?? '';
  const counted = [...new Set(readings.map(({ what }) => what))].filter(
    (what) => readings.filter((one) => one.what === what).length > 1,
  );
  return (
    <>
      <Box aria-label="Photograph">
        <h3>Photograph</h3>
        {photo && <img src={pictureUrl(photo)} alt={`${blank.name}`} />}
        <p>
          <FileButton
            label="Photograph of the blank"
            accept="image/png,image/jpeg,image/webp"
            isDisabled={isBusy}
            onFile={handIn}
          >
            {isBusy ? 'Taking it …' : photo ? 'Another photograph' : 'Add a photograph'}
          </FileButton>{' '}
          {photo && <WordButton onPress={() => onChange({ photo: null })}>without one</WordButton>}
        </p>
        {problem && (
          <p className="wrong" role="alert">
            {problem}
          </p>
        )}
      </Box>
      <Box aria-label="Measured">
        <h3>Measured</h3>
        {readings.map((one, at) => (
          <p key={at} className="line">
            <Picker
              label={`What was measured, ${at + 1}`}
              value={one.what}
              options={asOptions(MEASURES)}
              onChange={(what) => reading(at, { what: what as BlankReading['what'] })}
            />
            <FigureField
              label={`Reading ${at + 1}`}
              mm={one.mm}
              unit={unit}
              min={0.1}
              max={100_000}
              onChange={(mm) => reading(at, { mm })}
            />
            with a{' '}
            <Picker
              label={`Measured with, ${at + 1}`}
              value={one.with}
              options={asOptions(MEASURED_WITH)}
              onChange={(tool) => reading(at, { with: tool as BlankReading['with'] })}
            />{' '}
            on <DayField label={`Day of reading ${at + 1}`} value={one.on} onChange={(on) => reading(at, { on })} /> by{' '}
            <TextInput
              aria-label={`Who measured, ${at + 1}`}
              size={8}
              value={one.by}
              maxLength={200}
              onChange={(event) => reading(at, { by: event.target.value })}
            />
            <WordButton
              aria-label={`Remove reading ${at + 1}`}
              onPress={() => onChange({ readings: readings.filter((_, i) => i !== at) })}
            >
              remove
            </WordButton>
          </p>
        ))}
        {counted.map((what) => (
          <p key={what}>
            Of the readings of the {what} the smallest counts: {formatLength(measureOf(blank, what)!, unit)} {unit}. Two
            of a kind differ, and the design must fit both.
          </p>
        ))}
        <p>
          <Button
            onPress={() =>
              onChange({
                readings: [
                  ...readings,
                  {
                    what: readings.at(-1)?.what ?? 'width',
                    mm: readings.at(-1)?.mm ?? 100,
                    on: today,
                    by,
                    with: readings.at(-1)?.with ?? 'tape',
                  },
                ],
              })
            }
          >
            Add a reading
          </Button>
        </p>
      </Box>
      <Box aria-label="What worked">
        <h3>What worked on it</h3>
        {trials.map((one, at) => (
          <p key={at} className="line">
            <TextInput
              aria-label={`What was put on, ${at + 1}`}
              value={one.what}
              maxLength={200}
              onChange={(event) => trial(at, { what: event.target.value })}
            />
            <FigureField
              label={`Its width, ${at + 1}`}
              mm={one.widthMm}
              unit={unit}
              min={1}
              max={100_000}
              onChange={(widthMm) => trial(at, { widthMm })}
            />{' '}
            wide, held{' '}
            <Picker
              label={`How it held, ${at + 1}`}
              value={one.held}
              options={asOptions(HELD)}
              onChange={(held) => trial(at, { held: held as BlankTrial['held'] })}
            />{' '}
            on <DayField label={`Day of trial ${at + 1}`} value={one.on} onChange={(on) => trial(at, { on })} />
            <TextInput
              aria-label={`What else was seen, ${at + 1}`}
              placeholder="what else was seen"
              value={one.note}
              maxLength={2000}
              onChange={(event) => trial(at, { note: event.target.value })}
            />
            <WordButton
              aria-label={`Remove trial ${at + 1}`}
              onPress={() => onChange({ trials: trials.filter((_, i) => i !== at) })}
            >
              remove
            </WordButton>
          </p>
        ))}
        <p>
          <Button
            onPress={() =>
              onChange({
                trials: [
                  ...trials,
                  { what: 'a name', widthMm: 100, heightMm: null, on: today, held: 'not known yet', note: '' },
                ],
              })
            }
          >
            Add a size that was tried
          </Button>
        </p>
      </Box>
    </>
  );
}

const Box = styled.section`
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  h3 {
    font-size: ${type.body};
  }
  img {
    max-width: 100%;
    max-height: 180px;
    border-radius: ${radius.m};
    border: 1px solid ${colour.line};
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
    padding-bottom: ${space.s};
    border-bottom: 1px solid ${colour.faint};
    color: ${colour.quiet};
  }
  .wrong {
    color: ${colour.bad};
  }
`;
