import styled from 'styled-components';
import type { LengthUnit } from '../../core/words/index.js';
import { colour } from '../tokens.js';
import { MM_PER_UNIT } from './rulers.js';

const LENGTHS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000];

/** A bar of a round length, near 90 px. */
export function ScaleBar({ zoom, unit }: { readonly zoom: number; readonly unit: LengthUnit }) {
  const pxPerUnit = zoom * MM_PER_UNIT[unit];
  const length = LENGTHS.findLast((l) => l * pxPerUnit <= 110) ?? LENGTHS[0]!;
  return (
    <Row>
      <Bar style={{ width: length * pxPerUnit }} />
      {length} {unit}
    </Row>
  );
}

const Row = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;
const Bar = styled.span`
  display: inline-block;
  height: 7px;
  border: solid ${colour.ink};
  border-width: 0 1.5px 1.5px;
`;
