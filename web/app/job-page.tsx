import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState, type ComponentType } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { cutSoFar, type FrozenSheet } from '../../core/stations/cut/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';
import { joinBoxes, type Box } from '../../core/geometry/index.js';
import { STATION_NAMES, STATIONS, type StationName } from '../../core/words/index.js';
import type { OtherSize } from '../../core/plan/index.js';
import type { JobFinding, Recipe, RecipePatch } from '../../core/recipe/index.js';
import { ask } from '../api/client.js';
import { useBatchOf } from '../batch/use-batches.js';
import { useOffer, type Command } from '../ui/commands.js';
import { planInUnit } from '../plan/in-unit.js';
import { usePlan } from '../plan/use-plan.js';
import { useShop } from '../plan/use-shop.js';
import { FilmPatterns } from '../light-table/film-fill.js';
import { colour, space, type, width } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { useNotify } from '../ui/notices.js';
import { useSettings } from '../ui/settings.js';
import type { BuiltWith } from '../../core/stations/films/index.js';
import { countCuts, NOTHING_CUT, recordedCuts } from '../../core/stations/record/index.js';
import { JobCard } from '../job/job-card.js';
import { JobContext, type JobContextValue, type Looked } from '../job/job-context.js';
import { JobHead } from '../job/job-head.js';
import { sayFailure } from '../job/say-failure.js';
import { RefusedEdits } from '../job/refused-edits.js';
import { UnreadDraft } from '../job/unread-draft.js';
import { useJob } from '../job/use-job.js';
import { fetchedLate, Part } from '../ui/part.js';

// Each is fetched when it is first gone to: a job is shown sooner without the others.
const BuildStation = fetchedLate(
  () => import('../stations/layers/build-station.js'),
  (m) => m.BuildStation,
);
const FilmsStation = fetchedLate(
  () => import('../stations/films/films-station.js'),
  (m) => m.FilmsStation,
);
const PrepareStation = fetchedLate(
  () => import('../stations/prepare/prepare-station.js'),
  (m) => m.PrepareStation,
);
const SurfaceStation = fetchedLate(
  () => import('../stations/surface/surface-station.js'),
  (m) => m.SurfaceStation,
);
const ArtworkStation = fetchedLate(
  () => import('../stations/artwork/artwork-station.js'),
  (m) => m.ArtworkStation,
);
const SheetsStation = fetchedLate(
  () => import('../stations/sheets/sheets-station.js'),
  (m) => m.SheetsStation,
);
const CutStation = fetchedLate(
  () => import('../stations/cut/cut-station.js'),
  (m) => m.CutStation,
);
const AssembleStation = fetchedLate(
  () => import('../stations/assemble/assemble-station.js'),
  (m) => m.AssembleStation,
);
const RecordStation = fetchedLate(
  () => import('../stations/record/record-station.js'),
  (m) => m.RecordStation,
);

const SCREENS: Readonly<Record<StationName, ComponentType>> = {
  artwork: ArtworkStation,
  films: FilmsStation,
  surface: SurfaceStation,
  build: BuildStation,
  prepare: PrepareStation,
  sheets: SheetsStation,
  cut: CutStation,
  assemble: AssembleStation,
  record: RecordStation,
};

function aroundAll(boxes: readonly Box[]): Box | null {
  return boxes.reduce<Box | null>(joinBoxes, null);
}

const NO_FINDINGS: readonly JobFinding[] = [];

/** A part at the other size that a new version of it could have. */
const atOtherSize =
  ({ partId, place }: OtherSize) =>
  ({ artworks }: Recipe): RecipePatch => ({
    artworks: artworks.map((part) => (part.id === partId ? { ...part, place } : part)),
  });

/** A job at one of its stations. */
export function JobPage() {
  const { id, station } = useParams();
  return STATIONS.includes(station as StationName) ? (
    <JobAtStation key={id} jobId={id!} station={station as StationName} />
  ) : (
    <Navigate to={`/jobs/${id}/artwork`} replace />
  );
}

function JobAtStation({ jobId, station }: { readonly jobId: string; readonly station: StationName }) {
  const handle = useJob(jobId);
  const shop = useShop();
  const { unit } = useSettings();
  const atCutter = station === 'cut' || station === 'record' || station === 'prepare';
  const cuts = useQuery({
    queryKey: ['cuts', jobId],
    queryFn: () => ask<FrozenSheet[]>(`/api/jobs/${jobId}/cuts`),
    refetchInterval: atCutter ? 3000 : false,
  }).data;
  const weeding = useLearnedWeeding();
  const builtWith = useQuery({
    // With the cuts, since it changes when they do.
    queryKey: ['cuts', jobId, 'built-with'],
    queryFn: () => ask<readonly BuiltWith[]>(`/api/jobs/${jobId}/built-with`),
    refetchInterval: atCutter ? 3000 : false,
  }).data;
  const batch = useBatchOf(jobId);
  const soFar = useMemo(
    () =>
      cuts && builtWith && batch
        ? {
            ...cutSoFar(cuts, jobId),
            builtWith,
            ...(batch.number === null && { lone: { id: jobId, wish: batch.wish } }),
          }
        : null,
    [cuts, builtWith, batch, jobId],
  );
  const {
    view: planned,
    madeOf,
    working,
    step,
    stop,
    tryAgain,
    failure,
  } = usePlan(jobId, handle.recipe, soFar, weeding);
  const view = useMemo(() => planInUnit(planned, unit), [planned, unit]);
  const { asked, looked, lookAt, look } = useLook(view?.findings ?? NO_FINDINGS);
  const navigate = useNavigate();
  const notify = useNotify();
  const { notice, dismissNotice, change } = handle;
  useEffect(() => {
    if (!notice) return;
    const { text, otherSize: other } = notice;
    notify(text, other ? { label: other.label, run: () => change(atOtherSize(other)) } : undefined);
    dismissNotice();
  }, [notice, notify, dismissNotice, change]);
  useCommandsOf(jobId, handle, view?.findings ?? NO_FINDINGS, look);
  // A place looked at belongs to its station; it is gone to when it is asked for, and not again when the plan changes.
  const askedStage = asked?.finding.stage;
  useEffect(() => {
    if (askedStage && askedStage !== station) void navigate(`/jobs/${jobId}/${askedStage}`);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);

  const toCut = view?.toCut;
  const counts = useMemo(() => countCuts(cuts ? recordedCuts(cuts, jobId) : NOTHING_CUT, toCut), [cuts, jobId, toCut]);
  if (handle.loadError) {
    return (
      <Middle role="alert">
        <h1>This job cannot be shown</h1>
        <p>{handle.loadError}</p>
        <Button onPress={() => void navigate('/')}>All jobs</Button>
      </Middle>
    );
  }
  const { job, recipe, decided } = handle;
  if (!job || !recipe || !decided || !shop) return <Middle role="status">Fetching the job …</Middle>;
  const Station = SCREENS[station];
  return (
    <JobContext
      value={{
        handle,
        job,
        recipe,
        decided,
        plan: view,
        plannedFrom: madeOf,
        working,
        step,
        stop,
        shop,
        unit,
        cuts: cuts ?? [],
        looked,
        lookAt,
        look,
      }}
    >
      <FilmPatterns films={shop.films} places={recipe.films.patterns} />
      <JobHead />
      <UnreadDraft />
      <RefusedEdits />
      <JobCard jobId={jobId} station={station} plan={view} unit={unit} cuts={counts} />
      {failure && (
        <Broken role="alert">
          {sayFailure(failure)} <WordButton onPress={tryAgain}>Try again</WordButton>
        </Broken>
      )}
      <Part name="This station" of={station} fallback={<Middle role="status">Fetching the station …</Middle>}>
        <Station />
      </Part>
    </JobContext>
  );
}

/** What the shop's own times of weeding have taught; undefined while that is asked for. Without an answer a job is planned by the starting figures. */
function useLearnedWeeding(): LearnedWeeding | null | undefined {
  const { data, isError } = useQuery({
    queryKey: ['weeding'],
    queryFn: () => ask<{ learned: LearnedWeeding | null }>('/api/weeding'),
    staleTime: 60_000,
  });
  return data ? data.learned : isError ? null : undefined;
}

/**
 * The finding being looked at, kept up with the plan: a remedy taken at one of its places leaves the others, and one that answers it all
 * ends the look.
 */
function useLook(
  findings: readonly JobFinding[],
): Pick<JobContextValue, 'looked' | 'lookAt' | 'look'> & { readonly asked: Looked | null } {
  const [asked, setAsked] = useState<Looked | null>(null);
  const look = useCallback((finding: JobFinding, index?: number) => setAsked({ finding, index: index ?? null }), []);
  const alike = asked ? findings.filter((finding) => finding.code === asked.finding.code) : [];
  const now = alike.length === 1 ? alike[0] : alike.find((finding) => finding.message === asked!.finding.message);
  // What was never among the findings is looked at as it was given.
  const finding = asked && (now ?? (asked.finding.at ? null : asked.finding));
  const places = finding?.places;
  const index = asked?.index !== null && asked && places ? Math.min(asked.index, places.length - 1) : null;
  // One object for one look: the light table goes there again when it is asked again, or the place is another one.
  const lookAt = useMemo(
    () => {
      const box = !finding
        ? null
        : index !== null
          ? places![index]!
          : places
            ? aroundAll(places)
            : (finding.where ?? null);
      return box && { ...box };
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [asked, index, index === null ? 0 : places!.length],
  );
  return { asked, looked: finding ? { finding, index } : null, lookAt, look };
}

function useCommandsOf(
  jobId: string,
  handle: ReturnType<typeof useJob>,
  findings: readonly JobFinding[],
  look: (finding: JobFinding) => void,
): void {
  const navigate = useNavigate();
  const [at, setAt] = useState(-1);
  const { undo, redo } = handle;
  useOffer(
    useMemo((): readonly Command[] => {
      const goRound = () => {
        if (findings.length === 0) return;
        const next = (at + 1) % findings.length;
        setAt(next);
        look({ ...findings[next]! });
      };
      return [
        { name: 'Undo', keys: 'Ctrl+Z', run: undo },
        { name: 'Redo', keys: 'Ctrl+Shift+Z', run: redo },
        { name: 'Next finding', keys: 'Alt+N', run: goRound },
        ...STATIONS.map((stage, i) => ({
          name: `Go to ${STATION_NAMES[stage]}`,
          keys: `Alt+${i + 1}`,
          run: () => void navigate(`/jobs/${jobId}/${stage}`),
        })),
      ];
    }, [undo, redo, findings, look, navigate, jobId, at]),
  );
}

const Middle = styled.div`
  max-width: 32rem;
  margin: 10vh auto;
  display: grid;
  gap: ${space.m};
  justify-items: start;
  h1 {
    font-size: ${type.title};
  }
`;

const Broken = styled.p`
  padding: ${space.s} ${space.l};
  background: ${colour.badWash};
  color: ${colour.bad};
  font-size: ${type.small};
  @media (max-width: ${width.phone}) {
    padding: ${space.s};
  }
`;
