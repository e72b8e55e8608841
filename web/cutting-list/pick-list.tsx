import styled from 'styled-components';
import type { BatchSheetView } from '../../core/batch/index.js';
import { formatLength, type LengthUnit } from '../../core/words/index.js';
import { sayLeftover, sayPieceToFetch } from '../batch/say-sheet.js';
import { space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { Small } from '../ui/plain-fields.js';
import { Swatch } from '../ui/swatch.js';
import { piecesOf } from './pieces-of.js';

interface PickListProps {
  readonly sheets: readonly BatchSheetView[];
  readonly unit: LengthUnit;
  readonly onAvoid: (pieceId: string) => void;
}

/** What to fetch from the rack, what to cut off it, and what will be left of it. */
export function PickList({ sheets, unit, onAvoid }: PickListProps) {
  const mm = (value: number) => formatLength(value, unit);
  return (
    <section aria-label="Pick list">
      <h3>To fetch from the rack</h3>
      <List>
        {piecesOf(sheets).map(({ sheet, zone, film, piece, cutOff, leftovers }, i) => (
          <li key={i}>
            <b>{zone === null ? sheet : `${sheet}.${zone}`}</b>
            <Swatch film={film} size={16} />
            <span>
              {film.name}, {sayPieceToFetch(piece, unit)}
              <Small as="span">
                {cutOff ? `cut a blank of ${mm(cutOff.widthMm)} × ${mm(cutOff.lengthMm)} ${unit}. ` : ''}
                {leftovers.length > 0 ? `Back to the rack: ${leftovers.map((left) => sayLeftover(left, unit)).join(' and ')}. ` : ''}
                <WordButton aria-label={`Do not use it: ${film.name}, ${sayPieceToFetch(piece, unit)}`} onPress={() => onAvoid(piece.id)}>
                  Do not use it
                </WordButton>
              </Small>
            </span>
          </li>
        ))}
      </List>
      <Button onPress={() => window.print()}>Print the lists and cards</Button>
    </section>
  );
}

const List = styled.ol`
  list-style: none; display: grid; gap: ${space.s}; font-size: ${type.small}; padding-bottom: ${space.m};
  li { display: grid; grid-template-columns: 2.2em auto 1fr; gap: ${space.s}; align-items: start; }
  b { font-variant-numeric: tabular-nums; }
  span span { display: block; }
  button { margin-left: -4px; }
`;
