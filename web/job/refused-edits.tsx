import type { RecipePatch } from '../../core/recipe/index.js';
import { Button, MainButton } from '../ui/button.js';
import { AskCard, AskRow } from './ask-card.js';
import { useJobContext } from './job-context.js';

const NAMES: Readonly<Record<keyof RecipePatch, string>> = {
  title: 'the title',
  customer: 'the customer',
  due: 'the due date',
  artworks: 'the artwork',
  repair: 'what is put right',
  films: 'the films',
  surface: 'the surface',
  build: 'the build',
  preparation: 'marks and border',
  sheets: 'copies and spacing',
  assembly: 'the way of assembly',
};

/** Changes that the server did not take: shown, so that they need not be made again by hand. */
export function RefusedEdits() {
  const { handle } = useJobContext();
  const { refusal, layOver, leaveOut } = handle;
  if (!refusal) return null;
  const parts = [
    ...new Set(
      refusal.patches.flatMap((patch) =>
        Object.entries(patch).map(([part, value]) => said(part as keyof RecipePatch, value)),
      ),
    ),
  ];
  return (
    <AskCard role="alert">
      <p>
        {refusal.reason}
        {parts.length > 0 && <> It was about {parts.join(', ')}. The newest state is shown.</>}
      </p>
      <AskRow>
        {refusal.canBeLaidOver && <MainButton onPress={layOver}>Make my change again</MainButton>}
        <Button onPress={leaveOut}>{parts.length > 0 ? 'Drop my change' : 'Dismiss'}</Button>
      </AskRow>
    </AskCard>
  );
}

/** What a change was about, with its value where that is short. */
function said(part: keyof RecipePatch, value: unknown): string {
  if (typeof value === 'string' && value !== '') return `${NAMES[part]} (“${value.slice(0, 60)}”)`;
  const plain = typeof value === 'object' && value !== null && !Array.isArray(value) ? Object.values(value) : [];
  return plain.length === 1 && (typeof plain[0] === 'number' || typeof plain[0] === 'string')
    ? `${NAMES[part]} (${plain[0]})`
    : NAMES[part];
}
