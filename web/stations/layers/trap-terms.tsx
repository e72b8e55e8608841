import styled from 'styled-components';
import type { Laying } from '../../../core/engines/layers/index.js';
import { drawBackMm, wayOf } from '../../../core/shop/index.js';
import { carefulMm } from '../../../core/stations/layers/index.js';
import { formatLength } from '../../../core/words/index.js';
import { ApiProblem } from '../../api/client.js';
import { useMakerAtWork } from '../../api/maker.js';
import { useJobContext } from '../../job/job-context.js';
import { useShopWrites, type RecordWrite } from '../../plan/shop-writes.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { useNotify } from '../../ui/notices.js';
import { PercentField } from '../../ui/percent-field.js';
import { Picker } from '../../ui/picker.js';
import { MarkDistance } from '../../job/mark-distance.js';

const LAYINGS: readonly (readonly [Laying, string])[] = [
  ['dry', 'dry'],
  ['wet', 'wet'],
  ['tape', 'on tape'],
];

/** What the trap formula is fed with, each figure editable where it belongs: the hand with the job, draw-back and shrink with their film, truth with the cutter. */
export function TrapTerms() {
  const { plan, recipe, shop, handle, unit } = useJobContext();
  const writes = useShopWrites();
  const notify = useNotify();
  const atWork = useMakerAtWork();
  // As the shop has them: the plan may lag behind.
  const films = plan?.layers?.map((layer) => shop.films.find(({ id }) => id === layer.film.id) ?? layer.film) ?? [];
  const { placementErrorMm: at, markDistanceMm: distance } = plan?.pairs?.[0]?.terms ?? {};
  const { lives } = recipe.build;
  const maker = shop.makers.find(({ id }) => id === atWork);
  const own = maker
    ? { name: maker.name, mm: recipe.preparation.marks ? maker.placementWithMarksMm : maker.placementByEyeMm }
    : null;
  const save = (change: RecordWrite) =>
    writes
      .save([change], shop.revision)
      .catch((error: unknown) => notify(error instanceof ApiProblem ? error.message : 'That was not saved.'));
  return (
    <details>
      <summary>Figures behind the trap</summary>
      <Terms>
        <li>
          You lay pieces of 100 to 300 mm within{' '}
          <FigureField
            label="Placement error"
            mm={carefulMm(recipe.build, recipe.preparation.marks)}
            unit={unit}
            max={5}
            stepMm={0.05}
            onChange={(placementErrorMm) => handle.change({ build: { placementErrorMm } })}
          />{' '}
          of their place{at === undefined ? '' : `, and this work within ${formatLength(at, unit)} ${unit}`}.{' '}
          {own !== null && own.mm !== carefulMm(recipe.build, recipe.preparation.marks) && (
            <WordButton onPress={() => handle.change({ build: { placementErrorMm: own.mm } })}>
              Take {own.name}’s {formatLength(own.mm, unit)}
            </WordButton>
          )}{' '}
          {recipe.build.placementErrorMm !== null && (
            <WordButton onPress={() => handle.change({ build: { placementErrorMm: null } })}>
              Let the app decide
            </WordButton>
          )}
        </li>
        <li>
          It is laid{' '}
          <Picker
            label="How it is laid"
            value={recipe.assembly.way}
            options={LAYINGS.map(([id, text]) => ({ id, text }))}
            onChange={(way) => handle.change({ assembly: { way: way as Laying } })}
          />
        </li>
        {films.map((film) =>
          wayOf(film) === 'press' ? (
            <li key={film.id}>
              {film.name} shrinks by{' '}
              <PercentField
                label={`Shrink of ${film.name}, %`}
                value={film.shrinkPct}
                max={5}
                onChange={(shrinkPct) => void save({ kind: 'films', value: { ...film, shrinkPct } })}
              />{' '}
              % under the press, in every job.
            </li>
          ) : (
            <li key={film.id}>
              Edges of {film.name} draw back by{' '}
              <FigureField
                label={`Draw-back of ${film.name}`}
                mm={drawBackMm(film, lives)}
                unit={unit}
                max={2}
                stepMm={0.01}
                onChange={(mm) =>
                  void save({
                    kind: 'films',
                    value: { ...film, ...(lives === 'indoors' ? { drawBackIndoorsMm: mm } : { drawBackSunMm: mm }) },
                  })
                }
              />{' '}
              {lives === 'indoors' ? 'indoors' : 'in the sun'}, in every job.
            </li>
          ),
        )}
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
          <FigureField
            label="Repeatability of the cutter"
            mm={shop.cutter.repeatabilityMm}
            unit={unit}
            max={1}
            stepMm={0.01}
            onChange={(repeatabilityMm) =>
              void save({
                kind: 'cutters',
                value: { ...shop.cutters.find(({ id }) => id === shop.cutter.id)!, repeatabilityMm },
              })
            }
          />
          , in every job.
        </li>
      </Terms>
    </details>
  );
}

const Terms = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.xs};
  font-size: ${type.small};
  color: ${colour.quiet};
  padding-top: ${space.xs};
`;
