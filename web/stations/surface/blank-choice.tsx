import styled from 'styled-components';
import { fromBlank, workedBefore } from '../../../core/stations/surface/index.js';
import { formatLength } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { Picker } from '../../ui/picker.js';
import { Small } from '../../ui/plain-fields.js';
import { KeepReadings } from './keep-readings.js';
import { useSurface } from './surface-fields.js';

const Worked = styled.ul`
  list-style: none;
  display: grid;
  gap: 2px;
`;

/** Takes a blank that the shop knows: what was read of it before, and what worked on it. */
export function BlankChoice() {
  const { shop, recipe, handle, unit } = useJobContext();
  const { surface, change } = useSurface();
  const blanks = shop.blanks.filter(({ retired, id }) => !retired || id === surface.blankId);
  const blank = blanks.find(({ id }) => id === surface.blankId);
  const worked = blank ? workedBefore(blank).slice(0, 3) : [];
  return (
    <>
      {blanks.length > 0 && (
        <p>
          <Picker
            label="Blank of the shop"
            value={blank?.id ?? 'none'}
            options={[
              { id: 'none', text: 'no blank of the shop' },
              ...blanks.map(({ id, name, kind, matter }) => ({ id, text: name, hint: `${kind}, ${matter}` })),
            ]}
            onChange={(id) => {
              const chosen = blanks.find((one) => one.id === id);
              if (chosen) handle.change(fromBlank(chosen, recipe));
              else change({ blankId: null });
            }}
          />
        </p>
      )}
      <KeepReadings blank={blank ?? null} />
      {blank && (
        <>
          <Small>
            {blank.readings.length > 0
              ? 'The figures below were read of it before, the smallest of each. No two of one model are alike: measure this one, and correct them.'
              : 'Nobody has measured one of these yet: measure this one.'}
          </Small>
          {worked.length > 0 && (
            <Worked aria-label="What worked on it before">
              {worked.map((trial) => (
                <li key={`${trial.what} ${trial.on}`}>
                  “{trial.what}”, {formatLength(trial.widthMm, unit)} {unit} wide, sat well.{' '}
                  <WordButton onPress={() => change({ size: { mode: 'width', mm: trial.widthMm } })}>
                    Make it {formatLength(trial.widthMm, unit)} {unit} wide
                  </WordButton>
                </li>
              ))}
            </Worked>
          )}
        </>
      )}
    </>
  );
}
