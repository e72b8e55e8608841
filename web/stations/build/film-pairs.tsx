import type { PairDecision } from '../../../core/stations/build/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Select } from '../../ui/plain-fields.js';
import { Said } from './film-choice.js';
import { WayOptions } from './ways-of-building.js';

/** How one film meets all others, decided once instead of pair by pair. */
export function FilmPairs() {
  const { recipe, plan, shop, handle, unit } = useJobContext();
  const { filmPairs } = recipe.build;
  const films = plan?.layers?.map(({ film }) => film) ?? [];
  const set = (next: Readonly<Record<string, PairDecision>>) => handle.change({ build: { filmPairs: next } });
  const free = films.filter(({ id }) => !filmPairs[id]);
  return (
    <>
      {Object.entries(filmPairs).map(([id, decision]) => {
        const name = shop.films.find((film) => film.id === id)?.name ?? 'A film that is no longer here';
        return (
          <Said key={id}>
            {name} and all that it meets:{' '}
            <Select aria-label={`Way of building all pairs of ${name}`} value={decision.school ?? 'trapped'} onChange={(event) => set({ ...filmPairs, [id]: { ...decision, school: event.target.value as PairDecision['school'] } })}>
              <WayOptions />
            </Select>
            {decision.school === 'trapped' && (
              <>
                {' '}
                by <FigureField label={`Trap of all pairs of ${name}`} mm={decision.trapMm ?? plan?.trapMm ?? 0} unit={unit} max={20} stepMm={0.05} onChange={(trapMm) => set({ ...filmPairs, [id]: { ...decision, trapMm } })} />
              </>
            )}
            . <WordButton aria-label={`Let the app decide all pairs of ${name}`} onPress={() => set(Object.fromEntries(Object.entries(filmPairs).filter(([key]) => key !== id)))}>Let the app decide</WordButton>
          </Said>
        );
      })}
      {free.length > 0 && (
        <Said>
          <Select aria-label="Decide for one film and all that it meets" value="" onChange={(event) => set({ ...filmPairs, [event.target.value]: { school: 'inlay', trapMm: null } })}>
            <option value="">Decide for one film and all that it meets …</option>
            {free.map((film) => (
              <option key={film.id} value={film.id}>
                {film.name}
              </option>
            ))}
          </Select>
        </Said>
      )}
    </>
  );
}
