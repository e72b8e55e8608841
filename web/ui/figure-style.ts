import styled from 'styled-components';
import { colour, radius, type } from '../tokens.js';

/** A figure that can be edited where it stands in its sentence. */
export const FigureInput = styled.input`
  padding: 1px 4px; min-height: 24px; text-align: right; border: 0; border-bottom: 1.5px dashed ${colour.accent}; border-radius: ${radius.s} ${radius.s} 0 0;
  background: ${colour.accentWash}; color: ${colour.ink}; font: 650 1em/1.3 ${type.text}; font-variant-numeric: tabular-nums;
  &[aria-invalid='true'] { border-bottom: 2px solid ${colour.bad}; background: ${colour.badWash}; }
`;

/** Why what stands in a field cannot be taken. */
export const Wrong = styled.span`display: block; color: ${colour.bad}; font-size: ${type.small}; white-space: normal;`;
