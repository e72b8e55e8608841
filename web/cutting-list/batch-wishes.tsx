import styled from 'styled-components';
import type { Batch, BatchOrder, BatchWish } from '../../core/batch/index.js';
import type { Film, StockPiece } from '../../core/shop/index.js';
import type { LengthUnit } from '../../core/words/index.js';
import { colour, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { FigureField } from '../ui/figure-field.js';
import { Small } from '../ui/plain-fields.js';
import { sayPiece } from '../ui/say-piece.js';

interface BatchWishesProps {
  readonly batch: Batch;
  readonly unit: LengthUnit;
  readonly films: readonly Film[];
  readonly stock: readonly StockPiece[];
  readonly onChange: (wish: BatchWish) => void;
}

const ZONES = [['yes', 'side by side'], ['no', 'one by one']] as const;
const ORDERS: readonly (readonly [BatchOrder, string])[] = [['changes', 'fewest changes'], ['smallest', 'smallest first'], ['urgent', 'soonest due first']];

/** What is decided of a batch, in sentences with the reason. */
export function BatchWishes({ batch: { wish }, unit, films, stock, onChange }: BatchWishesProps) {
  return (
    <section aria-label="How it is laid out">
      <h3>How it is laid out</h3>
      <Said>
        <p>
          Pieces lie <FigureField label="Spacing on the sheets" mm={wish.spacingMm} unit={unit} max={100} stepMm={1} onChange={(spacingMm) => onChange({ ...wish, spacingMm })} /> apart.
        </p>
        <div>
          Small blanks of films with the same settings go onto a mat <Choice label="Blanks on a mat" value={wish.zones ? 'yes' : 'no'} options={ZONES} onChange={(zones) => onChange({ ...wish, zones: zones === 'yes' })} />
          <Small>{wish.zones ? 'So several colours are cut in one pass. Each blank is cut to its size first.' : 'Each film is loaded by itself. No blanks are cut first, but there are more passes.'}</Small>
        </div>
        <div>
          Sheets are cut with the <Choice label="Order of sheets" value={wish.order} options={ORDERS} onChange={(order) => onChange({ ...wish, order })} />
        </div>
        <Small>All layers of one design lie in the same direction on their films, or turned by half. A cutter feeds a little too far or too short, and films draw back more along the roll. In one direction, all layers are off by the same and still fit.</Small>
        {wish.avoid.length > 0 && (
          <div>
            Left alone:
            <ul>
              {wish.avoid.map((id) => {
                const piece = stock.find((one) => one.id === id);
                const name = piece ? `${films.find((film) => film.id === piece.filmId)?.name ?? piece.filmId}, ${sayPiece(piece)}` : id;
                return (
                  <li key={id}>
                    {name}{' '}
                    <WordButton aria-label={`Use again: ${name}`} onPress={() => onChange({ ...wish, avoid: wish.avoid.filter((one) => one !== id) })}>
                      Use again
                    </WordButton>
                  </li>
                );
              })}
            </ul>
          </div>
        )}
      </Said>
    </section>
  );
}

const Said = styled.div`
  display: grid; gap: ${space.s}; font-size: ${type.body};
  > p, > div { line-height: 1.7; }
  ul { list-style: none; font-size: ${type.small}; }
  ${Small} { line-height: 1.45; color: ${colour.quiet}; }
`;
