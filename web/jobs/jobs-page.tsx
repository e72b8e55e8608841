import { useMutation, useQueryClient } from '@tanstack/react-query';
import { memo, useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import type { DeletedJob, Job, JobSummary } from '../../core/recipe/index.js';
import { ask } from '../api/client.js';
import { useOffer } from '../ui/commands.js';
import { colour, radius, space, type, width } from '../tokens.js';
import { Button, MainButton, WordButton } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { useNotify } from '../ui/notices.js';
import { Small, TextInput } from '../ui/plain-fields.js';
import { sayDay } from '../ui/say.js';
import { count } from '../../core/words/index.js';
import { JobRack } from './job-rack.js';
import { ShopNews } from './shop-news.js';
import { useJobList, type Listed } from './use-job-list.js';

const STATES = [
  ['all', 'All'],
  ['new', 'New'],
  ['in work', 'In work'],
  ['cutting', 'Cutting'],
  ['cut', 'Cut'],
  ['deleted', 'Deleted'],
] as const;

/** Every job of the shop, the soonest due first. */
export function JobsPage() {
  const [search, setSearch] = useState('');
  const [state, setState] = useState<Listed>('all');
  const navigate = useNavigate();
  const client = useQueryClient();
  const notify = useNotify();
  const { jobs, total, error, more, again: fetchAgain } = useJobList(search, state);
  // A job that is deleted or comes back changes the batch that it is cut in.
  const again = () =>
    Promise.all([['jobs'], ['batches'], ['batch-plan']].map((queryKey) => client.invalidateQueries({ queryKey })));
  const fail = (error: Error) => notify(error.message);
  const create = useMutation({
    mutationFn: () => ask<Job>('/api/jobs', { method: 'POST', json: {} }),
    onSuccess: (job) => void navigate(`/jobs/${job.id}/artwork`),
    onError: fail,
  });
  const restore = useMutation({
    mutationFn: (id: string) => ask<Job>(`/api/jobs/${id}/restore`, { method: 'POST' }),
    onSuccess: (job) => {
      notify(`“${job.title}” is back.`);
      return again();
    },
    onError: fail,
  });
  const remove = useMutation({
    mutationFn: (id: string) => ask<DeletedJob>(`/api/jobs/${id}`, { method: 'DELETE' }),
    onSuccess: (job) => {
      const laid = job.batchNumber === null ? '' : ` Batch ${job.batchNumber} is laid out without it.`;
      notify(`“${job.title}” was deleted.${laid}`, { label: 'Bring it back', run: () => restore.mutate(job.id) });
      return again();
    },
    onError: fail,
  });
  const duplicate = useMutation({
    mutationFn: (id: string) => ask<Job>(`/api/jobs/${id}/duplicate`, { method: 'POST' }),
    onSuccess: (job) => {
      notify(`“${job.title}” was made.`);
      return again();
    },
    onError: fail,
  });
  const [duplicateJob, removeJob, restoreJob] = [duplicate.mutate, remove.mutate, restore.mutate];
  const isDeleted = state === 'deleted';
  const docketOf = useCallback(
    (job: JobSummary) =>
      isDeleted ? (
        <JobDocket job={job} onRestore={restoreJob} />
      ) : (
        <JobDocket job={job} onDuplicate={duplicateJob} onRemove={removeJob} />
      ),
    [isDeleted, duplicateJob, removeJob, restoreJob],
  );
  const make = create.mutate;
  useOffer(useMemo(() => [{ name: 'New job', keys: 'Alt+N', run: () => make() }], [make]));
  return (
    <Page>
      <Head>
        <h1>Jobs</h1>
        <Small role="status">{jobs ? count(total, 'job') : ' '}</Small>
        <Tools>
          <TextInput
            type="search"
            aria-label="Search jobs by title or customer"
            placeholder="Title or customer"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <Choice label="State" value={state} options={STATES} onChange={setState} />
          <MainButton onPress={() => make()}>New job</MainButton>
        </Tools>
      </Head>
      <ShopNews />
      {error && !jobs && (
        <Empty role="alert">
          <p>{error.message}</p>
          <Button onPress={fetchAgain}>Try again</Button>
        </Empty>
      )}
      {!jobs && !error && <Small>Fetching the jobs …</Small>}
      {jobs?.length === 0 && (
        <Empty>
          <h2>
            {isDeleted && !search
              ? 'No job is deleted'
              : search || state !== 'all'
                ? 'No job matches this'
                : 'There are no jobs yet'}
          </h2>
          <p>
            {isDeleted && !search
              ? 'Jobs that you delete are listed here. You can bring them back at any time.'
              : search || state !== 'all'
                ? 'Search for fewer words, or show all states.'
                : 'Make a new job, then add a drawing, a picture, or some words.'}
          </p>
        </Empty>
      )}
      {jobs && (
        <JobRack jobs={jobs} total={total} onNearEnd={more}>
          {docketOf}
        </JobRack>
      )}
    </Page>
  );
}

interface JobDocketProps {
  readonly job: JobSummary;
  readonly onDuplicate?: (id: string) => void;
  readonly onRemove?: (id: string) => void;
  /** Of a deleted job: brings it back. It is not opened before that. */
  readonly onRestore?: (id: string) => void;
}

/** A job as the list shows it; drawn anew only when it is another, or told otherwise by the server. */
const JobDocket = memo(function JobDocket({ job, onDuplicate, onRemove, onRestore }: JobDocketProps) {
  return (
    <Docket>
      <Thumb jobId={job.id} design={job.design} words={job.words} />
      <Words>
        {onRestore ? (
          <strong>{job.title}</strong>
        ) : (
          <Title to={`/jobs/${job.id}/${job.state === 'new' ? 'artwork' : 'build'}`}>{job.title}</Title>
        )}
        <Small>{job.customer || 'No customer noted'}</Small>
      </Words>
      <Due>
        <Stamp data-state={job.state}>{job.state}</Stamp>
        <Small>{job.due ? `due ${sayDay(job.due)}` : 'no date'}</Small>
      </Due>
      <Acts>
        {onDuplicate && (
          <WordButton onPress={() => onDuplicate(job.id)} aria-label={`Duplicate ${job.title}`}>
            Duplicate
          </WordButton>
        )}
        {onRemove && (
          <WordButton onPress={() => onRemove(job.id)} aria-label={`Delete ${job.title}`}>
            Delete
          </WordButton>
        )}
        {onRestore && (
          <WordButton onPress={() => onRestore(job.id)} aria-label={`Bring it back: ${job.title}`}>
            Bring it back
          </WordButton>
        )}
      </Acts>
    </Docket>
  );
});

/** What only passes by while a hand scrolls or types needs no picture. */
const GLANCE_MS = 150;

function Thumb({ jobId, design, words }: Pick<JobSummary, 'design' | 'words'> & { readonly jobId: string }) {
  const [broken, setBroken] = useState<string | null>(null);
  const [stays, setStays] = useState(false);
  useEffect(() => {
    const glance = setTimeout(() => setStays(true), GLANCE_MS);
    return () => clearTimeout(glance);
  }, []);
  const hasPicture = design !== null && broken !== design;
  return (
    <Window>
      {hasPicture && stays && (
        <img src={`/api/jobs/${jobId}/picture?design=${design}`} alt="" onError={() => setBroken(design)} />
      )}
      {!hasPicture &&
        (words ? (
          <Lettered dir="auto">{words.slice(0, 60)}</Lettered>
        ) : (
          <Small>{design ? 'no picture' : 'no artwork'}</Small>
        ))}
    </Window>
  );
}

const Page = styled.div`
  position: relative;
  flex: 1;
  overflow-y: auto;
  padding: ${space.l} ${space.xl} ${space.xxl};
  @media (max-width: ${width.phone}) {
    padding: ${space.m};
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.m};
  padding-bottom: ${space.l};
  h1 {
    font-size: 2rem;
  }
`;

const Tools = styled.div`
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.m};
  input[type='search'] {
    width: 220px;
  }
`;

const Docket = styled.div`
  position: relative;
  min-width: 0;
  display: grid;
  grid-template-columns: 148px 1fr auto;
  grid-template-rows: 1fr auto;
  column-gap: ${space.l};
  background: ${colour.docket};
  border: 1px solid ${colour.line};
  border-radius: ${radius.l};
  overflow: hidden;
  box-shadow: 0 1px 4px ${colour.shadow};
  &:hover {
    border-color: ${colour.accent};
  }
  @media (max-width: ${width.phone}) {
    grid-template-columns: 96px 1fr;
  }
`;

const Window = styled.div`
  grid-row: 1 / 3;
  background: #fcfdfb;
  border-right: 1px dashed ${colour.line};
  display: grid;
  place-items: center;
  padding: ${space.s};
  height: 100%;
  min-height: 0;
  img {
    width: 100%;
    height: 100%;
    max-height: 112px;
    object-fit: contain;
  }
  p {
    color: #4c5a5c;
  }
`;

const Lettered = styled.p`
  font: 700 1.05rem/1.2 ${type.display};
  text-align: center;
  overflow: hidden;
  max-height: 104px;
  overflow-wrap: anywhere;
`;

const Words = styled.div`
  padding-top: ${space.m};
  min-width: 0;
`;

const Title = styled(Link)`
  font: 650 ${type.large} / 1.25 ${type.display};
  color: ${colour.ink};
  text-decoration: none;
  overflow: hidden;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  &::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  &:hover {
    text-decoration: underline;
    text-decoration-color: ${colour.accent};
  }
`;

const Due = styled.div`
  padding: ${space.m} ${space.m} 0 0;
  text-align: right;
  @media (max-width: ${width.phone}) {
    text-align: left;
    grid-column: 2;
    padding-top: 0;
  }
`;

const Stamp = styled.span`
  display: inline-block;
  font: 650 ${type.small} / 1 ${type.text};
  padding: 4px 8px;
  border-radius: ${radius.s};
  border: 1.5px solid currentColor;
  color: ${colour.quiet};
  &[data-state='in work'] {
    color: ${colour.warn};
  }
  &[data-state='cutting'] {
    color: ${colour.accent};
  }
  &[data-state='cut'] {
    color: ${colour.good};
  }
`;

const Acts = styled.div`
  grid-column: 2 / 4;
  padding-bottom: ${space.s};
  display: flex;
  gap: ${space.m};
  button {
    position: relative;
    z-index: 1;
  }
  @media (max-width: ${width.phone}) {
    grid-column: 2;
  }
`;

const Empty = styled.div`
  max-width: 30rem;
  margin: 8vh auto;
  display: grid;
  gap: ${space.m};
  justify-items: start;
  h2 {
    font-size: ${type.title};
  }
`;
