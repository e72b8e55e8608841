import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { countGroups, filmOfGroup, type FrozenGroup, type FrozenSheet } from '../../core/stations/cut/index.js';
import type { Job } from '../../core/recipe/index.js';
import { ask } from '../api/client.js';
import { space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { Small } from '../ui/plain-fields.js';
import { useJudging } from './use-judging.js';

/** The whole of a sheet is spoiled: says what of which job will be cut again before it is done. Nothing where nothing is left to spoil. */
export function JudgeWholeSheet({ sheet }: { readonly sheet: FrozenSheet }) {
  const [isOpen, setOpen] = useState(false);
  const { judge, isBusy } = useJudging();
  const left = sheet.groups.flatMap((group, position) => (group.verdict === 'spoiled' ? [] : [{ group, position }]));
  if (left.length === 0) return null;
  if (!isOpen)
    return (
      <Row>
        <WordButton onPress={() => setOpen(true)}>The whole sheet is spoiled …</WordButton>
      </Row>
    );
  return (
    <Ask aria-label="The whole sheet is spoiled">
      <p>These go back to the cutting list and are cut again:</p>
      <Again sheet={sheet} />
      <Row>
        <Button
          isDisabled={isBusy}
          onPress={() =>
            judge({ sheetId: sheet.id, positions: left.map(({ position }) => position), verdict: 'spoiled' }, () =>
              setOpen(false),
            )
          }
        >
          Cut {countGroups(left.length, sheet.groups)} again
        </Button>
        <WordButton onPress={() => setOpen(false)}>Leave it</WordButton>
      </Row>
      <Small>You can take it back, one by one in each job’s Record, until other copies are cut in their place.</Small>
    </Ask>
  );
}

/** What would be cut again, by job and film. */
function Again({ sheet }: { readonly sheet: FrozenSheet }) {
  const lines = new Map<string, { readonly jobId: string; readonly film: string; readonly groups: FrozenGroup[] }>();
  for (const group of sheet.groups) {
    if (group.verdict === 'spoiled') continue;
    const key = `${group.jobId} ${group.filmId}`;
    const line = lines.get(key) ?? { jobId: group.jobId, film: filmOfGroup(sheet, group).name, groups: [] };
    line.groups.push(group);
    lines.set(key, line);
  }
  const ids = [...new Set([...lines.values()].map(({ jobId }) => jobId))];
  const jobs = useQueries({
    queries: ids.map((id) => ({ queryKey: ['job', id], queryFn: () => ask<Job>(`/api/jobs/${id}`) })),
  });
  const titleOf = (id: string) => jobs[ids.indexOf(id)]?.data?.recipe.title ?? 'a job';
  return (
    <ul>
      {[...lines].map(([key, { jobId, film, groups }]) => (
        <li key={key}>
          {titleOf(jobId)}: {countGroups(groups.length, groups)} of {film}
        </li>
      ))}
    </ul>
  );
}

const Ask = styled.section`
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  ul {
    padding-left: ${space.l};
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.m};
`;
