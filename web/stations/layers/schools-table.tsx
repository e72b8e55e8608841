import styled from 'styled-components';
import type { SchoolFigures, TrialWish } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useAsked } from '../../job/use-asked.js';
import { colour, radius, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Table } from '../../ui/plain-fields.js';
import { sayArea, sayDuration } from '../../../core/words/index.js';

const NAMES = { overlay: 'Overlay', inlay: 'Inlay', trapped: 'Trapped inlay' } as const;

const WISH: TrialWish = { placements: 1000, seed: 1, readingMm: 1000, risk: 0.01 };

/** The job built in all three schools: a small table to decide by. */
export function SchoolsTable() {
  const { recipe, handle } = useJobContext();
  const rows = useAsked<readonly SchoolFigures[] | null>((api, plan) => api.schools(plan, WISH), null, '');
  if (!rows) return <Panel role="status">Building it in three ways …</Panel>;
  return (
    <Panel aria-label="The three ways side by side">
      <Table>
        <thead>
          <tr>
            <th scope="col">School</th>
            <th scope="col" className="figure">
              Thickest
            </th>
            <th scope="col" className="figure">
              Edges that must meet exactly
            </th>
            <th scope="col" className="figure">
              Pieces and holes to weed
            </th>
            <th scope="col" className="figure">
              Film on the job
            </th>
            <th scope="col" className="figure">
              Gap seen from 1 m
            </th>
            <th scope="col" className="figure">
              Cutting
            </th>
            <th scope="col">
              <span className="unseen">Choose</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.school} data-now={row.school === recipe.build.school || undefined}>
              <th scope="row">{NAMES[row.school]}</th>
              <td className="figure">{row.thickestUm} µm</td>
              <td className="figure">{row.exactEdgesMm < 1 ? 'none' : `${(row.exactEdgesMm / 1000).toFixed(2)} m`}</td>
              <td className="figure">{row.weedPieces}</td>
              <td className="figure">{sayArea(row.filmMm2)}</td>
              <td className="figure">{(100 * row.risk).toFixed(1)} of 100</td>
              <td className="figure">{sayDuration(row.cutSeconds)}</td>
              <td>
                {row.school === recipe.build.school ? (
                  'as it is'
                ) : (
                  <WordButton
                    aria-label={`Use this: ${NAMES[row.school].toLowerCase()}`}
                    onPress={() => handle.change({ build: { school: row.school } })}
                  >
                    Use this
                  </WordButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Panel>
  );
}

const Panel = styled.section`
  flex: none;
  min-height: 168px;
  padding: ${space.s} ${space.m};
  border: 1px solid ${colour.line};
  border-radius: ${radius.l};
  background: ${colour.docket};
  font-size: ${type.small};
  tr[data-now] th,
  tr[data-now] td {
    background: ${colour.accentWash};
    color: ${colour.ink};
  }
`;
