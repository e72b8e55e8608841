import styled from 'styled-components';
import { space, type } from '../tokens.js';

/** Whether what was put away is shown as well. */
export function RetiredToo({
  isOn,
  onChange,
  said = 'retired too',
}: {
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
  readonly said?: string;
}) {
  return (
    <Label>
      <input type="checkbox" checked={isOn} onChange={(event) => onChange(event.target.checked)} /> {said}
    </Label>
  );
}

const Label = styled.label`
  display: inline-flex;
  align-items: center;
  gap: ${space.xs};
  font-size: ${type.small};
  cursor: pointer;
  min-height: 30px;
`;
