import { useState } from 'react';
import styled from 'styled-components';
import { NAME_WIDEST_MM, readTeam, type Team } from '../../../core/stations/surface/index.js';
import { nameOfPart } from '../../../core/stations/artwork/index.js';
import { count } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { space } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { FileButton } from '../../ui/file-button.js';
import { Picker } from '../../ui/picker.js';
import { Labelled, Small, TextArea } from '../../ui/plain-fields.js';
import { useSurface } from './surface-fields.js';

/** Names and numbers of a team: each becomes a design of its own. */
export function TeamList() {
  const { recipe, unit } = useJobContext();
  const { surface, change } = useSurface();
  const { team } = surface;
  const [isOpen, setOpen] = useState(false);
  const letterings = recipe.artworks.filter((part) => part.kind === 'lettering');
  const set = (part: Partial<Team>) => change({ team: { ...team!, ...part } });
  const take = (members: Team['members']) => {
    const [name = null, number = null] = guessed(letterings);
    change({
      team: team
        ? { ...team, members }
        : { namePart: name, numberPart: number, members, widestMm: NAME_WIDEST_MM, condense: 'each' },
    });
    setOpen(false);
  };
  const options = [
    { id: 'none', text: 'none' },
    ...letterings.map((part) => ({ id: part.id, text: nameOfPart(part, recipe.artworks) })),
  ];
  const picked = (id: string) => (id === 'none' ? null : id);
  return (
    <section aria-label="Names and numbers">
      {team ? (
        <>
          <p>
            For a team: {count(team.members.length, 'design')}.{' '}
            <WordButton onPress={() => setOpen(!isOpen)}>
              {isOpen ? 'Leave the list as it is' : 'Another list'}
            </WordButton>{' '}
            <WordButton onPress={() => change({ team: null })}>No team</WordButton>
          </p>
          <p>
            The name is{' '}
            <Picker
              label="The name is"
              value={team.namePart ?? 'none'}
              options={options}
              onChange={(id) => set({ namePart: picked(id) })}
            />
            , the number{' '}
            <Picker
              label="The number is"
              value={team.numberPart ?? 'none'}
              options={options}
              onChange={(id) => set({ numberPart: picked(id) })}
            />
            .
          </p>
          <p>
            Names are at most{' '}
            <FigureField
              label="Widest name"
              mm={team.widestMm}
              unit={unit}
              min={10}
              stepMm={5}
              onChange={(widestMm) => set({ widestMm })}
            />{' '}
            wide; longer ones are condensed,{' '}
            <Choice
              label="Which names are condensed"
              value={team.condense}
              options={[
                ['each', 'each by itself'],
                ['all', 'all alike'],
              ]}
              onChange={(condense) => set({ condense })}
            />
          </p>
        </>
      ) : (
        !isOpen &&
        letterings.length > 0 && <WordButton onPress={() => setOpen(true)}>Names and numbers of a team</WordButton>
      )}
      {isOpen && <ListForm onTake={take} />}
    </section>
  );
}

/** What is a number is the number; of the rest the first is the name. */
function guessed(
  letterings: readonly { readonly id: string; readonly lettering: { readonly text: string } }[],
): [string | null, string | null] {
  const isNumber = ({ lettering }: (typeof letterings)[number]) => /^\d+$/.test(lettering.text.trim());
  return [letterings.find((part) => !isNumber(part))?.id ?? null, letterings.find(isNumber)?.id ?? null];
}

function ListForm({ onTake }: { readonly onTake: (members: Team['members']) => void }) {
  const [text, setText] = useState('');
  const [problems, setProblems] = useState<readonly string[]>([]);
  const read = () => {
    const { members, problems: found } = readTeam(text);
    setProblems(found.length > 0 ? found : members.length === 0 ? ['The list is empty.'] : []);
    if (found.length === 0 && members.length > 0) onTake(members);
  };
  return (
    <Form>
      <Labelled>
        One a line: name, number, and the size of the garment if you like
        <TextArea
          rows={6}
          value={text}
          placeholder={'ADA, 7, M\nBRAM, 12, XL'}
          onChange={(event) => setText(event.target.value)}
        />
      </Labelled>
      {problems.map((problem) => (
        <p key={problem} role="alert">
          {problem}
        </p>
      ))}
      <div>
        <Button onPress={read}>Take this list</Button>{' '}
        <FileButton
          label="File with names and numbers"
          accept=".csv,.txt"
          onFile={(file) => void file.text().then(setText)}
        >
          From a CSV file
        </FileButton>
      </div>
      <Small>Nothing is taken until every line can be read.</Small>
    </Form>
  );
}

const Form = styled.div`
  display: grid;
  gap: ${space.s};
`;
