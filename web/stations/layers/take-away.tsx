import { useState } from 'react';
import styled from 'styled-components';
import type { PrintFormat } from '../../../core/print/index.js';
import { useJobContext } from '../../job/job-context.js';
import { space, type } from '../../tokens.js';
import { LinkButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { Picker } from '../../ui/picker.js';

const FORMATS = [
  ['svg', 'SVG'],
  ['dxf', 'DXF'],
  ['pdf', 'PDF'],
] as const satisfies readonly (readonly [PrintFormat, string])[];

/** The build, or one layer of it, as a file at true size. */
export function TakeAway() {
  const { job, plan } = useJobContext();
  const [layer, setLayer] = useState('');
  const [format, setFormat] = useState<PrintFormat>('svg');
  const layers = plan?.layers ?? [];
  if (layers.length === 0) return null;
  const query = new URLSearchParams({ format, ...(layer ? { layer } : {}) });
  return (
    <section aria-label="Save the layers as files">
      <h3>As files at true size, with the marks</h3>
      <Row>
        <Picker
          label="Which layers"
          value={layer}
          options={[
            { id: '', text: 'the whole build' },
            ...layers.map(({ film }) => ({ id: film.id, text: `${film.name} alone` })),
          ]}
          onChange={setLayer}
        />
        <Choice label="Format" value={format} options={FORMATS} onChange={setFormat} />
        <LinkButton href={`/api/jobs/${job.id}/build?${query}`} download>
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
