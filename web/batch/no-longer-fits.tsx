import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import styled from 'styled-components';
import type { Job } from '../../core/recipe/index.js';
import type { FrozenSheet } from '../../core/stations/cut/index.js';
import { count, listed, STATION_NAMES, type StationName } from '../../core/words/index.js';
import { ask } from '../api/client.js';
import { newId } from '../api/new-id.js';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { useNotify } from '../ui/notices.js';

/** What is to be cut of a job today, by fingerprint. */
export interface WantedOfJob {
  readonly jobId: string;
  readonly fingerprints: readonly string[];
}

/** Jobs of a sheet of which copies no longer fit, with how many; a job of which nothing is known is left out. */
export function staleJobs(
  { groups }: Pick<FrozenSheet, 'groups'>,
  wanted: readonly WantedOfJob[],
): readonly { readonly jobId: string; readonly copies: number }[] {
  return wanted.flatMap(({ jobId, fingerprints }) => {
    const stale = groups.filter(
      (group) => group.jobId === jobId && group.verdict !== 'spoiled' && !fingerprints.includes(group.fingerprint),
    );
    return stale.length > 0 ? [{ jobId, copies: stale.length }] : [];
  });
}

/** What of a sheet that was cut no longer fits the jobs as they are now, and what it takes to keep it. */
export function NoLongerFits({
  sheet,
  wanted,
}: {
  readonly sheet: FrozenSheet;
  readonly wanted: readonly WantedOfJob[];
}) {
  return staleJobs(sheet, wanted).map((stale) => (
    <Changed key={stale.jobId} sheetId={sheet.restOf ?? sheet.id} {...stale} />
  ));
}

interface ChangedSince {
  readonly title: string;
  readonly revision: number;
  readonly stations: readonly StationName[] | null;
}

/** All that changes with a job. */
const CHANGES = ['job', 'jobs', 'batch-plan', 'batches', 'sheet-changes'];

function Changed({
  sheetId,
  jobId,
  copies,
}: {
  readonly sheetId: string;
  readonly jobId: string;
  readonly copies: number;
}) {
  const client = useQueryClient();
  const notify = useNotify();
  const since = useQuery({
    queryKey: ['sheet-changes', sheetId, jobId],
    queryFn: () => ask<ChangedSince>(`/api/sheets/${sheetId}/jobs/${jobId}/changes`),
  }).data;
  const onSettled = () => Promise.all(CHANGES.map((key) => client.invalidateQueries({ queryKey: [key] })));
  const onError = (error: Error) => notify(error.message);
  const undo = useMutation({
    mutationFn: (revision: number) =>
      ask<Job>(`/api/jobs/${jobId}/undo`, { method: 'POST', json: { revision, edit: newId() } }),
    onError,
    onSettled,
  });
  const keep = useMutation({
    mutationFn: (revision: number) =>
      ask<Job>(`/api/sheets/${sheetId}/jobs/${jobId}/as-cut`, { method: 'POST', json: { revision, edit: newId() } }),
    onSuccess: ({ revision, title }) =>
      notify(`${title} is as it was when this was cut.`, { label: 'Undo', run: () => undo.mutate(revision) }),
    onError,
    onSettled,
  });
  if (!since) return null;
  const { title, revision, stations } = since;
  return (
    <Note>
      {count(copies, 'copy', 'copies')} of {title} no longer {copies === 1 ? 'fits' : 'fit'}: the job has changed since
      {stations && stations.length > 0 && <> ({listed(stations.map((station) => STATION_NAMES[station]))})</>}.{' '}
      {copies === 1 ? 'It is' : 'They are'} cut again as the job is now.{' '}
      {stations && stations.length > 0 && (
        <WordButton isDisabled={keep.isPending} onPress={() => keep.mutate(revision)}>
          Keep what is cut: make the job as it was
        </WordButton>
      )}
    </Note>
  );
}

const Note = styled.p`
  font-size: ${type.small};
  padding: ${space.s} ${space.m};
  margin: ${space.xs} 0;
  background: ${colour.warnWash};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
`;
