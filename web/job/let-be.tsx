import { useState } from 'react';
import styled from 'styled-components';
import { space } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { TextInput } from '../ui/plain-fields.js';

const REASONS = [
  'It is meant to be like this',
  'Too small to be seen',
  'I will fix it by hand',
  'The customer wants it',
] as const;

interface LetBeProps {
  readonly label: string;
  readonly about: string;
  readonly onReason: (reason: string) => void;
}

/** Asks why something is left as it is; the job's record keeps the reason. */
export function LetBe({ label, about, onReason }: LetBeProps) {
  const [asking, setAsking] = useState(false);
  const give = (reason: string) => {
    setAsking(false);
    onReason(reason);
  };
  if (!asking) {
    return (
      <WordButton onPress={() => setAsking(true)} aria-label={`${label}: ${about}`}>
        {label}
      </WordButton>
    );
  }
  return (
    <Why>
      Why?{' '}
      {REASONS.map((reason) => (
        <WordButton key={reason} onPress={() => give(`${reason}.`)}>
          {reason}
        </WordButton>
      ))}{' '}
      <TextInput
        aria-label="Another reason (Enter to use it)"
        placeholder="another reason"
        maxLength={200}
        autoFocus
        onKeyDown={(event) => {
          if (event.key === 'Escape') setAsking(false);
          if (event.key === 'Enter' && event.currentTarget.value.trim() !== '') give(event.currentTarget.value.trim());
        }}
      />
    </Why>
  );
}

const Why = styled.span`
  display: block;
  padding-top: ${space.xs};
  input {
    min-height: 28px;
    width: 100%;
  }
`;
