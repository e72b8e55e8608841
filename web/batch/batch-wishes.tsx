import styled from 'styled-components';
import type { Batch } from '../../core/batch/index.js';
import type { SheetOrder, LayWish } from '../../core/laying/index.js';
import type { SparesOfKinds } from '../../core/engines/learning/spares.js';
import type { Film, StockPiece } from '../../core/shop/index.js';
import { useQuery } from '@tanstack/react-query';
import { ask } from '../api/client.js';
import { count, listed, type LengthUnit } from '../../core/words/index.js';
import { colour, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { FigureField } from '../ui/figure-field.js';
import { NumberField } from '../ui/number-field.js';
import { PercentField } from '../ui/percent-field.js';
import { Small } from '../ui/plain-fields.js';
import { sayPiece } from '../ui/say-piece.js';
import { CloseBorders } from './close-borders.js';

interface BatchWishesProps {
  readonly batch: Batch;
  readonly unit: LengthUnit;
  readonly films: readonly Film[];
  readonly stock: readonly StockPiece[];
  /** Films in which borders cannot be shared. */
  readonly unshared: readonly string[];
  /** How many copies lie in counters of others; null while that is not known. */
  readonly inCounters: number | null;
  /** Jobs whose borders may be made close; null where that is decided in the job. */
  readonly closable: readonly string[] | null;
  readonly isBusy: boolean;
  readonly onChange: (wish: LayWish) => void;
}

const SPARE_KINDS = [
  ['single', 'single films'],
  ['layered', 'layered work'],
] as const;

const inPercent = (share: number) => Math.round(share * 1000) / 10;

const BORDERS = [
  ['own', 'one round each'],
  ['shared', 'shared by neighbours'],
] as const;
const COUNTERS = [
  ['yes', 'small layers may lie'],
  ['no', 'nothing lies'],
] as const;
const ZONES = [
  ['yes', 'side by side'],
  ['no', 'one by one'],
] as const;
const ORDERS: readonly (readonly [SheetOrder, string])[] = [
  ['changes', 'fewest changes'],
  ['smallest', 'smallest first'],
  ['urgent', 'soonest due first'],
  ['by hand', 'as you put them'],
];
const TURNS = [
  ['quarters', 'by quarters'],
  ['any', 'by any angle'],
] as const;
const DIRECTIONS = [
  ['one', 'in one direction'],
  ['each', 'each as it fits'],
] as const;

/** What is decided of a batch, in sentences with the reason. What the recipe of a job alone decides is not asked again. */
export function BatchWishes({
  batch: { wish, number },
  unit,
  films,
  stock,
  unshared,
  inCounters,
  closable,
  isBusy,
  onChange,
}: BatchWishesProps) {
  const parts = { wish, unit, onChange };
  return (
    <section aria-label="How it is laid out">
      <h3>How it is laid out</h3>
      <Said>
        {number !== null && <Spacing {...parts} />}
        <Borders {...parts} unshared={unshared} closable={number === null ? null : closable} isBusy={isBusy} />
        {number !== null && <Counters {...parts} inCounters={inCounters} />}
        {number !== null && <Zones {...parts} />}
        <div>
          Sheets are cut with the{' '}
          <Choice
            label="Order of sheets"
            value={wish.order}
            options={ORDERS}
            onChange={(order) => onChange({ ...wish, order })}
          />
        </div>
        {number !== null && <Direction {...parts} />}
        <AnyTurn {...parts} />
        <Leftovers {...parts} />
        <Spares {...parts} />
        <p>
          A roll that is fed more than{' '}
          <FigureField
            label="A long feed"
            mm={wish.longFeedMm}
            unit={unit}
            min={100}
            max={100_000}
            stepMm={100}
            onChange={(longFeedMm) => onChange({ ...wish, longFeedMm })}
          />{' '}
          in one pass may drift. It is cut in sections then, with a short line at either side where one ends: with both
          on the cutter’s zero line, the roll is square again.
        </p>
        {wish.avoid.length > 0 && <LeftAlone {...parts} films={films} stock={stock} />}
      </Said>
    </section>
  );
}

interface PartProps {
  readonly wish: LayWish;
  readonly unit: LengthUnit;
  readonly onChange: (wish: LayWish) => void;
}

function Spacing({ wish, unit, onChange }: PartProps) {
  return (
    <p>
      Pieces lie{' '}
      <FigureField
        label="Spacing on the sheets"
        mm={wish.spacingMm}
        unit={unit}
        max={100}
        stepMm={1}
        onChange={(spacingMm) => onChange({ ...wish, spacingMm })}
      />{' '}
      apart.
    </p>
  );
}

function Borders({
  wish,
  unshared,
  closable,
  isBusy,
  onChange,
}: PartProps & Pick<BatchWishesProps, 'unshared' | 'closable' | 'isBusy'>) {
  return (
    <div>
      Borders:{' '}
      <Choice
        label="Borders"
        value={wish.sharesBorders ? 'shared' : 'own'}
        options={BORDERS}
        onChange={(borders) => onChange({ ...wish, sharesBorders: borders === 'shared' })}
      />
      <Small>
        {wish.sharesBorders
          ? 'Where all borders in a film are boxes, they touch, and the line between two is cut once. Other borders run into one another, and one line goes round them all: weed that together, then cut it apart. The spacing has no effect there.'
          : 'Each layer lies by itself, with waste round it. It takes a little more film, and is easier to lift.'}
      </Small>
      {unshared.length > 0 && (
        <Small>No effect in {listed(unshared)}: something that lies there has no border, or a very close one.</Small>
      )}
      {closable && <CloseBorders jobIds={closable} isBusy={isBusy} />}
    </div>
  );
}

function Counters({ wish, inCounters, onChange }: PartProps & Pick<BatchWishesProps, 'inCounters'>) {
  return (
    <div>
      In large counters{' '}
      <Choice
        label="Large counters"
        value={wish.inCounters ? 'yes' : 'no'}
        options={COUNTERS}
        onChange={(counters) => onChange({ ...wish, inCounters: counters === 'yes' })}
      />
      <Small>
        {wish.inCounters
          ? 'That film would be waste. What lies there is cut first. Cut it out with a knife before you lift what is round it.'
          : 'Counters stay empty. It may take more film.'}
      </Small>
      {wish.inCounters && inCounters !== null && (
        <Small>
          {inCounters === 0
            ? 'In this batch none does: there is no such place, or nothing that fits.'
            : `In this batch ${inCounters === 1 ? 'one does' : `${inCounters} do`}.`}
        </Small>
      )}
    </div>
  );
}

function Zones({ wish, onChange }: PartProps) {
  return (
    <div>
      Small pieces of films with the same settings go onto a mat{' '}
      <Choice
        label="Pieces on a mat"
        value={wish.zones ? 'yes' : 'no'}
        options={ZONES}
        onChange={(zones) => onChange({ ...wish, zones: zones === 'yes' })}
      />
      <Small>
        {wish.zones
          ? 'So several colours are cut in one pass. Each piece is cut to its size first.'
          : 'Each film is loaded by itself. No pieces are cut first, but there are more passes.'}
      </Small>
    </div>
  );
}

function Direction({ wish, onChange }: PartProps) {
  return (
    <div>
      All layers of one design lie{' '}
      <Choice
        label="Direction of the layers"
        value={wish.oneDirection ? 'one' : 'each'}
        options={DIRECTIONS}
        onChange={(direction) => onChange({ ...wish, oneDirection: direction === 'one' })}
      />
      <Small>
        {wish.oneDirection
          ? 'Or turned by half. A cutter feeds a little too far or too short, and films draw back more along the roll. In one direction, all layers are off by the same and still fit.'
          : 'Your decision. It saves film, but a layer that is turned by a quarter fits the others only if the cutter feeds as true along the roll as across it.'}
      </Small>
    </div>
  );
}

function AnyTurn({ wish, onChange }: PartProps) {
  return (
    <div>
      A layer that no other must fit is turned{' '}
      <Choice
        label="Turns of single layers"
        value={wish.anyTurn ? 'any' : 'quarters'}
        options={TURNS}
        onChange={(turns) => onChange({ ...wish, anyTurn: turns === 'any' })}
      />
      <Small>
        {wish.anyTurn
          ? 'In steps of 15 degrees. It takes longer to lay out, and saves film only where shapes lie better at an angle. Boxes that touch, and films with a direction, stay straight.'
          : 'They lie straight on the film, so strips of waste are easy to pull.'}
      </Small>
    </div>
  );
}

function Leftovers({ wish, unit, onChange }: PartProps) {
  const { leftovers } = wish;
  const keep = (rule: Partial<typeof leftovers>) => onChange({ ...wish, leftovers: { ...leftovers, ...rule } });
  return (
    <div>
      What is left of a piece goes back to the rack if it is at least{' '}
      <FigureField
        label="Least side of what is kept"
        mm={leftovers.leastSideMm}
        unit={unit}
        min={1}
        max={10_000}
        stepMm={5}
        onChange={(leastSideMm) => keep({ leastSideMm })}
      />{' '}
      wide and long, and{' '}
      <NumberField
        label="Least area of what is kept, cm²"
        value={Math.round(leftovers.leastMm2 / 100)}
        min={0}
        max={100_000}
        onChange={(cm2) => keep({ leastMm2: cm2 * 100 })}
      />{' '}
      cm² large.
      <Small as="div">
        It then counts for{' '}
        <PercentField
          label="What is kept is worth, percent"
          value={inPercent(leftovers.share)}
          max={100}
          onChange={(percent) => keep({ share: percent / 100 })}
        />{' '}
        % of what its film cost; narrower than{' '}
        <FigureField
          label="A strip is narrower than"
          mm={leftovers.narrowMm}
          unit={unit}
          max={10_000}
          stepMm={5}
          onChange={(narrowMm) => keep({ narrowMm })}
        />
        , for{' '}
        <PercentField
          label="A strip is worth, percent"
          value={inPercent(leftovers.narrowShare)}
          max={100}
          onChange={(percent) => keep({ narrowShare: percent / 100 })}
        />{' '}
        %. The pieces on which the least value is spent are chosen.
      </Small>
    </div>
  );
}

function Spares({ wish, onChange }: PartProps) {
  const { data: learned } = useQuery({ queryKey: ['spares'], queryFn: () => ask<SparesOfKinds>('/api/spares') });
  return (
    <div>
      Of ten copies or more,{' '}
      <PercentField
        label="Spares of single films, percent"
        value={inPercent(wish.spares.single)}
        max={100}
        onChange={(percent) => onChange({ ...wish, spares: { ...wish.spares, single: percent / 100 } })}
      />{' '}
      % more are cut, of layered work{' '}
      <PercentField
        label="Spares of layered work, percent"
        value={inPercent(wish.spares.layered)}
        max={100}
        onChange={(percent) => onChange({ ...wish, spares: { ...wish.spares, layered: percent / 100 } })}
      />{' '}
      %.
      <Small>
        Spares make up for what is spoiled while it is weeded and laid. As soon as enough copies are good, no more are
        cut.
      </Small>
      {learned &&
        SPARE_KINDS.map(
          ([kind, name]) =>
            learned[kind].cut > 0 && (
              <Small key={kind}>
                Of {count(learned[kind].cut, 'copy', 'copies')} of {name} that you recorded, {learned[kind].spoiled}{' '}
                {learned[kind].spoiled === 1 ? 'was' : 'were'} spoiled.{' '}
                {wish.spares[kind] === learned[kind].share ? (
                  'The spares follow from that.'
                ) : (
                  <WordButton
                    onPress={() => onChange({ ...wish, spares: { ...wish.spares, [kind]: learned[kind].share } })}
                  >{`Cut ${inPercent(learned[kind].share)} % more of ${name}`}</WordButton>
                )}
              </Small>
            ),
        )}
    </div>
  );
}

function LeftAlone({ wish, films, stock, onChange }: PartProps & Pick<BatchWishesProps, 'films' | 'stock'>) {
  return (
    <div>
      Left alone:
      <ul>
        {wish.avoid.map((id) => {
          const piece = stock.find((one) => one.id === id);
          const name = piece
            ? `${films.find((film) => film.id === piece.filmId)?.name ?? piece.filmId}, ${sayPiece(piece)}`
            : id;
          return (
            <li key={id}>
              {name}{' '}
              <WordButton
                aria-label={`Use again: ${name}`}
                onPress={() => onChange({ ...wish, avoid: wish.avoid.filter((one) => one !== id) })}
              >
                Use again
              </WordButton>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

const Said = styled.div`
  display: grid;
  gap: ${space.s};
  font-size: ${type.body};
  > p,
  > div {
    line-height: 1.7;
  }
  ul {
    list-style: none;
    font-size: ${type.small};
  }
  ${Small} {
    line-height: 1.45;
    color: ${colour.quiet};
  }
`;
