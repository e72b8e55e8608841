import { useEffect, useRef } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { STATION_NAMES, type LengthUnit, type StationName } from '../../core/words/index.js';
import { jobCard, type PlanView, type StationState } from '../../core/plan/index.js';
import type { CutCounts } from '../../core/stations/record/index.js';
import { colour, motion, radius, space, type, width } from '../tokens.js';

interface JobCardProps {
  readonly jobId: string;
  readonly station: StationName;
  readonly plan: PlanView | null;
  readonly unit: LengthUnit;
  readonly cuts: CutCounts;
}

/** The stations of a job in working order, each with its key figure and its state. */
export function JobCard({ jobId, station, plan, unit, cuts }: JobCardProps) {
  const strip = useRef<HTMLElement>(null);
  // On a narrow screen the strip is longer than what shows of it.
  useEffect(() => {
    void strip.current?.querySelector('.active')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [station]);
  return (
    <Strip ref={strip} aria-label="Stations of this job">
      {jobCard(plan?.figures ?? null, cuts, unit).map(({ station: name, state, figure }, i) => (
        <Station key={name} to={`/jobs/${jobId}/${name}`} data-state={state}>
          <Name>
            <Number aria-hidden>{i + 1}</Number> {STATION_NAMES[name]} <Sign aria-hidden>{SIGNS[state]}</Sign>
          </Name>
          <Key>{figure || '–'}</Key>
          <span className="unseen">, {state}</span>
        </Station>
      ))}
    </Strip>
  );
}

const SIGNS: Readonly<Record<StationState, string>> = {
  settled: '✓',
  'has notes': '•',
  'needs you': '!',
  blocked: '✕',
  waiting: '',
};

const Strip = styled.nav`
  display: grid;
  grid-template-columns: repeat(9, minmax(max-content, 1fr));
  gap: 1px;
  padding: 0 ${space.l};
  overflow-x: auto;
  @media (max-width: ${width.narrow}) {
    padding: 0 ${space.s};
  }
`;

const Number = styled.span`
  color: ${colour.quiet};
  font-weight: 400;
`;

const Name = styled.span`
  display: flex;
  gap: 5px;
  align-items: baseline;
  font: 600 ${type.small} / 1.2 ${type.display};
  white-space: nowrap;
`;

const Sign = styled.span`
  margin-left: auto;
  font-size: 0.75rem;
`;

const Key = styled.span`
  display: block;
  margin-top: 3px;
  font-size: 0.9375rem;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;

const Station = styled(NavLink)`
  position: relative;
  display: block;
  padding: 9px 10px 10px;
  text-decoration: none;
  color: ${colour.ink};
  background: ${colour.faint};
  border-top: 3px solid transparent;
  transition: background ${motion.quick};
  min-width: 0;
  &:first-child {
    border-radius: ${radius.l} 0 0 0;
  }
  &:last-child {
    border-radius: 0 ${radius.l} 0 0;
  }
  /* Less than the one that is open, which a pointer that happens to rest on another must not seem to be. */
  &:hover:not(.active) {
    background: color-mix(in srgb, ${colour.faint} 65%, ${colour.docket});
  }
  &.active {
    background: ${colour.docket};
    border-top-color: ${colour.accent};
  }
  &:focus-visible {
    outline-offset: -4px;
  }
  &[data-state='settled'] ${Sign} {
    color: ${colour.good};
  }
  &[data-state='needs you'] ${Sign} {
    color: ${colour.warn};
    font-weight: 800;
  }
  &[data-state='blocked'] ${Sign} {
    color: ${colour.bad};
    font-weight: 800;
  }
  &[data-state='waiting'] ${Key} {
    color: ${colour.quiet};
    font-weight: 400;
  }
  @media (max-width: ${width.narrow}) {
    padding: 8px 7px;
    ${Key} {
      font-size: 0.8125rem;
    }
  }
`;
