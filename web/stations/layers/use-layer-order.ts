import { useJobContext } from '../../job/job-context.js';

/** The layers' order as film ids from the surface upwards, as it was last decided, and ways to change it. */
export function useLayerOrder(): {
  readonly ids: readonly string[];
  readonly save: (ids: readonly string[]) => void;
  readonly move: (id: string, by: number) => void;
} {
  const { plan, recipe, handle } = useJobContext();
  const planned = plan?.layers?.map((layer) => layer.film.id) ?? [];
  const save = (order: readonly string[]) => handle.change({ build: { order } });
  const move = (id: string, by: number) =>
    handle.change(({ build }) => {
      const ids = decided(build.order, planned);
      const from = ids.indexOf(id);
      const to = Math.min(ids.length - 1, Math.max(0, from + by));
      const rest = ids.filter((other) => other !== id);
      return { build: { order: [...rest.slice(0, to), id, ...rest.slice(to)] } };
    });
  return { ids: decided(recipe.build.order, planned), save, move };
}

/** The decided order of the layers that there are; the planner may lay some of them higher, and says why. */
function decided(order: readonly string[], planned: readonly string[]): readonly string[] {
  const place = new Map(order.map((id, i) => [id, i]));
  return [...planned].sort((a, b) => (place.get(a) ?? order.length) - (place.get(b) ?? order.length));
}
