import { useJobContext } from '../../job/job-context.js';

/** The layers' order as film ids from the surface upwards, and ways to change it. */
export function useLayerOrder(): { readonly ids: readonly string[]; readonly save: (ids: readonly string[]) => void; readonly move: (id: string, by: number) => void } {
  const { plan, handle } = useJobContext();
  const ids = plan?.layers?.map((layer) => layer.film.id) ?? [];
  const save = (order: readonly string[]) => handle.change({ build: { order } });
  const move = (id: string, by: number) => {
    const from = ids.indexOf(id);
    const to = Math.min(ids.length - 1, Math.max(0, from + by));
    if (from < 0 || to === from) return;
    const rest = ids.filter((other) => other !== id);
    save([...rest.slice(0, to), id, ...rest.slice(to)]);
  };
  return { ids, save, move };
}
