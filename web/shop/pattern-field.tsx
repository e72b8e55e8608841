import styled from 'styled-components';
import type { Film } from '../../core/shop/index.js';
import { formatLength } from '../../core/words/index.js';
import { colour, radius, space, type } from '../tokens.js';
import { Button } from '../ui/button.js';
import { FigureField } from '../ui/figure-field.js';
import { FileButton } from '../ui/file-button.js';
import { useSettings } from '../ui/settings.js';
import { pictureUrl } from '../ui/swatch.js';
import { usePicture } from './use-picture.js';

/** A new picture repeats like this until it is measured, mm. */
const REPEAT_MM = 50;
/** CSS says so. */
const PX_PER_MM = 96 / 25.4;

/** The picture that a pattern film is printed or woven with, and how wide it is on the film before it begins anew. */
export function PatternField({
  pattern,
  onChange,
}: {
  readonly pattern: Film['pattern'];
  readonly onChange: (pattern: Film['pattern']) => void;
}) {
  const { unit } = useSettings();
  const { handIn, problem, isBusy } = usePicture(({ picture, ratio }) =>
    onChange({ picture, ratio, repeatMm: pattern?.repeatMm ?? REPEAT_MM }),
  );
  return (
    <Box aria-label="Pattern">
      <h3>Pattern</h3>
      {pattern ? (
        <>
          <Seen
            role="img"
            aria-label={`The pattern at its true size: ${pattern.picture.fileName}`}
            style={{
              backgroundImage: `url(${pictureUrl(pattern.picture)})`,
              backgroundSize: `${pattern.repeatMm * PX_PER_MM}px auto`,
            }}
          />
          <p>
            It begins anew every{' '}
            <FigureField
              label="Width of the repeat"
              mm={pattern.repeatMm}
              unit={unit}
              min={1}
              max={10_000}
              stepMm={1}
              onChange={(repeatMm) => onChange({ ...pattern, repeatMm })}
            />
            , and every {formatLength(pattern.repeatMm * pattern.ratio, unit)} {unit} along the roll. Measure it on the
            film.
          </p>
        </>
      ) : (
        <p>
          A film that is printed or woven with a pattern has a picture of it. It is then seen at its true scale in every
          job.
        </p>
      )}
      <p>
        <FileButton
          label="Picture of the pattern"
          accept="image/png,image/jpeg,image/webp,image/svg+xml"
          isDisabled={isBusy}
          onFile={handIn}
        >
          {isBusy ? 'Taking it …' : pattern ? 'Another picture' : 'Add its picture'}
        </FileButton>{' '}
        {pattern && <Button onPress={() => onChange(null)}>It has no pattern</Button>}
      </p>
      {problem && <Wrong role="alert">{problem}</Wrong>}
    </Box>
  );
}

const Box = styled.section`
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  color: ${colour.quiet};
  h3 {
    font-size: ${type.body};
    color: ${colour.ink};
  }
`;
const Seen = styled.div`
  height: 150px;
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  forced-color-adjust: none;
`;
const Wrong = styled.p`
  color: ${colour.bad};
`;
