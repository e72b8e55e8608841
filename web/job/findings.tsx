import { useState } from 'react';
import styled from 'styled-components';
import type { Finding } from '../../core/job/index.js';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { TextInput } from '../ui/plain-fields.js';
import { useJobContext } from './job-context.js';

const SIGNS = { blocker: '✕', warning: '!', note: 'i' } as const;
const SAID = { blocker: 'Stops the job', warning: 'Look at this', note: 'Note' } as const;

/** What the app noticed. Choosing one brings its place into view; its remedies stand beside it. */
export function Findings({ findings }: { readonly findings: readonly Finding[] }) {
  const { handle, look } = useJobContext();
  if (findings.length === 0) return null;
  return (
    <List aria-label="Findings">
      {findings.map((finding) => (
        <Item key={finding.code + finding.message} data-severity={finding.severity}>
          <Sign aria-hidden>{SIGNS[finding.severity]}</Sign>
          <div>
            <p>
              <span className="unseen">{SAID[finding.severity]}: </span>
              {finding.message}
              {finding.count && finding.count > 1 ? ` (${finding.count} times)` : ''}
            </p>
            {(finding.where || finding.remedies?.length || finding.severity !== 'blocker') && (
              <p>
                {finding.where && <WordButton onPress={() => look({ ...finding })}>Show where</WordButton>}{' '}
                {finding.remedies?.map((remedy) => (
                  <WordButton key={remedy.label} onPress={() => handle.change(remedy.patch)}>
                    {remedy.label}
                  </WordButton>
                ))}{' '}
                {finding.severity !== 'blocker' && <LetBe finding={finding} />}
              </p>
            )}
          </div>
        </Item>
      ))}
    </List>
  );
}

const REASONS = ['It is meant so', 'Too small to be seen', 'I shall see to it by hand', 'The customer wants it so'] as const;

/** A finding is let be with a reason, which the job's record keeps. */
function LetBe({ finding }: { readonly finding: Finding }) {
  const { handle, recipe } = useJobContext();
  const [asking, setAsking] = useState(false);
  const letBe = (reason: string) => handle.change({ repair: { letBe: { ...recipe.repair.letBe, [finding.code]: reason } } });
  if (!asking) {
    return (
      <WordButton onPress={() => setAsking(true)} aria-label={`Let it be: ${finding.message}`}>
        Let it be
      </WordButton>
    );
  }
  return (
    <Why>
      Why?{' '}
      {REASONS.map((reason) => (
        <WordButton key={reason} onPress={() => letBe(`${reason}.`)}>
          {reason}
        </WordButton>
      ))}{' '}
      <TextInput
        aria-label="Another reason; Enter takes it"
        placeholder="another reason"
        maxLength={200}
        autoFocus
        onKeyDown={(event) => {
          if (event.key === 'Escape') setAsking(false);
          if (event.key === 'Enter' && event.currentTarget.value.trim() !== '') letBe(event.currentTarget.value.trim());
        }}
      />
    </Why>
  );
}

const Why = styled.span`display: block; padding-top: ${space.xs}; input { min-height: 28px; width: 100%; }`;

const List = styled.ul`list-style: none; display: grid; gap: ${space.s};`;

const Sign = styled.span`
  flex: none; width: 20px; height: 20px; display: grid; place-items: center; border-radius: 50%; font: 750 0.75rem/1 ${type.text}; border: 1.5px solid currentColor; background: ${colour.raised};
`;

const Item = styled.li`
  display: flex; gap: ${space.s}; padding: ${space.s}; border-radius: ${radius.m}; font-size: ${type.small}; background: ${colour.faint}; overflow-wrap: anywhere;
  &[data-severity='warning'] { background: ${colour.warnWash}; ${Sign} { color: ${colour.warn}; } }
  &[data-severity='blocker'] { background: ${colour.badWash}; ${Sign} { color: ${colour.bad}; } }
`;
