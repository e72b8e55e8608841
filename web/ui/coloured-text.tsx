import styled from 'styled-components';
import { colour, type } from '../tokens.js';
import { Swatch } from './swatch.js';

/** A colour as sentences name it: "strong red (#b3262b)". */
const IN_SENTENCE = /\((#[0-9a-f]{6})\)/;

/** A sentence in which every colour is shown beside its name. */
export function ColouredText({ text }: { readonly text: string }) {
  return text.split(IN_SENTENCE).map((part, i) =>
    i % 2 === 0 ? (
      part
    ) : (
      <Shown key={i}>
        <Swatch film={{ colour: part, finish: 'matt' }} size={14} /> {part}
      </Shown>
    ),
  );
}

const Shown = styled.span`
  white-space: nowrap;
  font-size: ${type.small};
  color: ${colour.quiet};
  > span {
    vertical-align: -2px;
  }
`;
