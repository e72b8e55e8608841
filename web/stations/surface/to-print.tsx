import { useState } from 'react';
import styled from 'styled-components';
import type { JobPrint, PrintOn } from '../../../core/plan/print-job.js';
import { useJobContext } from '../../job/job-context.js';
import { space, type } from '../../tokens.js';
import { LinkButton } from '../../ui/button.js';
import { Picker } from '../../ui/picker.js';

const ON = [
  ['a4', 'on A4 sheets'],
  ['a3', 'on A3 sheets'],
  ['pdf', 'PDF, one page'],
  ['svg', 'SVG'],
  ['dxf', 'DXF'],
] as const satisfies readonly (readonly [PrintOn, string])[];

/** The pattern at full size, to be taped to the surface; for round things also what is wrapped round them. */
export function ToPrint({ isRound }: { readonly isRound: boolean }) {
  const { job } = useJobContext();
  const [what, setWhat] = useState<Exclude<JobPrint, 'weed-map'>>('pattern');
  const [on, setOn] = useState<PrintOn>('a4');
  const shown = isRound ? what : 'pattern';
  return (
    <section aria-label="Print it at full size">
      <h3>On paper at full size, before film is spent</h3>
      <Row>
        {isRound && (
          <Picker
            label="What to print"
            value={shown}
            options={[
              { id: 'pattern', text: 'the pattern' },
              { id: 'wrap', text: 'the wrap template' },
            ]}
            onChange={(id) => setWhat(id === 'wrap' ? 'wrap' : 'pattern')}
          />
        )}
        <Picker
          label="On what"
          value={on}
          options={ON.map(([id, text]) => ({ id, text }))}
          onChange={(id) => setOn(ON.find(([one]) => one === id)![0])}
        />
        <LinkButton href={`/api/jobs/${job.id}/print/${shown}?on=${on}`} download>
          Download
        </LinkButton>
      </Row>
    </section>
  );
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
  align-items: center;
  font-size: ${type.small};
`;
