import { useState } from 'react';
import styled from 'styled-components';
import { BETWEEN_MM, hasSides, sidesInOrder, type Side } from '../../../core/engines/surface/index.js';
import { nameOfPart, type ArtworkPart } from '../../../core/stations/artwork/index.js';
import {
  MOST_COPIES_ON_BOARD,
  partsInDesigns,
  sayDesignName,
  type Several,
} from '../../../core/stations/surface/index.js';
import { useJobContext } from '../../job/job-context.js';
import { space } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Picker } from '../../ui/picker.js';
import { Small } from '../../ui/plain-fields.js';
import { Said, useSurface } from './surface-fields.js';

const SIDES: Readonly<Record<Exclude<Side, 'both'>, string>> = {
  holder: 'facing its holder',
  room: 'facing the room',
  front: 'opposite the handle',
};
/** A handle has two sides and the place opposite it. */
const MOST_ROUND = 3;

/** Parts that are taken hold of together are divided together. */
function unitsOf(parts: readonly ArtworkPart[]): { readonly ids: readonly string[]; readonly name: string }[] {
  const units = new Map<string, ArtworkPart[]>();
  for (const part of parts) {
    const key = part.group === null ? `part ${part.id}` : `group ${part.group}`;
    units.set(key, [...(units.get(key) ?? []), part]);
  }
  return [...units.values()].map((of) => ({
    ids: of.map(({ id }) => id),
    name: sayDesignName(
      of.map((part) => nameOfPart(part, parts)),
      { copy: 1, copies: 1 },
    ),
  }));
}

/** Several designs on one thing: which part of the artwork belongs to which, how often each stands on a board, and what lies between them. */
export function SeveralDesigns() {
  const { recipe, plan, unit } = useJobContext();
  const { surface, change } = useSurface();
  const { several, kind, cylinder } = surface;
  const [isOpen, setOpen] = useState(false);
  const isRound = kind === 'cylinder';
  const units = unitsOf(recipe.artworks);
  const designs = partsInDesigns(
    recipe,
    recipe.artworks.map(({ id }) => id),
  );
  const isDivided = designs.length > 1;
  const set = (to: Partial<Several>) => change({ several: { ...several, ...to }, at: null });
  const sides = sidesInOrder(cylinder.side);
  const hasOwnSides = isRound && hasSides(cylinder) && designs.length <= MOST_ROUND;
  const nameOf = (i: number) => (hasOwnSides ? SIDES[sides[i]!] : `design ${i + 1}`);
  const options = [
    ...designs.map((_, i) => ({ id: String(i), text: nameOf(i) })),
    ...(designs.length < units.length
      ? [
          {
            id: 'new',
            text:
              isRound && hasSides(cylinder) && designs.length < MOST_ROUND
                ? SIDES[sides[designs.length]!]
                : 'a design of its own',
          },
        ]
      : []),
  ];
  const move = (ids: readonly string[], to: string) => {
    const left = designs.map(({ parts }) => parts.filter((id) => !ids.includes(id)));
    const into =
      to === 'new' ? [...left, [...ids]] : left.map((parts, i) => (i === Number(to) ? [...parts, ...ids] : parts));
    // What was the first stays it as long as anything is left of it.
    const widthOf = (other: number | null) => (other === null ? null : several.others[other]!.widthMm);
    const kept = into
      .map((parts, i) => ({ parts, widthMm: widthOf(designs[i]?.other ?? null) }))
      .filter(({ parts }) => parts.length > 0);
    set({ others: kept.slice(1) });
  };
  if (units.length < 2 && isRound)
    return <Small>Two designs on it, one on each side? Add the other one at Artwork first.</Small>;
  return (
    <section aria-label="Several designs on it">
      {!isRound && (
        <Said>
          {isDivided ? 'Each stands' : 'The design stands'} on it{' '}
          <NumberField
            label="How often on the board"
            value={several.copies}
            min={1}
            max={MOST_COPIES_ON_BOARD}
            onChange={(copies) => set({ copies })}
          />{' '}
          {several.copies === 1 ? 'time' : 'times'}
          {(isDivided || several.copies > 1) && (
            <>
              , at least{' '}
              <FigureField
                label="Between two designs"
                mm={several.betweenMm ?? BETWEEN_MM}
                unit={unit}
                stepMm={1}
                onChange={(betweenMm) => set({ betweenMm })}
              />{' '}
              apart{several.betweenMm === null ? '' : ' '}
              {several.betweenMm !== null && (
                <WordButton onPress={() => set({ betweenMm: null })}>Spread them evenly</WordButton>
              )}
            </>
          )}
          {'. '}
        </Said>
      )}
      {units.length > 1 && !isDivided && !isOpen && (
        <WordButton onPress={() => setOpen(true)}>
          {isRound ? 'Different designs on its sides' : 'Several designs on it'}
        </WordButton>
      )}
      {(isDivided || isOpen) && units.length > 1 && (
        <Parts aria-label="Which part belongs to which design">
          {units.map(({ ids, name }) => {
            const at = designs.findIndex(({ parts }) => parts.includes(ids[0]!));
            return (
              <li key={ids.join(' ')}>
                {name} is{' '}
                <Picker
                  label={`What ${name} belongs to`}
                  value={String(at)}
                  options={options}
                  onChange={(to) => move(ids, to)}
                />
              </li>
            );
          })}
        </Parts>
      )}
      {isDivided &&
        designs.map(({ other }, i) => {
          if (other === null || i === 0) return null;
          const shown = plan?.surface?.isAmong
            ? plan.surface.panels?.spans[i * (isRound ? 1 : several.copies)]
            : undefined;
          const own = several.others[other]!.widthMm;
          const setWidth = (widthMm: number | null) =>
            set({ others: several.others.map((one, k) => (k === other ? { ...one, widthMm } : one)) });
          return (
            <Said key={other}>
              {hasOwnSides ? `What is ${nameOf(i)}` : `Design ${i + 1}`} is{' '}
              <FigureField
                label={`Width of design ${i + 1}`}
                mm={own ?? (shown ? shown.box.maxX - shown.box.minX : 1)}
                unit={unit}
                min={1}
                stepMm={1}
                onChange={setWidth}
              />{' '}
              wide{own === null ? ', to the scale of the first.' : '.'}{' '}
              {own !== null && (
                <WordButton aria-label={`To the scale of the first, design ${i + 1}`} onPress={() => setWidth(null)}>
                  To the scale of the first
                </WordButton>
              )}
            </Said>
          );
        })}
    </section>
  );
}

const Parts = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.xs};
  line-height: 1.9;
`;
