import { useEffect, useRef } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { formatLength, STAGES, type LengthUnit, type Stage } from '../../core/job/index.js';
import type { PlanView } from '../plan/plan-view.js';
import { colour, motion, radius, space, type, width } from '../tokens.js';
import { count, sayDuration } from '../ui/say.js';
import type { CutCounts } from './cut-counts.js';

export const STATION_NAMES: Readonly<Record<Stage, string>> = {
  artwork: 'Artwork', films: 'Films', surface: 'Surface', build: 'Build', prepare: 'Prepare', sheets: 'Sheets', cut: 'Cut', assemble: 'Assemble', record: 'Record',
};

type StationState = 'settled' | 'needs you' | 'blocked' | 'waiting';

interface JobCardProps {
  readonly jobId: string;
  readonly station: Stage;
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
      {STAGES.map((stage, i) => {
        const state = stateOf(stage, plan, cuts);
        return (
          <Station key={stage} to={`/jobs/${jobId}/${stage}`} data-state={state}>
            <Name>
              <Number aria-hidden>{i + 1}</Number> {STATION_NAMES[stage]} <Sign aria-hidden>{SIGNS[state]}</Sign>
            </Name>
            <Key>{figureOf(stage, plan, unit, cuts) || '–'}</Key>
            <span className="unseen">, {state}</span>
          </Station>
        );
      })}
    </Strip>
  );
}

const SIGNS: Readonly<Record<StationState, string>> = { settled: '✓', 'needs you': '!', blocked: '✕', waiting: '' };

function stateOf(stage: Stage, plan: PlanView | null, cuts: CutCounts): StationState {
  const mine = plan?.findings.filter((finding) => finding.stage === stage) ?? [];
  if (mine.some((finding) => finding.severity === 'blocker')) return 'blocked';
  const reached: Readonly<Record<Stage, boolean>> = {
    artwork: !!plan?.artwork,
    films: !!plan?.colours,
    surface: !!plan?.surface,
    build: !!plan?.layers,
    prepare: !!plan?.prepare,
    sheets: !!plan?.sheets,
    cut: !!plan?.programs,
    assemble: !!plan?.steps,
    record: cuts.finished > 0,
  };
  if (!reached[stage]) return 'waiting';
  if (mine.some((finding) => finding.severity === 'warning')) return 'needs you';
  if (stage === 'cut' && (cuts.undecided > 0 || cuts.copies < cuts.ofCopies)) return 'needs you';
  if (stage === 'record' && cuts.judged < cuts.finished) return 'needs you';
  return 'settled';
}

function figureOf(stage: Stage, plan: PlanView | null, unit: LengthUnit, cuts: CutCounts): string {
  if (!plan) return '';
  switch (stage) {
    case 'artwork':
      return plan.colours ? count(plan.colours.length, 'colour') : '';
    case 'films':
      return plan.layers ? count(plan.layers.length, 'film') : '';
    case 'surface':
      return plan.surface ? `${formatLength(plan.surface.widthMm, unit)} × ${formatLength(plan.surface.heightMm, unit)}` : '';
    case 'build':
      return plan.layers && plan.trapMm ? `trap ${formatLength(plan.trapMm, unit)}` : plan.layers ? 'no trap' : '';
    case 'prepare':
      return plan.prepare ? count(plan.prepare.weed.reduce((n, w) => n + w.counters, 0), 'counter') : '';
    case 'sheets':
      return plan.sheets ? (isAllCut(cuts) ? 'all cut' : count(plan.sheets.length, 'sheet')) : '';
    case 'cut':
      return cuts.undecided > 0 ? `${cuts.undecided} to decide` : plan.seconds === undefined ? '' : isAllCut(cuts) ? 'all cut' : sayDuration(plan.seconds);
    case 'assemble':
      return plan.steps ? count(plan.steps.length, 'step') : '';
    case 'record':
      return cuts.finished > 0 && plan.toCut ? `${cuts.copies} of ${cuts.ofCopies} cut` : '';
  }
}

function isAllCut({ copies, ofCopies }: CutCounts): boolean {
  return ofCopies > 0 && copies >= ofCopies;
}

const Strip = styled.nav`
  display: grid; grid-template-columns: repeat(9, minmax(86px, 1fr)); gap: 1px; padding: 0 ${space.l}; overflow-x: auto;
  @media (max-width: ${width.narrow}) { padding: 0 ${space.s}; }
`;

const Number = styled.span`color: ${colour.quiet}; font-weight: 400;`;

const Name = styled.span`display: flex; gap: 5px; align-items: baseline; font: 600 ${type.small}/1.2 ${type.display}; white-space: nowrap;`;

const Sign = styled.span`margin-left: auto; font-size: 0.75rem;`;

const Key = styled.span`display: block; margin-top: 3px; font-size: 0.9375rem; font-weight: 600; font-variant-numeric: tabular-nums; white-space: nowrap; overflow: hidden; text-overflow: ellipsis;`;

const Station = styled(NavLink)`
  position: relative; display: block; padding: 9px 10px 10px; text-decoration: none; color: ${colour.ink}; background: ${colour.faint};
  border-top: 3px solid transparent; transition: background ${motion.quick}; min-width: 0;
  &:first-child { border-radius: ${radius.l} 0 0 0; }
  &:last-child { border-radius: 0 ${radius.l} 0 0; }
  &:hover { background: ${colour.docket}; }
  &.active { background: ${colour.docket}; border-top-color: ${colour.accent}; }
  &:focus-visible { outline-offset: -4px; }
  &[data-state='settled'] ${Sign} { color: ${colour.good}; }
  &[data-state='needs you'] ${Sign} { color: ${colour.warn}; font-weight: 800; }
  &[data-state='blocked'] ${Sign} { color: ${colour.bad}; font-weight: 800; }
  &[data-state='waiting'] ${Key} { color: ${colour.quiet}; font-weight: 400; }
  @media (max-width: ${width.narrow}) { padding: 8px 7px; ${Key} { font-size: 0.8125rem; } }
`;
