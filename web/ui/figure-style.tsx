import styled from 'styled-components';
import { colour, radius, type } from '../tokens.js';

/** A figure that can be edited where it stands in its sentence. */
export const FigureInput = styled.input`
  padding: 1px 4px;
  min-height: 24px;
  text-align: right;
  border: 0;
  border-bottom: 1.5px dashed ${colour.accent};
  border-radius: ${radius.s} ${radius.s} 0 0;
  background: ${colour.accentWash};
  color: ${colour.ink};
  font: 650 1em/1.3 ${type.text};
  font-variant-numeric: tabular-nums;
  &[aria-invalid='true'] {
    border-bottom: 2px solid ${colour.bad};
    background: ${colour.badWash};
  }
`;

interface WrongNoteProps {
  readonly draft: { readonly wrong: string | null; readonly wrongId: string };
}

/** Why what stands in a field cannot be taken. */
export function WrongNote({ draft }: WrongNoteProps) {
  if (draft.wrong === null) return null;
  return (
    <Wrong id={draft.wrongId} role="alert">
      {draft.wrong}
    </Wrong>
  );
}

const Wrong = styled.span`
  display: block;
  color: ${colour.bad};
  font-size: ${type.small};
  white-space: normal;
`;
