import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import { reordered } from '../../../core/stations/artwork/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, radius, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { isOneWith, type ArrangedPart, type Arrangement } from './use-arrangement.js';

const SIGNS = { drawing: '◇', picture: '▦', lettering: 'A' } as const;
const KINDS = { drawing: 'drawing', picture: 'traced picture', lettering: 'lettering' } as const;

/** What stands on the design, the uppermost first: chosen here or on the light table, moved up and down, taken off. */
export function PartList({ arrangement }: { readonly arrangement: Arrangement }) {
  const { unit } = useJobContext();
  const { parts, chosen, choose, change } = arrangement;
  const toggle = (part: ArrangedPart) =>
    choose(
      (chosen.includes(part) ? chosen.filter((other) => !isOneWith(other, part)) : [...chosen, part]).map(
        (other) => other.id,
      ),
    );
  return (
    <section aria-label="On the design">
      <h3>On the design</h3>
      <List>
        {[...parts].reverse().map((part, i) => (
          <Item key={part.id} data-chosen={chosen.includes(part) || undefined}>
            <label>
              {parts.length > 1 && (
                <input type="checkbox" checked={chosen.includes(part)} onChange={() => toggle(part)} />
              )}
              <Sign aria-hidden>{SIGNS[part.part.kind]}</Sign>
              <span>
                <strong>{part.name}</strong>
                <small>
                  {KINDS[part.part.kind]}, {formatLength(part.shown.maxX - part.shown.minX, unit)} ×{' '}
                  {formatLength(part.shown.maxY - part.shown.minY, unit)} {unit}
                  {part.part.kind === 'drawing' &&
                    !isOwnSize(part) &&
                    `; in the file ${formatLength(part.own.widthMm, unit)} × ${formatLength(part.own.heightMm, unit)} ${unit}`}
                </small>
              </span>
            </label>
            {parts.length > 1 && (
              <span>
                <WordButton
                  isDisabled={i === 0}
                  aria-label={`Raise ${part.name}`}
                  onPress={() => change((all) => reordered(all, part.id, 1))}
                >
                  ↑
                </WordButton>
                <WordButton
                  isDisabled={i === parts.length - 1}
                  aria-label={`Lower ${part.name}`}
                  onPress={() => change((all) => reordered(all, part.id, -1))}
                >
                  ↓
                </WordButton>
              </span>
            )}
          </Item>
        ))}
      </List>
    </section>
  );
}

function isOwnSize({ own, shown }: ArrangedPart): boolean {
  return Math.abs(own.widthMm - (shown.maxX - shown.minX)) < 0.05;
}

const List = styled.ul`
  list-style: none;
  display: grid;
  gap: 3px;
  max-height: 214px;
  overflow-y: auto;
`;

const Item = styled.li`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: ${space.s};
  padding: 3px ${space.s};
  border-radius: ${radius.m};
  border-left: 3px solid transparent;
  &[data-chosen] {
    background: ${colour.accentWash};
    border-left-color: ${colour.accent};
  }
  label {
    display: flex;
    align-items: center;
    gap: ${space.s};
    min-width: 0;
    flex: 1;
    cursor: pointer;
    min-height: 36px;
  }
  input {
    accent-color: ${colour.accent};
  }
  strong {
    display: block;
    font: 600 ${type.small} / 1.25 ${type.text};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    color: ${colour.quiet};
    font-size: 0.78rem;
    font-variant-numeric: tabular-nums;
  }
  label > span:last-child {
    min-width: 0;
  }
  > span {
    white-space: nowrap;
  }
`;

const Sign = styled.span`
  flex: none;
  width: 20px;
  text-align: center;
  color: ${colour.quiet};
  font: 700 1rem/1 ${type.display};
`;
