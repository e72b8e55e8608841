import type { ReactNode } from 'react';
import styled from 'styled-components';
import { takenEverywhere } from '../../core/stations/artwork/index.js';
import type { JobFinding } from '../../core/recipe/index.js';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { ColouredText } from '../ui/coloured-text.js';
import { useJobContext } from './job-context.js';
import { PlaceByPlace } from './place-by-place.js';

const SIGNS = { blocker: '✕', warning: '!', note: 'i' } as const;
const SAID = { blocker: 'Stops the job', warning: 'Look at this', note: 'Note' } as const;

interface FindingsProps {
  readonly findings: readonly JobFinding[];
  /** A picture to decide by, for those that need one. */
  readonly picture?: (finding: JobFinding) => ReactNode;
}

/** What the app noticed. Choosing one brings its place into view; its remedies stand beside it. */
export function Findings({ findings, picture }: FindingsProps) {
  const { handle, recipe, look, looked } = useJobContext();
  if (findings.length === 0) return null;
  return (
    <List aria-label="Findings" tabIndex={-1}>
      {findings.map((finding) => (
        <Item key={finding.code + finding.message} data-severity={finding.severity}>
          <Sign aria-hidden>{SIGNS[finding.severity]}</Sign>
          <div>
            <p>
              <span className="unseen">{SAID[finding.severity]}: </span>
              <ColouredText text={finding.message} />
              {finding.count && finding.count > 1 ? ` (${finding.count} times)` : ''}
            </p>
            {(finding.where || finding.remedies?.length || finding.severity !== 'blocker') && (
              <p>
                {finding.where && (
                  <WordButton onPress={() => look(finding)} aria-label={`Show where: ${finding.message}`}>
                    Show where
                  </WordButton>
                )}{' '}
                {finding.remedies?.map((remedy) => (
                  <WordButton key={remedy.label} onPress={() => handle.change(takenEverywhere(recipe.repair, remedy))}>
                    {remedy.label}
                  </WordButton>
                ))}{' '}
                {finding.severity !== 'blocker' && (
                  <WordButton
                    aria-label={`Leave as it is: ${finding.message}`}
                    onPress={() => handle.change({ repair: { letBe: { ...recipe.repair.letBe, [finding.code]: '' } } })}
                  >
                    Leave as it is
                  </WordButton>
                )}
              </p>
            )}
            {picture?.(finding)}
            {looked?.finding === finding && finding.places && finding.places.length > 1 && (
              <PlaceByPlace finding={finding} index={looked.index} />
            )}
          </div>
        </Item>
      ))}
    </List>
  );
}

const List = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.s};
`;

const Sign = styled.span`
  flex: none;
  width: 20px;
  height: 20px;
  display: grid;
  place-items: center;
  border-radius: 50%;
  font: 750 0.75rem/1 ${type.text};
  border: 1.5px solid currentColor;
  background: ${colour.raised};
`;

const Item = styled.li`
  display: flex;
  gap: ${space.s};
  padding: ${space.s};
  border-radius: ${radius.m};
  font-size: ${type.small};
  background: ${colour.faint};
  overflow-wrap: anywhere;
  &[data-severity='warning'] {
    background: ${colour.warnWash};
    ${Sign} {
      color: ${colour.warn};
    }
  }
  &[data-severity='blocker'] {
    background: ${colour.badWash};
    ${Sign} {
      color: ${colour.bad};
    }
  }
`;
