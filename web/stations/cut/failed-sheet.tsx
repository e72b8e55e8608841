import { useState } from 'react';
import styled from 'styled-components';
import {
  countGroups,
  farthestRun,
  openParts,
  placesOnPiece,
  sayFilmsOfSheet,
  type FrozenSheet,
} from '../../../core/stations/cut/index.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Button, MainButton } from '../../ui/button.js';
import { count } from '../../../core/words/index.js';
import { LoadedQuestion } from './loaded-question.js';

interface FailedSheetProps {
  readonly sheet: FrozenSheet;
  readonly busy: boolean;
  readonly onCut: (how: 'rest' | 'again', loadedFilmIds: readonly string[]) => void;
  readonly onDecide: (decided: 'kept' | 'thrown-away') => void;
}

/** A cut that failed or was cancelled, told until the maker has said what to do with it. */
export function FailedSheet({ sheet, busy, onCut, onDecide }: FailedSheetProps) {
  const [how, setHow] = useState<'rest' | 'again' | null>(null);
  const [run, last] = [farthestRun(sheet.runs)!, sheet.runs.at(-1)!];
  const { whole } = run;
  const spoiled = sheet.groups.filter(({ verdict }) => verdict === 'spoiled').length;
  // What of the parts still counts: copies that are spoiled are planned again as a whole.
  const isKeepable = sheet.groups.every(
    ({ verdict }, position) => verdict === 'spoiled' || placesOnPiece(sheet, position)?.isWhole,
  );
  const name = sayFilmsOfSheet(sheet);
  const allWhole = whole !== null && whole.parts === whole.ofParts;
  const open = openIn(sheet);
  return (
    <Card aria-label={`${name}: what to do with it`}>
      <h3>
        {name}: {last.state === 'failed' ? 'the cut failed' : 'the cut was cancelled'}
      </h3>
      <p>
        {last.state === 'failed' && `${last.message} `}
        {last !== run &&
          (last.pairsDone === 0
            ? 'It was stopped before anything was cut. What counts is the piece that was cut before. '
            : 'Of the pieces that were cut of it, the one that got farthest counts. ')}
        {spoiled > 0 &&
          `${countGroups(spoiled, sheet.groups)} on it ${spoiled === 1 ? 'is' : 'are'} spoiled and laid out again. `}
        {whole === null
          ? 'What is whole on the piece is not known.'
          : allWhole
            ? 'Every part is whole; only the marks or the border are missing.'
            : whole.parts === 0
              ? 'No part is whole on the piece.'
              : `On the piece ${count(whole.parts, 'part')} of ${whole.ofParts} ${whole.parts === 1 ? 'is' : 'are'} whole${whole.ofCopies > 1 ? `, and ${whole.copies} of ${countGroups(whole.ofCopies, sheet.groups)}` : ''}. Keep ${whole.parts === 1 ? 'it' : 'them'} if the film lies well.`}
      </p>
      <Row>
        {isKeepable && <MainButton onPress={() => onDecide('kept')}>Keep it as it is</MainButton>}
        {!isKeepable && whole !== null && whole.parts > 0 && (
          <Button onPress={() => setHow('rest')} aria-pressed={how === 'rest'}>
            Cut the rest: {count(open, 'part')}
          </Button>
        )}
        {spoiled === 0 && (
          <Button onPress={() => setHow('again')} aria-pressed={how === 'again'}>
            Cut all of it again
          </Button>
        )}
        <Button onPress={() => onDecide('thrown-away')}>Throw it away</Button>
      </Row>
      {how === null && <p>If you throw it away, its layer is laid out again with what is left to cut.</p>}
      {how === 'rest' && (
        <p>
          {sheet.zones ? 'Lay new pieces where the first lay, of the films that are not whole.' : 'Load a new piece.'}{' '}
          The parts that are missing are cut whole, with marks and border{sheet.zones ? '' : ', where the piece begins'}
          .
        </p>
      )}
      {how && (
        <LoadedQuestion
          key={how}
          sheet={sheet}
          action={how === 'rest' ? 'Cut the rest' : 'Cut it again'}
          busy={busy}
          onCut={(loaded) => onCut(how, loaded)}
        />
      )}
    </Card>
  );
}

/** How many parts of copies that count are not whole. */
function openIn({ groups, runs }: FrozenSheet): number {
  const run = farthestRun(runs)!;
  return groups.reduce(
    (sum, { verdict }, position) => sum + (verdict === 'spoiled' ? 0 : openParts(run, position).open.length),
    0,
  );
}

const Card = styled.section`
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  background: ${colour.badWash};
  border: 1px solid ${colour.line};
  border-left: 4px solid ${colour.bad};
  border-radius: ${radius.m};
  font-size: ${type.small};
  h3 {
    font-size: ${type.body};
    margin: 0;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
  button[aria-pressed='true'] {
    border-color: ${colour.accent};
    background: ${colour.accentWash};
    font-weight: 650;
  }
`;
