import { useMutation, useQueryClient } from '@tanstack/react-query';
import styled from 'styled-components';
import {
  countGroups,
  type CopyVerdict,
  type FrozenGroup,
  type FrozenSheet,
  type Run,
  type SheetStanding,
} from '../../../core/stations/cut/index.js';
import { ask } from '../../api/client.js';
import { JudgeWholeSheet } from '../../batch/judge-whole-sheet.js';
import { useJudging } from '../../batch/use-judging.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Choice } from '../../ui/choice.js';
import { useNotify } from '../../ui/notices.js';
import { Labelled, Small, TextArea } from '../../ui/plain-fields.js';
import { useDraft } from '../../ui/use-draft.js';

const OUTCOMES = [
  ['none', 'Not judged'],
  ['good', 'Good'],
  ['spoiled', 'Make again'],
] as const;

interface JudgeProps {
  readonly name: string;
  readonly sheet: FrozenSheet;
  readonly run: Run;
  readonly standing: SheetStanding;
}

/** How this job’s own copies on a sheet turned out, each by itself; what other jobs have on it is not touched. */
export function JudgeCopies({ name, sheet, run, standing }: JudgeProps) {
  const { job } = useJobContext();
  const { judge } = useJudging();
  const own = ownCopies(sheet, job.id);
  const positions = own.map(({ position }) => position);
  const verdicts = new Set(own.map(({ verdict }) => verdict));
  const [only] = verdicts;
  const others = sheet.groups.length - own.length;
  const canJudge = standing !== 'untouched' && standing !== 'thrown-away';
  const say = (which: readonly number[], verdict: CopyVerdict | null) =>
    judge({ sheetId: sheet.id, positions: which, verdict });
  return (
    <Card>
      <h3>{name}</h3>
      {canJudge && (
        <>
          <Choice
            label={own.length > 1 ? 'Outcome of all copies of this job' : 'Outcome'}
            value={verdicts.size > 1 ? 'mixed' : (only ?? 'none')}
            options={OUTCOMES}
            onChange={(outcome) => say(positions, outcome === 'none' || outcome === 'mixed' ? null : outcome)}
          />
          {own.length > 1 && (
            <div role="group" aria-label="Spoiled copies">
              <Small>Press each copy that is spoiled. It is cut again.</Small>
              <Copies>
                {own.map(({ position, verdict }, i) => (
                  <button
                    key={position}
                    type="button"
                    aria-pressed={verdict === 'spoiled'}
                    aria-label={`Copy ${i + 1} is spoiled`}
                    onClick={() => say([position], verdict === 'spoiled' ? null : 'spoiled')}
                  >
                    {i + 1}
                  </button>
                ))}
              </Copies>
            </div>
          )}
          {verdicts.has('spoiled') && (
            <Small>
              {countGroups(own.filter(({ verdict }) => verdict === 'spoiled').length, own)} of this job on this sheet
              will be cut again.
            </Small>
          )}
          {others > 0 && (
            <>
              <Small>
                {countGroups(others, sheet.groups)} of other jobs on this sheet{' '}
                {others === 1 ? 'stays as it is' : 'stay as they are'}.
              </Small>
              <JudgeWholeSheet sheet={sheet} />
            </>
          )}
        </>
      )}
      <Note key={run.id} run={run} />
    </Card>
  );
}

function Note({ run }: { readonly run: Run }) {
  const { job } = useJobContext();
  const client = useQueryClient();
  const notify = useNotify();
  const save = useMutation({
    mutationFn: (note: string) => ask<Run>(`/api/runs/${run.id}`, { method: 'PATCH', json: { note } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['cuts', job.id] }),
    onError: (error) => notify(error.message),
  });
  const note = useDraft<string, HTMLTextAreaElement>({
    label: 'Note',
    shown: run.note,
    read: (text) => ({ value: text }),
    onKeep: (text) => save.mutate(text),
    isLong: true,
  });
  return (
    <Labelled>
      Note: how it weeded, what went wrong, why it was remade
      <TextArea maxLength={2000} {...note.props} />
    </Labelled>
  );
}

/** A job’s own copies on a sheet, with their positions there and what was said of them. */
export function ownCopies(
  { groups }: Pick<FrozenSheet, 'groups'>,
  jobId: string,
): readonly (FrozenGroup & { readonly position: number })[] {
  return groups.flatMap((group, position) => (group.jobId === jobId ? [{ ...group, position }] : []));
}

const Card = styled.section`
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  h3 {
    font-size: ${type.body};
    margin: 0;
  }
`;
const Copies = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.xs};
  max-height: 180px;
  overflow: auto;
  padding: 3px;
  button {
    min-width: 34px;
    min-height: 28px;
    font: inherit;
    font-size: ${type.small};
    font-variant-numeric: tabular-nums;
    color: ${colour.ink};
    background: ${colour.raised};
    border: 1px solid ${colour.line};
    border-radius: ${radius.m};
    cursor: pointer;
  }
  button[aria-pressed='true'] {
    background: ${colour.badWash};
    border-color: ${colour.bad};
    text-decoration: line-through;
    font-weight: 650;
  }
`;
