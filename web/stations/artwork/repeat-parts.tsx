import { useState } from 'react';
import styled from 'styled-components';
import { countOf, MOST_COPIES, wordsOf, type Repeat } from '../../../core/stations/artwork/index.js';
import { count } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { usePaints } from '../../job/use-paints.js';
import { planner } from '../../plan/planner.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { useNotify } from '../../ui/notices.js';
import { Picker } from '../../ui/picker.js';
import { Labelled, TextArea } from '../../ui/plain-fields.js';
import { Swatch } from '../../ui/swatch.js';
import { MOST_OVERLAP_MM, type ArrangedPart, type Arrangement } from './use-arrangement.js';
import { usePlanInput } from './use-plan-input.js';
import { newId } from '../../api/new-id.js';

/** Repeats what is chosen: in rows and columns, each copy with its own word, number or colour. */
export function RepeatParts({ arrangement }: { readonly arrangement: Arrangement }) {
  const [open, setOpen] = useState(false);
  return open ? (
    <RepeatForm arrangement={arrangement} onDone={() => setOpen(false)} />
  ) : (
    <p>
      <WordButton onPress={() => setOpen(true)}>
        {arrangement.chosen.length === 1 ? 'Repeat it' : 'Repeat them'}
      </WordButton>
    </p>
  );
}

function RepeatForm({ arrangement, onDone }: { readonly arrangement: Arrangement; readonly onDone: () => void }) {
  const { unit, shop, plan, handle } = useJobContext();
  const planInput = usePlanInput();
  const notify = useNotify();
  const { chosen, choose } = arrangement;
  const [columns, setColumns] = useState(2);
  const [rows, setRows] = useState(1);
  const [gapMm, setGapMm] = useState(5);
  const [text, setText] = useState('');
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<readonly string[]>([]);
  const own = useColours(chosen);
  const words = wordsOf(text);
  const replaced = from ?? own[0] ?? null;
  const how: Repeat = {
    columns,
    rows,
    gapMm,
    words,
    colours: to.length > 0 && replaced !== null ? { from: replaced, to } : null,
  };
  const many = countOf(how);
  const listed = words.length > 0 || to.length > 0;
  const add = async () => {
    const ids = chosen.map(({ id }) => id);
    const newIds = Array.from({ length: (ids.length + 1) * many }, () => newId());
    try {
      handle.change(await planner.repeating(await planInput(), { ids, how, newIds }));
      choose([...ids, ...newIds]);
      onDone();
    } catch (error) {
      notify((error as Error).message);
    }
  };
  // One for each there is to be: films that show as one colour and take others on top, as the stock lists them.
  const turn = [
    ...new Set(
      shop.films
        .filter((film) => !film.retired && film.finish !== 'translucent' && film.takesOnTop)
        .map((film) => film.colour),
    ),
  ].slice(0, words.length || columns * rows);
  const hasWords = chosen.some(({ part }) => part.kind === 'lettering');
  return (
    <Form aria-label="Repeat">
      <p>
        <NumberField label="Times across" value={columns} min={1} max={50} onChange={setColumns} /> across
        {!listed && (
          <>
            {' '}
            and <NumberField label="Times down" value={rows} min={1} max={50} onChange={setRows} /> down
          </>
        )}
        ,{' '}
        <FigureField
          label="Gap between repeats"
          min={-MOST_OVERLAP_MM}
          mm={gapMm}
          unit={unit}
          stepMm={1}
          onChange={setGapMm}
        />{' '}
        apart.
      </p>
      {hasWords && (
        <Labelled>
          A word or number for each, one a line (1-12 counts)
          <TextArea
            aria-label="A word or number for each"
            value={text}
            rows={3}
            onChange={(event) => setText(event.target.value)}
          />
        </Labelled>
      )}
      {own.length > 0 && (
        <details>
          <summary>A colour for each</summary>
          {own.length > 1 && (
            <p>
              In place of{' '}
              <Picker
                label="Colour that is another in each"
                value={replaced!}
                options={own.map((hex) => ({ id: hex, text: plan?.colourNames?.[hex] ?? hex }))}
                onChange={setFrom}
              />
              , in turn:
            </p>
          )}
          <p>
            <WordButton onPress={() => setTo(turn)}>Films in stock, in turn</WordButton>
          </p>
          <Films>
            {shop.films
              .filter((film) => !film.retired)
              .map((film) => {
                const at = to.indexOf(film.colour);
                return (
                  <Film
                    key={film.id}
                    type="button"
                    aria-pressed={at >= 0}
                    onClick={() => setTo(at >= 0 ? to.filter((hex) => hex !== film.colour) : [...to, film.colour])}
                  >
                    <Swatch film={film} size={16} /> {film.name}
                    {at >= 0 && <b> {at + 1}</b>}
                  </Film>
                );
              })}
          </Films>
        </details>
      )}
      <p>
        <Button isDisabled={many < 2 || many > MOST_COPIES} onPress={() => void add()}>
          {many < 2 ? 'Add the copies' : `Make it ${many} in all`}
        </Button>{' '}
        <WordButton onPress={onDone}>Leave it</WordButton>
        {many > MOST_COPIES &&
          ` At most ${MOST_COPIES} at once, and this is ${count(many, 'copy', 'copies')}. Copies of a whole job are set at the Sheets station.`}
      </p>
    </Form>
  );
}

/** The colours of some parts as they are drawn. */
function useColours(parts: readonly ArrangedPart[]): string[] {
  const drawn = usePaints('before');
  const ids = new Set(parts.map(({ id }) => id));
  return [...new Set(drawn.filter((paint) => ids.has(paint.part)).map((paint) => paint.colour))];
}

const Form = styled.section`
  display: grid;
  gap: ${space.xs};
  padding: ${space.s};
  background: ${colour.accentWash};
  border-radius: ${radius.m};
  summary {
    cursor: pointer;
    min-height: 28px;
  }
`;
const Films = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.xs};
`;
const Film = styled.button`
  display: inline-flex;
  gap: 5px;
  align-items: center;
  min-height: 28px;
  padding: 2px ${space.s};
  font-size: ${type.small};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  background: ${colour.raised};
  color: ${colour.ink};
  cursor: pointer;
  &[aria-pressed='true'] {
    border-color: ${colour.accent};
    box-shadow: inset 0 0 0 1px ${colour.accent};
  }
`;
