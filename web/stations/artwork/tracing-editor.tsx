import styled from 'styled-components';
import type { PicturePart } from '../../../core/stations/artwork/index.js';
import type { Tracing } from '../../../core/engines/artwork/index.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { colour, space, type } from '../../tokens.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import type { ArrangedPart, Arrangement } from './use-arrangement.js';

/** How a picture becomes outlines: what the app ruled of its colours and background, and what counts as a speck. */
export function TracingEditor({
  arranged,
  arrangement,
}: {
  readonly arranged: ArrangedPart;
  readonly arrangement: Arrangement;
}) {
  const { unit } = useJobContext();
  const { rulings } = useSaid('artwork');
  const part = arranged.part as PicturePart;
  const set = (next: Partial<Tracing>) =>
    arrangement.change((all) =>
      all.map((other) => (other.id === part.id ? { ...part, tracing: { ...part.tracing, ...next } } : other)),
    );
  const own = rulings.filter((ruling) => ruling.id.endsWith(`.${part.id}`));
  const colours = own.find((ruling) => ruling.id === `artwork.trace.colours.${part.id}`);
  return (
    <Box aria-label="Tracing">
      <Rulings
        rulings={own}
        editors={
          colours
            ? {
                [colours.id]: (
                  <NumberField
                    label="Colours to trace"
                    value={part.tracing.colours ?? Number(colours.value)}
                    min={1}
                    max={12}
                    onChange={(n) => set({ colours: n })}
                  />
                ),
              }
            : {}
        }
      />
      <p>
        Specks and pinholes less than{' '}
        <FigureField
          label="Smallest speck"
          mm={part.tracing.speckMm}
          unit={unit}
          max={50}
          stepMm={0.1}
          onChange={(mm) => set({ speckMm: mm })}
        />{' '}
        wide are left out, at the final size.
      </p>
    </Box>
  );
}

const Box = styled.section`
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  line-height: 1.8;
  padding-left: ${space.m};
  border-left: 2px solid ${colour.accent};
`;
