import { useState } from 'react';
import type { PairDecision } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { Said } from './film-choice.js';
import { wayOptions } from './ways-of-building.js';

/** How one film meets all others, decided once instead of pair by pair. */
export function FilmPairs() {
  const { recipe, plan, shop, handle, unit } = useJobContext();
  const { filmPairs } = recipe.build;
  const films = plan?.layers?.map(({ film }) => film) ?? [];
  const set = (next: Readonly<Record<string, PairDecision>>) => handle.change({ build: { filmPairs: next } });
  const free = films.filter(({ id }) => !filmPairs[id]);
  // Nothing changes before it is said how the film should meet the others.
  const [picked, setPicked] = useState<string | null>(null);
  const asked = free.find(({ id }) => id === picked);
  return (
    <>
      {Object.entries(filmPairs).map(([id, decision]) => {
        const name = shop.films.find((film) => film.id === id)?.name ?? 'A film that is no longer here';
        return (
          <Said key={id}>
            {name} and all that it meets:{' '}
            <Picker
              label={`Way of building all pairs of ${name}`}
              value={decision.school ?? 'trapped'}
              options={wayOptions()}
              onChange={(way) => set({ ...filmPairs, [id]: { ...decision, school: way as PairDecision['school'] } })}
            />
            {decision.school === 'trapped' && (
              <>
                {' '}
                by{' '}
                <FigureField
                  label={`Trap of all pairs of ${name}`}
                  mm={decision.trapMm ?? plan?.trapMm ?? 0}
                  unit={unit}
                  max={20}
                  stepMm={0.05}
                  onChange={(trapMm) => set({ ...filmPairs, [id]: { ...decision, trapMm } })}
                />
              </>
            )}
            .{' '}
            <WordButton
              aria-label={`Let the app decide all pairs of ${name}`}
              onPress={() => set(Object.fromEntries(Object.entries(filmPairs).filter(([key]) => key !== id)))}
            >
              Let the app decide
            </WordButton>
          </Said>
        );
      })}
      {asked && (
        <Said>
          {asked.name} and all that it meets:{' '}
          <Picker
            label={`How ${asked.name} should meet all others`}
            value=""
            placeholder="choose how …"
            options={wayOptions()}
            onChange={(way) => {
              setPicked(null);
              set({ ...filmPairs, [asked.id]: { school: way as PairDecision['school'], trapMm: null } });
            }}
          />
          . <WordButton onPress={() => setPicked(null)}>Leave it as it is</WordButton>
        </Said>
      )}
      {!asked && free.length > 0 && (
        <Said>
          <Picker
            label="Decide for one film and all that it meets"
            value=""
            placeholder="Decide for one film and all that it meets …"
            options={free.map((film) => ({ id: film.id, text: film.name }))}
            onChange={setPicked}
          />
        </Said>
      )}
    </>
  );
}
