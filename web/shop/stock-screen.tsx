import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { areaLeft, PIECE_KINDS, type Film, type StockPiece } from '../../core/shop/index.js';
import { MainButton } from '../ui/button.js';
import { Picker } from '../ui/picker.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';
import { sayPiece, saySize } from '../ui/say-piece.js';
import { ListAndCard } from './list-and-card.js';
import { PieceCard } from './piece-card.js';
import { ReceiveCard } from './receive-card.js';
import { RetiredToo } from './retired-too.js';
import { sayAmount } from './say.js';
import { useKnownShop } from './shop-context.js';
import { ShopTable, type ShopColumn } from './shop-table.js';

const ALL = 'all';
const KINDS = [
  { id: ALL, text: 'all pieces' },
  { id: 'roll', text: 'rolls' },
  { id: 'sheet', text: 'sheets' },
  { id: 'offcut', text: 'offcuts' },
];

interface Row {
  readonly piece: StockPiece;
  readonly film: Film;
}

const idOf = ({ piece }: Row) => piece.id;
const wordsOf = ({ piece, film }: Row) => [film.name, sayPiece(piece), piece.place, piece.note].join(' ');

/** Every piece of film: what it is, where it lies, and what is left of it by the stock book. */
export function StockScreen() {
  const { id } = useParams();
  const shop = useKnownShop();
  const { unit } = useSettings();
  const navigate = useNavigate();
  const [kind, setKind] = useState(ALL);
  const [gone, setGone] = useState(false);
  const rows = useMemo((): Row[] => {
    const films = new Map(shop.films.map((film) => [film.id, film]));
    return shop.stock.flatMap((piece) => {
      const film = films.get(piece.filmId);
      const isGone = piece.retired || piece.left <= 0;
      return film && (gone || !isGone) && (kind === ALL || piece.kind === kind) ? [{ piece, film }] : [];
    });
  }, [shop.films, shop.stock, kind, gone]);
  const columns = useMemo(
    (): readonly ShopColumn<Row>[] => [
      {
        id: 'film',
        head: 'Film',
        share: 2,
        value: ({ film }) => film.name,
        cell: ({ film }) => (
          <>
            <Swatch film={film} /> {film.name}
          </>
        ),
      },
      {
        id: 'piece',
        head: 'Piece',
        share: 1.1,
        value: ({ piece }) => `${PIECE_KINDS.indexOf(piece.kind)} ${piece.number ?? 0}`,
        cell: ({ piece }) => sayPiece(piece),
      },
      {
        id: 'size',
        isExtra: true,
        head: 'Size',
        share: 1.3,
        value: ({ piece }) => piece.widthMm,
        cell: ({ piece }) => saySize(piece, unit),
      },
      {
        id: 'left',
        head: 'Left',
        isFigure: true,
        value: ({ piece }) => areaLeft(piece),
        cell: ({ piece }) => (piece.retired ? 'put away' : piece.left <= 0 ? 'used up' : sayAmount(piece, piece.left)),
      },
      { id: 'place', isExtra: true, head: 'Where', value: ({ piece }) => piece.place },
    ],
    [unit],
  );
  const open = shop.stock.find((piece) => piece.id === id);
  const close = () => void navigate('/shop/stock');
  return (
    <ListAndCard
      list={
        <ShopTable
          label="Pieces of film"
          columns={columns}
          rows={rows}
          idOf={idOf}
          wordsOf={wordsOf}
          searchLabel="Search pieces by film, number or place"
          sortBy={{ column: 'film', direction: 'ascending' }}
          openId={id}
          onOpen={(opened) => void navigate(`/shop/stock/${opened}`)}
          tools={
            <>
              <Picker label="Pieces" value={kind} options={KINDS} onChange={setKind} />
              <RetiredToo isOn={gone} onChange={setGone} said="used up too" />
              <MainButton onPress={() => void navigate('/shop/stock/new')}>Receive a piece</MainButton>
            </>
          }
          empty={
            <p>
              {shop.films.length === 0
                ? 'There are no films yet. Add a film first, then receive a roll of it.'
                : 'Nothing is in stock. Receive a roll, sheets, or an offcut.'}
            </p>
          }
        />
      }
      card={
        open ? (
          <PieceCard key={id} piece={open} onClose={close} />
        ) : id === 'new' ? (
          <ReceiveCard onClose={close} />
        ) : null
      }
    />
  );
}
