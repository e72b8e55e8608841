import { BARE } from '../engines/layers/index.js';
import type { CutCounts } from '../stations/record/index.js';
import { STATIONS, type LengthUnit, type StationName } from '../words/index.js';
import type { Plan } from './plan.js';
import { sayKeyFigure } from './say-key-figure.js';

/** How a station stands: all is settled, there are notes to read, the maker is asked, something stops the job, or it has not come to it. */
export const STATION_STATES = ['settled', 'has notes', 'needs you', 'blocked', 'waiting'] as const;
export type StationState = (typeof STATION_STATES)[number];

/** A station as the job card shows it. */
export interface StationCard {
  readonly station: StationName;
  readonly state: StationState;
  /** Its key figure; empty while there is none. */
  readonly figure: string;
}

/** The figures that a job card is made of; what has not been reached is absent. */
export interface JobFigures {
  readonly parts: number;
  readonly colours?: number;
  readonly films?: number;
  readonly design?: { readonly widthMm: number; readonly heightMm: number };
  /** How many stand on one thing, if several do. */
  readonly designs?: number;
  readonly trapMm?: number;
  readonly counters?: number;
  readonly sheets?: number;
  readonly seconds?: number;
  readonly steps?: number;
  /** The worst that was found at a station. */
  readonly worst: Readonly<Partial<Record<StationName, 'blocker' | 'warning' | 'note'>>>;
}

const SEVERITIES = ['note', 'warning', 'blocker'] as const;

/** The figures of a plan that its job card shows. */
export function jobFigures({
  artwork,
  films,
  build,
  surface,
  prepare,
  sheets,
  cut,
  assemble,
  findings,
}: Plan): JobFigures {
  const worst: Partial<Record<StationName, (typeof SEVERITIES)[number]>> = {};
  for (const { stage, severity } of findings)
    worst[stage] = SEVERITIES[Math.max(SEVERITIES.indexOf(severity), SEVERITIES.indexOf(worst[stage] ?? 'note'))]!;
  return {
    parts: artwork?.parts.length ?? 0,
    // Colours for which there is no film are colours all the same.
    ...(films ? { colours: films.byColour.layers.filter(({ key }) => key !== BARE).length } : {}),
    ...(build ? { films: build.layers.length, trapMm: build.trapMm } : {}),
    ...(surface ? { design: { widthMm: surface.design.widthMm, heightMm: surface.design.heightMm } } : {}),
    ...(surface?.instances?.[0]?.among ? { designs: surface.instances.length } : {}),
    ...(prepare ? { counters: prepare.layers.reduce((sum, { weed }) => sum + weed.counters, 0) } : {}),
    ...(sheets ? { sheets: sheets.sheets.length } : {}),
    ...(cut ? { seconds: cut.seconds } : {}),
    ...(assemble ? { steps: assemble.steps.length } : {}),
    worst,
  };
}

/** All stations of a job, in working order. `figures` are null as long as nothing is planned. */
export function jobCard(figures: JobFigures | null, cuts: CutCounts, unit: LengthUnit): StationCard[] {
  return STATIONS.map((station) => ({
    station,
    state: stateOf(station, figures, cuts),
    figure: figures ? sayKeyFigure(station, figures, cuts, unit) : '',
  }));
}

function stateOf(station: StationName, figures: JobFigures | null, cuts: CutCounts): StationState {
  if (!figures) return 'waiting';
  const worst = figures.worst[station];
  if (worst === 'blocker') return 'blocked';
  // A job begins with its artwork.
  if (station === 'artwork' && figures.parts === 0) return 'needs you';
  if (!isReached(station, figures, cuts)) return 'waiting';
  if (worst === 'warning') return 'needs you';
  if (station === 'cut' && (cuts.undecided > 0 || cuts.copies < cuts.ofCopies)) return 'needs you';
  // A counter that is found after the film has cured damages the work.
  if (station === 'assemble' && cuts.unweeded.length > 0) return 'needs you';
  if (station === 'record' && cuts.judged < cuts.finished) return 'needs you';
  return worst === 'note' ? 'has notes' : 'settled';
}

function isReached(station: StationName, figures: JobFigures, cuts: CutCounts): boolean {
  switch (station) {
    case 'artwork':
      return figures.parts > 0;
    case 'films':
      return figures.colours !== undefined;
    case 'surface':
      return figures.design !== undefined;
    case 'build':
      return figures.films !== undefined;
    case 'prepare':
      return figures.counters !== undefined;
    case 'sheets':
      return figures.sheets !== undefined;
    case 'cut':
      return figures.seconds !== undefined;
    case 'assemble':
      return figures.steps !== undefined;
    case 'record':
      return cuts.finished > 0;
  }
}
