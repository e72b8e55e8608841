import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { ENDED, type FrozenSheet, type SheetStanding } from '../../core/stations/cut/index.js';
import { listed } from '../../core/words/index.js';
import { AtBenchCard } from './at-bench-card.js';
import { sayLeftover } from './say-sheet.js';
import { useShopWrites } from '../plan/shop-writes.js';
import { useShop } from '../plan/use-shop.js';
import { space } from '../tokens.js';
import { Button, MainButton } from '../ui/button.js';
import { FigureField } from '../ui/figure-field.js';
import { useNotify } from '../ui/notices.js';
import { Small } from '../ui/plain-fields.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';

/** What is left of a sheet that was cut: put back on the rack with a number each, at its size as measured, or thrown away. */
export function LeftoversQuestion({
  sheet,
  cutsKey,
}: {
  readonly sheet: FrozenSheet;
  readonly cutsKey: readonly string[];
}) {
  const shop = useShop();
  const { unit } = useSettings();
  const { putBack } = useShopWrites();
  const notify = useNotify();
  const client = useQueryClient();
  const [sizes, setSizes] = useState<ReadonlyMap<number, { readonly widthMm: number; readonly lengthMm: number }>>(
    new Map(),
  );
  const [dropped, setDropped] = useState<ReadonlySet<number>>(new Set());
  const [isBusy, setBusy] = useState(false);
  const kept = sheet.leftovers.flatMap((left, number) =>
    left.keep
      ? [
          {
            ...left,
            widthMm: Math.floor(left.widthMm + 1e-6),
            lengthMm: Math.floor(left.lengthMm + 1e-6),
            ...sizes.get(number),
            number,
          },
        ]
      : [],
  );
  const away = sheet.leftovers.length - kept.length;
  const filmOf = (filmId: string) => shop?.films.find(({ id }) => id === filmId);
  const book = async (which: typeof kept) => {
    setBusy(true);
    try {
      await putBack(
        sheet.id,
        which.map(({ number, widthMm, lengthMm }) => ({ leftover: number, widthMm, lengthMm, place: '' })),
        shop!.revision,
      );
      if (which.length === 0) notify('Nothing of it was put back.');
    } catch (error) {
      notify((error as Error).message);
    } finally {
      setBusy(false);
      await client.invalidateQueries({ queryKey: cutsKey.slice() });
    }
  };
  const back = kept.filter(({ number }) => !dropped.has(number));
  return (
    <AtBenchCard aria-label="What is left over">
      <h3>Left over from {listed([...new Set(kept.map(({ filmId }) => filmOf(filmId)?.name ?? filmId))])}</h3>
      <p>Cut it square, measure it, and put it back on the rack.</p>
      <ul>
        {kept.map(({ number, filmId, widthMm, lengthMm }) => {
          const film = filmOf(filmId);
          const name = `${film?.name ?? filmId}, ${sayLeftover({ widthMm, lengthMm }, unit)}`;
          return (
            <li key={number}>
              <input
                type="checkbox"
                aria-label={`Put back ${name}`}
                checked={!dropped.has(number)}
                onChange={(event) =>
                  setDropped(
                    (before) =>
                      new Set(event.target.checked ? [...before].filter((one) => one !== number) : [...before, number]),
                  )
                }
              />
              {film && <Swatch film={film} size={16} />}
              <span>
                <FigureField
                  label={`Width of ${name}`}
                  mm={widthMm}
                  unit={unit}
                  min={1}
                  onChange={(width) => setSizes((before) => new Map(before).set(number, { widthMm: width, lengthMm }))}
                />{' '}
                ×{' '}
                <FigureField
                  label={`Length of ${name}`}
                  mm={lengthMm}
                  unit={unit}
                  min={1}
                  onChange={(length) =>
                    setSizes((before) => new Map(before).set(number, { widthMm, lengthMm: length }))
                  }
                />
              </span>
            </li>
          );
        })}
      </ul>
      {away > 0 && (
        <Small>
          {away === 1 ? 'Another strip is' : `${away} other strips are`} too small to keep. Throw{' '}
          {away === 1 ? 'it' : 'them'} away.
        </Small>
      )}
      <Row>
        <MainButton isDisabled={isBusy || !shop || back.length === 0} onPress={() => void book(back)}>
          Put back {back.length === 1 ? 'this piece' : `${back.length} pieces`}
        </MainButton>
        <Button isDisabled={isBusy || !shop} onPress={() => void book([])}>
          Keep nothing of it
        </Button>
      </Row>
    </AtBenchCard>
  );
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
`;

/** Sheets of which it was not said yet what becomes of what is left: something of them is cut, and it is known what becomes of them. */
export function withLeftovers(
  sheets: readonly FrozenSheet[],
  how: ReadonlyMap<string, SheetStanding>,
): readonly FrozenSheet[] {
  return sheets.filter(
    (sheet) =>
      sheet.leftoversBookedAt === null &&
      how.get(sheet.id) !== 'undecided' &&
      sheet.leftovers.some(({ keep }) => keep) &&
      sheet.runs.some((run) => ENDED.includes(run.state) && run.pairsDone > 0),
  );
}
