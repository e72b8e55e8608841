import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import styled from 'styled-components';
import { leftOfFilms, PIECE_KINDS, type PieceKind } from '../../core/shop/index.js';
import { formatLength, readLength, sayUnclear } from '../../core/words/index.js';
import { ApiProblem } from '../api/client.js';
import { colour, space, type } from '../tokens.js';
import { Button, MainButton } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { FilmPicker } from '../ui/film-picker.js';
import { useNotify } from '../ui/notices.js';
import { Labelled, TextInput } from '../ui/plain-fields.js';
import { useSettings } from '../ui/settings.js';
import { readFigure } from './figure-of-piece.js';
import { Card } from './list-and-card.js';
import { useKnownShop, useShopActs } from './shop-context.js';
import { newId } from '../api/new-id.js';

const KINDS = PIECE_KINDS.map((kind) => [kind, kind === 'sheet' ? 'sheets' : kind] as const);
/** Film lifts at its edges: nothing is cut nearer than this, to begin with. */
const EDGE_MM = 5;

/** What comes from an offcut put back: its film, and the sheet that was cut of the piece. */
export interface PutBack {
  readonly filmId?: string;
  readonly sheetId?: string;
  readonly widthMm?: number;
}

/** A roll, sheets or an offcut that come into stock. */
export function ReceiveCard({ onClose }: { readonly onClose: () => void }) {
  const shop = useKnownShop();
  const { writes } = useShopActs();
  const { unit } = useSettings();
  const notify = useNotify();
  const navigate = useNavigate();
  const given = (useLocation().state as PutBack | null) ?? {};
  const [filmId, setFilmId] = useState(given.filmId ?? '');
  const [kind, setKind] = useState<PieceKind>(given.sheetId ? 'offcut' : 'roll');
  const last =
    shop.stock.findLast((piece) => piece.filmId === filmId && piece.kind === kind) ??
    shop.stock.findLast((piece) => piece.kind === kind);
  const [width, setWidth] = useState('');
  const [length, setLength] = useState('');
  const [many, setMany] = useState('');
  const [place, setPlace] = useState('');
  const [note, setNote] = useState('');
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({});
  const isRoll = kind === 'roll';
  const receive = async () => {
    const faults: Record<string, string> = {};
    const side = (name: string, text: string) => {
      const read = readLength(text, unit);
      if ('mm' in read && read.mm >= 1) return read.mm;
      faults[name] =
        'problem' in read && read.problem === 'unclear'
          ? sayUnclear(text, read.either)
          : text.trim() === ''
            ? 'Measure it, and write it here.'
            : `“${text}” is not a length. Write 590, 59 cm or 23 1/4".`;
      return 0;
    };
    if (filmId === '') faults['film'] = 'Choose the film.';
    const widthMm = side('width', width);
    const rollOrCount = isRoll
      ? readFigure('roll', length)
      : kind === 'offcut'
        ? { figure: 1 }
        : readFigure('sheet', many);
    if ('wrong' in rollOrCount) faults[isRoll ? 'length' : 'many'] = rollOrCount.wrong;
    else if (rollOrCount.figure <= 0) faults[isRoll ? 'length' : 'many'] = 'It must be more than nothing.';
    const lengthMm = isRoll ? ('figure' in rollOrCount ? rollOrCount.figure : 0) : side('length', length);
    setWrong(faults);
    if (Object.keys(faults).length > 0 || !('figure' in rollOrCount)) return;
    const id = newId();
    try {
      const number = await writes.receive(
        { id, filmId, kind, widthMm, lengthMm, edgeMm: EDGE_MM, place: place.trim(), note, retired: false },
        {
          amount: rollOrCount.figure,
          why: given.sheetId ? 'returned' : 'received',
          note: '',
          sheetId: given.sheetId ?? null,
        },
        shop.revision,
      );
      notify(number === null ? 'It is in the stock book.' : `Write ${number} on this offcut: that is its number.`);
      void navigate(`/shop/stock/${id}`, { replace: true });
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      setWrong({ film: error.message });
    }
  };
  const field = (
    name: string,
    label: string,
    value: string,
    set: (text: string) => void,
    sign: string,
    hint?: string,
  ) => (
    <Labelled>
      {label}
      <span className="row">
        <TextInput
          aria-label={label}
          aria-invalid={wrong[name] !== undefined}
          value={value}
          placeholder={hint}
          onChange={(event) => set(event.target.value)}
        />{' '}
        {sign}
      </span>
      {wrong[name] && (
        <span className="wrong" role="alert">
          {wrong[name]}
        </span>
      )}
    </Labelled>
  );
  return (
    <Card
      title={given.sheetId ? 'Put an offcut back' : 'Receive a piece'}
      lead={
        given.sheetId
          ? 'Cut it square, measure it, and write its number on it.'
          : 'It gets its first line in the stock book.'
      }
      onClose={onClose}
    >
      <Form
        aria-label="Receive a piece"
        onSubmit={(event) => {
          event.preventDefault();
          void receive();
        }}
      >
        <div>
          <FilmPicker
            label="Film"
            films={shop.films}
            left={leftOfFilms(shop.stock)}
            value={filmId}
            onChange={setFilmId}
          />
          {wrong['film'] && (
            <p className="wrong" role="alert">
              {wrong['film']}
            </p>
          )}
        </div>
        <Choice label="Kind of piece" value={kind} options={KINDS} onChange={setKind} />
        {field('width', 'Usable width', width, setWidth, unit, last ? formatLength(last.widthMm, unit) : '')}
        {isRoll
          ? field('length', 'Length of the roll', length, setLength, 'm', '25')
          : field('length', 'Length', length, setLength, unit, last ? formatLength(last.lengthMm, unit) : '')}
        {kind === 'sheet' && field('many', 'How many', many, setMany, 'sheets', '10')}
        <Labelled>
          Where it lies
          <TextInput
            aria-label="Where it lies"
            value={place}
            onChange={(event) => setPlace(event.target.value)}
            placeholder={last?.place ?? ''}
          />
        </Labelled>
        <Labelled>
          Note
          <TextInput aria-label="Note" value={note} onChange={(event) => setNote(event.target.value)} />
        </Labelled>
        <p className="acts">
          <MainButton type="submit">{kind === 'offcut' ? 'Take it, and give it a number' : 'Receive it'}</MainButton>{' '}
          <Button onPress={onClose}>Leave it</Button>
        </p>
      </Form>
    </Card>
  );
}

const Form = styled.form`
  display: grid;
  gap: ${space.m};
  align-content: start;
  padding: 0 ${space.l} ${space.l};
  overflow-y: auto;
  max-width: 26rem;
  .row {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .wrong {
    color: ${colour.bad};
    font-size: ${type.small};
  }
  input[aria-invalid='true'] {
    border-color: ${colour.bad};
  }
  .acts {
    display: flex;
    gap: ${space.s};
  }
`;
