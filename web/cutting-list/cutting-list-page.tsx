import { useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { leftOfFilms, type Film } from '../../core/shop/index.js';
import { count, sayArea } from '../../core/words/index.js';
import { useBatchActs, useBatches } from '../batch/use-batches.js';
import { useShop } from '../plan/use-shop.js';
import { colour, radius, space, type, width } from '../tokens.js';
import { MainButton, WordButton } from '../ui/button.js';
import type { Batch } from '../../core/batch/index.js';
import { useOffer } from '../ui/commands.js';
import { Small, Table } from '../ui/plain-fields.js';
import { sayDay } from '../ui/say.js';
import { Swatch } from '../ui/swatch.js';
import { filmsThatWait, useWaiting, type WaitingJob } from './waiting.js';

/** All that waits to be cut in the shop: job by job to be put together, film by film to be seen, and what is put together already. */
export function CuttingListPage() {
  const shop = useShop();
  const batches = useBatches();
  const { jobs, known, error } = useWaiting();
  const navigate = useNavigate();
  const acts = useBatchActs();
  const [asked] = useSearchParams();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set(asked.getAll('job')));
  const films = useMemo(() => new Map(shop?.films.map((film) => [film.id, film])), [shop?.films]);
  const left = useMemo(() => leftOfFilms(shop?.stock ?? []), [shop?.stock]);
  const batchOf = useMemo(
    () => new Map(batches?.flatMap((batch) => batch.jobs.map(({ id }) => [id, batch] as const))),
    [batches],
  );
  const byFilm = useMemo(() => filmsThatWait(jobs ?? []), [jobs]);
  const ready = useMemo(() => jobs?.filter(({ stopped, report }) => report !== null && stopped === null) ?? [], [jobs]);
  const chosen = ready.filter(({ job }) => ticked.has(job.id)).map(({ job }) => job.id);
  const turn = (ids: readonly string[], on: boolean) =>
    setTicked((before) => new Set(on ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  const together = () => acts.create(chosen, ({ id }) => void navigate(`/cutting-list/${id}`));
  const apart = ready.filter(({ job }) => !batchOf.has(job.id));
  useOffer(
    useMemo(
      () => [{ name: 'Tick all jobs that wait', run: () => setTicked(new Set(ready.map(({ job }) => job.id))) }],
      [ready],
    ),
  );
  return (
    <Page>
      <Head>
        <h1>Cutting list</h1>
        <Small role="status">
          {jobs === undefined
            ? ' '
            : jobs.some(({ report, error: failed }) => !report && !failed)
              ? `Looking through the jobs: ${known} …`
              : `${count(jobs.length, 'job')} ${jobs.length === 1 ? 'waits' : 'wait'}, in ${count(byFilm.length, 'film')}`}
        </Small>
        <Tools>
          {apart.length > 1 && chosen.length === 0 && (
            <WordButton
              onPress={() =>
                turn(
                  apart.map(({ job }) => job.id),
                  true,
                )
              }
            >
              Tick all that are apart
            </WordButton>
          )}
          {chosen.length > 0 && <WordButton onPress={() => setTicked(new Set())}>Untick all</WordButton>}
          <MainButton isDisabled={chosen.length === 0 || acts.isBusy} onPress={together}>
            {chosen.length > 1
              ? `Cut ${chosen.length} jobs together`
              : chosen.length === 1
                ? 'Lay out this job'
                : 'Cut together'}
          </MainButton>
        </Tools>
      </Head>
      {error && !jobs && <Small role="alert">{error.message}</Small>}
      {batches && batches.length > 0 && (
        <Batches aria-label="Batches">
          {batches.map((batch) => (
            <li key={batch.id}>
              <Link to={`/cutting-list/${batch.id}`}>Batch {batch.number}</Link>
              <Small>
                {batch.jobs.length === 0 ? 'its jobs are deleted' : batch.jobs.map(({ title }) => title).join(' · ')}
              </Small>
            </li>
          ))}
        </Batches>
      )}
      {jobs?.length === 0 && (
        <Empty>
          <h2>Nothing waits to be cut</h2>
          <p>
            Jobs stand here as soon as they have artwork, until all of them is cut. Tick those that are to be cut
            together, on the same sheets.
          </p>
        </Empty>
      )}
      {jobs && jobs.length > 0 && (
        <Two>
          <section aria-label="Jobs that wait">
            <h2>Jobs</h2>
            <Rows>
              {jobs.map((waiting) => (
                <JobRow
                  key={waiting.job.id}
                  waiting={waiting}
                  films={films}
                  batch={batchOf.get(waiting.job.id) ?? null}
                  isTicked={ticked.has(waiting.job.id)}
                  onTick={(on) => turn([waiting.job.id], on)}
                />
              ))}
            </Rows>
          </section>
          <section aria-label="Films that are needed">
            <h2>Films</h2>
            <Table>
              <thead>
                <tr>
                  <th scope="col">Film</th>
                  <th scope="col" className="figure">
                    Jobs
                  </th>
                  <th scope="col" className="figure">
                    Layers
                  </th>
                  <th scope="col" className="figure">
                    Stays on the work
                  </th>
                  <th scope="col" className="figure">
                    In stock
                  </th>
                </tr>
              </thead>
              <tbody>
                {byFilm.map(({ filmId, jobIds, copies, areaMm2 }) => {
                  const film = films.get(filmId);
                  const free = jobIds.filter((id) => ready.some(({ job }) => job.id === id));
                  return (
                    <tr key={filmId}>
                      <td>
                        {film && <Swatch film={film} size={16} />} {film?.name ?? filmId}
                      </td>
                      <td className="figure">
                        {jobIds.length}{' '}
                        <WordButton
                          aria-label={`Tick ${free.length === 1 ? 'it' : 'them'}: jobs in ${film?.name ?? filmId}`}
                          isDisabled={free.every((id) => ticked.has(id))}
                          onPress={() => turn(free, true)}
                        >
                          Tick {free.length === 1 ? 'it' : 'them'}
                        </WordButton>
                      </td>
                      <td className="figure">{copies}</td>
                      <td className="figure">{sayArea(areaMm2)}</td>
                      <td className="figure">
                        {((left.get(filmId) ?? 0) * 1e6 < areaMm2 ? '▾ ' : '') +
                          ((left.get(filmId) ?? 0) === 0 ? 'none' : `${left.get(filmId)!.toFixed(2)} m²`)}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </Table>
          </section>
        </Two>
      )}
    </Page>
  );
}

interface JobRowProps {
  readonly waiting: WaitingJob;
  readonly films: ReadonlyMap<string, Film>;
  readonly batch: Pick<Batch, 'id' | 'number'> | null;
  readonly isTicked: boolean;
  readonly onTick: (on: boolean) => void;
}

/** A job that waits: whether it is ready, what is needed for it, and where it lies. */
function JobRow({
  waiting: { job, report, error, layers, stopped, warnings },
  films,
  batch,
  isTicked,
  onTick,
}: JobRowProps) {
  const isReady = report !== null && stopped === null;
  const layersLeft = layers.reduce((sum, { copies }) => sum + copies, 0);
  return (
    <Row data-stopped={stopped !== null || undefined}>
      <input
        type="checkbox"
        aria-label={`Tick ${job.title}`}
        disabled={!isReady}
        checked={isReady && isTicked}
        onChange={(event) => onTick(event.target.checked)}
      />
      <div>
        <Title>
          <Link to={`/cutting-list/job/${job.id}`}>{job.title}</Link>
          {batch && (
            <InBatch>
              in <Link to={`/cutting-list/${batch.id}`}>batch {batch.number}</Link>
            </InBatch>
          )}
        </Title>
        <Small>
          {job.customer && `${job.customer} · `}
          {job.due ? `due ${sayDay(job.due)}` : 'no date'}
          {isReady && ` · ${count(layersLeft, 'layer')}`}
          {isReady && warnings > 0 && ` · ${count(warnings, 'thing')} to look at`}
        </Small>
        {stopped && (
          <Small>
            Stopped: {stopped.message}{' '}
            <Link to={`/jobs/${job.id}/${stopped.stage}`}>Go to its {stopped.stage} station</Link>
          </Small>
        )}
        {error && <Small>{error}</Small>}
        {!report && !error && <Small>Looking at it …</Small>}
      </div>
      <Swatches>
        {layers.map(({ filmId }) => {
          const film = films.get(filmId);
          return film ? <Swatch key={filmId} film={film} size={20} /> : null;
        })}
        <span className="unseen">{layers.map(({ filmId }) => films.get(filmId)?.name ?? filmId).join(', ')}</span>
      </Swatches>
    </Row>
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
`;

const Batches = styled.ul`
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: ${space.m};
  padding-bottom: ${space.l};
  li {
    position: relative;
    padding: ${space.m};
    background: ${colour.docket};
    border: 1px solid ${colour.line};
    border-left: 4px solid ${colour.accent};
    border-radius: ${radius.m};
  }
  li:hover {
    border-color: ${colour.accent};
  }
  a {
    font: 650 ${type.large} / 1.2 ${type.display};
    color: ${colour.ink};
    text-decoration: none;
  }
  a::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  p {
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }
`;

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: ${space.xl};
  h2 {
    font-size: ${type.large};
    padding-bottom: ${space.s};
  }
  @media (max-width: ${width.phone}) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Rows = styled.ul`
  list-style: none;
  background: ${colour.docket};
  border: 1px solid ${colour.line};
  border-radius: ${radius.l};
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: ${space.m};
  align-items: start;
  padding: ${space.s} ${space.m};
  border-bottom: 1px solid ${colour.faint};
  &:last-child {
    border-bottom: 0;
  }
  &[data-stopped] {
    background: ${colour.warnWash};
  }
  input {
    width: 20px;
    height: 20px;
    margin: 2px 0 0;
  }
`;

const Title = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.xs} ${space.m};
  align-items: baseline;
  a {
    color: ${colour.ink};
    font-weight: 600;
    overflow-wrap: anywhere;
  }
`;
const InBatch = styled.span`
  font-size: ${type.small};
  color: ${colour.quiet};
  a {
    font-weight: 500;
  }
`;
const Swatches = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  max-width: 120px;
  justify-content: flex-end;
`;

const Empty = styled.div`
  max-width: 30rem;
  margin: 8vh auto;
  display: grid;
  gap: ${space.m};
  h2 {
    font-size: ${type.title};
  }
`;
