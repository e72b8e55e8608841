import { useQueryClient } from '@tanstack/react-query';
import { sourcesOf } from '../../../core/stations/artwork/index.js';
import { artworkQuery } from '../../api/artwork-picture.js';
import { useJobContext } from '../../job/job-context.js';

/** The job with the files it is made of, for what the worker is asked about it. */
export function usePlanInput() {
  const { job, recipe, shop } = useJobContext();
  const client = useQueryClient();
  return async () => {
    const sources = new Map<string, Uint8Array>();
    for (const source of recipe.artworks.flatMap(sourcesOf))
      sources.set(source.id, await client.ensureQueryData(artworkQuery(source.id)));
    return { jobId: job.id, recipe, shop, sources, taken: {}, lies: {} };
  };
}
