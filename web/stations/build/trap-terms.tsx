import { useQueryClient } from '@tanstack/react-query';
import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import { ApiProblem, ask } from '../../api/client.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { FigureField } from '../../ui/figure-field.js';
import { useNotify } from '../../ui/notices.js';
import { PercentField } from '../../ui/percent-field.js';
import { MarkDistance } from '../../job/mark-distance.js';

/** What the trap formula is fed with, each figure editable where it belongs: the hand with the job, shrink with its film, truth with the cutter. */
export function TrapTerms() {
  const { plan, recipe, shop, handle, unit } = useJobContext();
  const client = useQueryClient();
  const notify = useNotify();
  const films = plan?.layers?.map((layer) => layer.film) ?? [];
  const distance = plan?.pairs?.[0]?.terms.markDistanceMm;
  const set = (path: string, json: object) =>
    ask(path, { method: 'PATCH', json: { ...json, revision: shop.revision } }).then(
      () => client.invalidateQueries({ queryKey: ['shop'] }),
      (error: unknown) => {
        notify(error instanceof ApiProblem ? error.message : 'That was not saved.');
        // Someone else's figures, to be looked at before it is tried again.
        void client.invalidateQueries({ queryKey: ['shop'] });
      },
    );
  return (
    <details>
      <summary>Figures behind the trap</summary>
      <Terms>
        <li>
          You lay a layer within <FigureField label="Placement error" mm={recipe.build.placementErrorMm} unit={unit} max={5} stepMm={0.05} onChange={(placementErrorMm) => handle.change({ build: { placementErrorMm } })} /> of its place.
        </li>
        {films.map((film) => (
          <li key={film.id}>
            {film.name} shrinks by <PercentField label={`Shrink of ${film.name}, %`} value={film.shrinkPct} max={5} onChange={(shrinkPct) => void set(`/api/shop/films/${film.id}`, { shrinkPct })} /> %, in every job.
          </li>
        ))}
        {distance !== undefined && (
          <li>
            {recipe.preparation.marks ? (
              <>
                The marks are <MarkDistance mm={distance} /> apart.
              </>
            ) : (
              `Laid by eye: the shared edge is ${formatLength(distance, unit)} ${unit} long.`
            )}
          </li>
        )}
        <li>
          The cutter returns to a point within{' '}
          <FigureField label="Repeatability of the cutter" mm={shop.cutter.repeatabilityMm} unit={unit} max={1} stepMm={0.01} onChange={(repeatabilityMm) => void set('/api/shop/cutter', { repeatabilityMm })} />, in every job.
        </li>
      </Terms>
    </details>
  );
}

const Terms = styled.ul`list-style: none; display: grid; gap: ${space.xs}; font-size: ${type.small}; color: ${colour.quiet}; padding-top: ${space.xs};`;
