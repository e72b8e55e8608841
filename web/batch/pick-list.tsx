import styled from 'styled-components';
import type { LaidSheetView } from '../../core/plan/index.js';
import { formatLength, type LengthUnit } from '../../core/words/index.js';
import { sayCuts, sayOnPiece, sayLeftover, sayPieceToFetch, saySection } from './say-sheet.js';
import { space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { Small } from '../ui/plain-fields.js';
import { Swatch } from '../ui/swatch.js';
import { piecesOf } from './pieces-of.js';

interface PickListProps<S extends LaidSheetView> {
  readonly sheets: readonly S[];
  readonly unit: LengthUnit;
  /** What a job is called whose layers lie on them; a job alone needs no name. */
  readonly titleOf?: (jobId: string) => string;
  /** Where a piece can be left alone. */
  readonly onAvoid?: (pieceId: string) => void;
}

/** What to fetch from the rack, what to cut off it, and what will be left of it. */
export function PickList<S extends LaidSheetView>({ sheets, unit, titleOf = () => '', onAvoid }: PickListProps<S>) {
  const mm = (value: number) => formatLength(value, unit);
  return (
    <section aria-label="Pick list">
      <h3>To fetch from the rack</h3>
      <List>
        {piecesOf(sheets).map(
          ({ sheet, zone, film, piece, cuts, isFoil, carries, isMirrored, fedMm, leftovers }, i) => (
            <li key={i}>
              <b>{zone === null ? sheet : `${sheet}.${zone}`}</b>
              <Swatch film={film} size={16} />
              <span>
                {film.name}, {sayPieceToFetch(piece, unit)}
                {!isFoil && saySection(sheets[sheet - 1]!)}
                <Small as="span">
                  {sentence(sayOnPiece(carries, titleOf))}
                  {isMirrored ? 'It is cut mirrored. ' : ''}
                  {fedMm !== null ? `${mm(fedMm)} ${unit} of it are fed. ` : ''}
                  {cuts.length > 0 ? `Cut off ${sayCuts(cuts, unit)}. ` : ''}
                  {isFoil ? 'It is laid on the heat adhesive by hand; the blade does not cut it. ' : ''}
                  {leftovers.length > 0
                    ? `Back to the rack: ${leftovers.map((left) => sayLeftover(left, unit)).join(' and ')}. `
                    : ''}
                  {onAvoid && (
                    <WordButton
                      aria-label={`Do not use it: ${film.name}, ${sayPieceToFetch(piece, unit)}`}
                      onPress={() => onAvoid(piece.id)}
                    >
                      Do not use it
                    </WordButton>
                  )}
                </Small>
              </span>
            </li>
          ),
        )}
      </List>
      <Button onPress={() => window.print()}>Print the lists and cards</Button>
    </section>
  );
}

function sentence(note: string): string {
  return note && `${note.charAt(0).toUpperCase()}${note.slice(1)}. `;
}

const List = styled.ol`
  list-style: none;
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  padding-bottom: ${space.m};
  li {
    display: grid;
    grid-template-columns: 2.2em auto 1fr;
    gap: ${space.s};
    align-items: start;
  }
  b {
    font-variant-numeric: tabular-nums;
  }
  span span {
    display: block;
  }
  button {
    margin-left: -4px;
  }
`;
