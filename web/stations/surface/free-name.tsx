import styled from 'styled-components';
import { TextInput } from '../../ui/plain-fields.js';
import { useDraft } from '../../ui/use-draft.js';
import { WrongNote } from '../../ui/figure-style.js';

/** What a place that stays free is called. */
export function FreeName({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const { draft, props } = useDraft<string>({
    label,
    shown: value,
    read: (text) => (text.length > 200 ? { wrong: 'A name is at most 200 letters long.' } : { value: text.trim() }),
    onKeep: onChange,
  });
  return (
    <>
      <Name {...props} />
      <WrongNote draft={draft} />
    </>
  );
}

const Name = styled(TextInput)`
  width: 8em;
`;
