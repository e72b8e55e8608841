import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

const field = `
  min-height: 32px; padding: 4px ${space.s}; border: 1px solid ${colour.line}; border-radius: ${radius.m};
  background: ${colour.raised}; color: ${colour.ink}; font-size: ${type.small};
`;

export const TextInput = styled.input`
  ${field}
`;
export const TextArea = styled.textarea`
  ${field} width: 100%;
  min-height: 64px;
  resize: vertical;
`;

/** A label above its field. */
export const Labelled = styled.label`
  display: grid;
  gap: ${space.xs};
  font-size: ${type.small};
  color: ${colour.quiet};
`;

export const Small = styled.p`
  font-size: ${type.small};
  color: ${colour.quiet};
`;

export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: ${type.small};
  font-variant-numeric: tabular-nums;
  th {
    text-align: left;
    font-weight: 550;
    color: ${colour.quiet};
  }
  th,
  td {
    padding: 6px 8px 6px 0;
    border-bottom: 1px solid ${colour.faint};
    vertical-align: top;
  }
  td.figure,
  th.figure {
    text-align: right;
  }
`;
