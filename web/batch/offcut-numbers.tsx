import { useMutation, useQueryClient } from '@tanstack/react-query';
import styled from 'styled-components';
import type { FrozenSheet } from '../../core/stations/cut/index.js';
import { ask } from '../api/client.js';
import { useShop } from '../plan/use-shop.js';
import { space, type } from '../tokens.js';
import { MainButton } from '../ui/button.js';
import { useNotify } from '../ui/notices.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';
import { AtBenchCard } from './at-bench-card.js';
import { sayLeftover } from './say-sheet.js';

/** The numbers of offcuts that went back to the rack, beside the offcuts that they belong to, until they are written on them. */
export function OffcutNumbers({
  sheet,
  cutsKey,
}: {
  readonly sheet: FrozenSheet;
  readonly cutsKey: readonly string[];
}) {
  const shop = useShop();
  const { unit } = useSettings();
  const notify = useNotify();
  const client = useQueryClient();
  const written = useMutation({
    mutationFn: () => ask<FrozenSheet>(`/api/sheets/${sheet.id}/numbers-written`, { method: 'POST' }),
    onError: (error) => notify(error.message),
    onSettled: () => client.invalidateQueries({ queryKey: cutsKey.slice() }),
  });
  const offcuts = sheet.offcutIds.flatMap((id) => shop?.stock.find((piece) => piece.id === id && piece.left > 0) ?? []);
  if (!shop || offcuts.length === 0) return null;
  const many = offcuts.length > 1;
  return (
    <AtBenchCard aria-label="Numbers to write on offcuts">
      <h3>Write {many ? 'these numbers on the offcuts' : 'this number on the offcut'}</h3>
      <ul>
        {offcuts.map((piece) => {
          const film = shop.films.find(({ id }) => id === piece.filmId);
          return (
            <li key={piece.id}>
              {film && <Swatch film={film} size={16} />}
              <span>
                {film?.name}, {sayLeftover(piece, unit)}
              </span>
              <Number>{piece.number}</Number>
            </li>
          );
        })}
      </ul>
      <div>
        <MainButton isDisabled={written.isPending} onPress={() => written.mutate()}>
          {many ? 'They are written on them' : 'It is written on it'}
        </MainButton>
      </div>
    </AtBenchCard>
  );
}

const Number = styled.strong`
  margin-left: auto;
  padding-right: ${space.s};
  font-size: ${type.title};
  font-variant-numeric: tabular-nums;
`;

/** Sheets of which offcuts went back whose numbers may not be written on them yet. */
export function withNumbersToWrite(sheets: readonly FrozenSheet[]): readonly FrozenSheet[] {
  return sheets.filter(
    ({ leftoversBookedAt, numbersWrittenAt, offcutIds }) =>
      leftoversBookedAt !== null && numbersWrittenAt === null && offcutIds.length > 0,
  );
}
