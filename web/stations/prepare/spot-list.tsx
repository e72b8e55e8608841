import styled from 'styled-components';
import { spotGroups } from '../../../core/engines/weeding/spot-groups.js';
import type { Box } from '../../../core/geometry/index.js';
import { keyOfPlace, type WeedPlace } from '../../../core/stations/cut/index.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';

export const SPOT_NAMES: Readonly<Record<WeedPlace['kind'], string>> = {
  counter: 'counter',
  'loose part': 'small part that stays',
  'cut-out': 'cut-out',
  island: 'island that the tape carries',
  'all out': 'the whole layer',
};

interface SpotListProps {
  readonly spots: readonly WeedPlace[];
  readonly ticked: ReadonlySet<string>;
  /** Ticks some of them off, or takes the ticks back; null where the layer is not cut yet. */
  readonly onTick: ((places: readonly WeedPlace[], ticked: boolean) => void) | null;
  /** Of a long list, the area that is open; null for none. */
  readonly open: number | null;
  readonly onOpen: (group: number | null, box: Box | null) => void;
}

/** What is looked for in a layer, one by one; where there is much of it, area by area. */
export function SpotList({ spots, ticked, onTick, open, onOpen }: SpotListProps) {
  const groups = spotGroups(spots);
  const numbers = new Map(spots.map((spot, i) => [keyOfPlace(spot), i + 1]));
  const rows = (some: readonly WeedPlace[]) => (
    <Spots>
      {some.map((spot) => (
        <li key={keyOfPlace(spot)}>
          <label>
            {onTick && (
              <input
                type="checkbox"
                checked={ticked.has(keyOfPlace(spot))}
                onChange={(event) => onTick([spot], event.target.checked)}
              />
            )}{' '}
            {numbers.get(keyOfPlace(spot))}. {SPOT_NAMES[spot.kind]}
          </label>
        </li>
      ))}
    </Spots>
  );
  if (groups.length <= 1) return rows(spots);
  return (
    <Areas>
      {groups.map((group, i) => {
        const left = group.spots.filter((spot) => !ticked.has(keyOfPlace(spot)));
        const isOpen = open === i;
        return (
          <li key={i}>
            <WordButton aria-expanded={isOpen} onPress={() => onOpen(isOpen ? null : i, isOpen ? null : group)}>
              Area {i + 1}
            </WordButton>{' '}
            {onTick
              ? left.length === 0
                ? 'all out'
                : `${left.length} of ${group.spots.length} left`
              : `${group.spots.length} to look for`}{' '}
            {isOpen && onTick && left.length > 0 && (
              <WordButton aria-label={`All of area ${i + 1} is out`} onPress={() => onTick(left, true)}>
                All of area {i + 1} is out
              </WordButton>
            )}
            {isOpen && rows(group.spots)}
          </li>
        );
      })}
    </Areas>
  );
}

const Spots = styled.ul`
  list-style: none;
  margin-top: ${space.s};
  columns: 2;
  column-gap: ${space.m};
  font-size: ${type.small};
  li {
    break-inside: avoid;
    padding: 3px 0;
    border-bottom: 1px solid ${colour.faint};
  }
  label {
    cursor: pointer;
  }
`;

const Areas = styled.ul`
  list-style: none;
  margin-top: ${space.s};
  font-size: ${type.small};
  > li {
    padding: 3px 0;
    border-bottom: 1px solid ${colour.faint};
  }
`;
