import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { STOCK_ACTS, type StockAct, type StockLine, type StockPiece } from '../../core/shop/index.js';
import { ApiProblem, ask } from '../api/client.js';
import { colour, space, type, width } from '../tokens.js';
import { Button, MainButton, WordButton } from '../ui/button.js';
import { Picker } from '../ui/picker.js';
import { Labelled, TextInput } from '../ui/plain-fields.js';
import { sayDateTime } from '../ui/say.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';
import { sayPiece, saySize } from '../ui/say-piece.js';
import { readFigure } from './figure-of-piece.js';
import { Card } from './list-and-card.js';
import { RecordForm } from './record-form.js';
import { sayAmount } from './say.js';
import { useKnownShop, useShopActs } from './shop-context.js';

const ACTS: Readonly<Record<StockAct, readonly [said: string, figure: string]>> = {
  counted: ['counted: so much is there', 'There is'],
  received: ['received: so much came', 'Came'],
  used: ['used: so much went into work', 'Went'],
  returned: ['returned: so much came back', 'Came back'],
  'thrown away': ['thrown away: so much is gone', 'Gone'],
  corrected: ['corrected: more, or with − less', 'By'],
};

/** A piece of film, what is left of it, and every line of the stock book that says why. */
export function PieceCard({ piece, onClose }: { readonly piece: StockPiece; readonly onClose: () => void }) {
  const shop = useKnownShop();
  const { save, attempt, writes } = useShopActs();
  const { unit } = useSettings();
  const film = shop.films.find(({ id }) => id === piece.filmId)!;
  const { left, ...card } = piece;
  const lines = useQuery({
    queryKey: ['stock-lines', piece.id, shop.revision],
    queryFn: () => ask<StockLine[]>(`/api/shop/lines?piece=${encodeURIComponent(piece.id)}`),
    placeholderData: (before) => before,
  }).data;
  const putAway = (retired: boolean) =>
    void attempt(() =>
      save(
        [{ kind: 'pieces', value: { ...card, retired } }],
        shop.revision,
        retired ? 'It is put away, and not used any more.' : 'It can be used again.',
      ),
    );
  return (
    <Card
      title={`${film.name}, ${sayPiece(piece)}`}
      lead={`${saySize(piece, unit)}${piece.place ? `; ${piece.place}` : ''}${piece.retired ? '; put away' : ''}`}
      mark={<Swatch film={film} size={44} />}
      onClose={onClose}
    >
      <Inside>
        <Left>
          <strong>{sayAmount(piece, left)}</strong> left by the stock book
          {piece.number !== null && (
            <span>
              Written on it: <b>{piece.number}</b>
            </span>
          )}
        </Left>
        <Book key={piece.id} piece={piece} />
        <section>
          <h3>Why so much is left</h3>
          <Lines aria-label="Stock book">
            {lines?.map((line) => (
              <Line
                key={line.id}
                line={line}
                piece={piece}
                isTakenBack={lines.some((other) => other.takesBack === line.id)}
                onTakeBack={() =>
                  void attempt(() => writes.takeBack(line.id, shop.revision), 'The line was taken back.')
                }
              />
            ))}
          </Lines>
        </section>
        <details>
          <summary>What it is, and where it lies</summary>
          <RecordForm
            kind="pieces"
            record={card}
            revision={shop.revision}
            {...(piece.kind === 'roll' ? { without: ['lengthMm'] } : {})}
            onSave={(value, revision) => save([{ kind: 'pieces', value }], revision, 'The piece is saved.')}
            acts={
              <Button onPress={() => putAway(!piece.retired)}>{piece.retired ? 'Use it again' : 'Put it away'}</Button>
            }
          />
        </details>
      </Inside>
    </Card>
  );
}

function Line({
  line,
  piece,
  isTakenBack,
  onTakeBack,
}: {
  readonly line: StockLine;
  readonly piece: StockPiece;
  readonly isTakenBack: boolean;
  readonly onTakeBack: () => void;
}) {
  const navigate = useNavigate();
  const canTakeBack = !isTakenBack && line.takesBack === null;
  return (
    <li data-back={isTakenBack || undefined}>
      <b>
        {line.amount > 0 ? '+' : line.amount < 0 ? '−' : ''}
        {sayAmount(piece, Math.abs(line.amount))}
      </b>
      <span>
        {line.why}
        {line.note && `: ${line.note}`}
        <small>
          {sayDateTime(line.at)}
          {line.who && `, ${line.who}`}
          {line.sheetId && ', for a sheet that was cut'}
        </small>
      </span>
      <span className="acts">
        {line.why === 'used' && line.sheetId && (
          <WordButton
            onPress={() => void navigate('/shop/stock/new', { state: { filmId: piece.filmId, sheetId: line.sheetId } })}
          >
            put an offcut back
          </WordButton>
        )}
        {canTakeBack && (
          <WordButton onPress={onTakeBack} aria-label={`Take back: ${line.why}, ${sayAmount(piece, line.amount)}`}>
            take back
          </WordButton>
        )}
        {isTakenBack && <small>taken back</small>}
      </span>
    </li>
  );
}

/** What a hand writes into the book. */
function Book({ piece }: { readonly piece: StockPiece }) {
  const shop = useKnownShop();
  const { writes } = useShopActs();
  const [act, setAct] = useState<StockAct>('counted');
  const [text, setText] = useState('');
  const [note, setNote] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const [seen, setSeen] = useState(shop.revision);
  const isRoll = piece.kind === 'roll';
  const write = async (all: boolean) => {
    const read = all ? { figure: null } : readFigure(piece.kind, text);
    if ('wrong' in read) {
      setWrong(read.wrong);
      return;
    }
    try {
      await writes.book(piece.id, { act: all ? 'thrown away' : act, figure: read.figure, note: note.trim() }, seen);
      setText('');
      setNote('');
      setWrong(null);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      setWrong(error.message);
    } finally {
      // What comes next is counted against what is seen now.
      setSeen(shop.revision);
    }
  };
  return (
    <Form
      aria-label="Write into the stock book"
      onSubmit={(event) => {
        event.preventDefault();
        void write(false);
      }}
    >
      <Picker
        label="What happened"
        value={act}
        options={STOCK_ACTS.map((id) => ({ id, text: ACTS[id][0] }))}
        onChange={(id) => setAct(id as StockAct)}
      />
      <Labelled>
        {ACTS[act][1]}
        <span className="row">
          <TextInput
            aria-label={`${ACTS[act][1]}, ${isRoll ? 'metres' : 'how many'}`}
            aria-invalid={wrong !== null}
            value={text}
            size={7}
            onFocus={() => setSeen(shop.revision)}
            onChange={(event) => setText(event.target.value)}
          />
          {isRoll ? 'm' : piece.kind === 'sheet' ? 'sheets' : ''}
        </span>
      </Labelled>
      <Labelled>
        Why
        <TextInput
          aria-label="Why"
          value={note}
          onChange={(event) => setNote(event.target.value)}
          placeholder="if it needs saying"
        />
      </Labelled>
      <MainButton type="submit">Book it</MainButton>
      {piece.left > 0 && <WordButton onPress={() => void write(true)}>all of it was thrown away</WordButton>}
      {wrong && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
    </Form>
  );
}

const Inside = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  display: grid;
  gap: ${space.l};
  align-content: start;
  padding: 0 ${space.l} ${space.l};
  h3 {
    font-size: ${type.body};
    margin-bottom: ${space.xs};
  }
  details > form {
    padding-top: ${space.m};
    > div {
      padding-left: 0;
      padding-right: 0;
    }
  }
`;
const Left = styled.p`
  font-size: ${type.small};
  color: ${colour.quiet};
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.s};
  strong {
    font: 700 1.9rem/1 ${type.display};
    color: ${colour.ink};
    font-variant-numeric: tabular-nums;
  }
  span {
    margin-left: auto;
  }
  b {
    font-size: ${type.large};
    color: ${colour.ink};
  }
`;
const Form = styled.form`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: ${space.s} ${space.m};
  padding: ${space.m};
  background: ${colour.docket};
  border: 1px solid ${colour.line};
  border-radius: 6px;
  > button[aria-haspopup] {
    flex: 1 1 100%;
  }
  .row {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .wrong {
    flex: 1 1 100%;
    color: ${colour.bad};
    font-size: ${type.small};
  }
  input[aria-invalid='true'] {
    border-color: ${colour.bad};
  }
`;
const Lines = styled.ul`
  list-style: none;
  font-size: ${type.small};
  li {
    display: grid;
    grid-template-columns: 5.5em minmax(0, 1fr) auto;
    gap: ${space.s};
    padding: 6px 0;
    border-bottom: 1px solid ${colour.faint};
  }
  li > b {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  li[data-back] > b {
    text-decoration: line-through;
    color: ${colour.quiet};
  }
  small {
    display: block;
    color: ${colour.quiet};
    font-size: 0.75rem;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: ${space.s};
    justify-content: flex-end;
  }
  @media (max-width: ${width.phone}) {
    li {
      grid-template-columns: 4em minmax(0, 1fr);
    }
    .acts {
      grid-column: 2;
      justify-content: flex-start;
    }
  }
`;
