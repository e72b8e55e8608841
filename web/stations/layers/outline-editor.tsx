import type { Film } from '../../../core/shop/index.js';
import { nameOfPart } from '../../../core/stations/artwork/index.js';
import type { Around, Outline, OutlineEach } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { FillBelow } from './fill-below.js';
import { FilmChoice, Said } from './film-choice.js';

const EACH: readonly (readonly [OutlineEach, string])[] = [
  ['all', 'one for all of it'],
  ['part', 'one for each part of the design'],
  ['piece', 'one for each piece'],
];

interface Props {
  readonly outline: Outline;
  /** Films that an outline can be of, and those that it can go round. */
  readonly plain: readonly Film[];
  readonly films: readonly Film[];
}

const CORNERS: readonly (readonly [Outline['join'], string])[] = [
  ['round', 'round'],
  ['mitred', 'sharp (mitred)'],
  ['bevelled', 'cut off (bevelled)'],
];

/** One outline: in which film, how wide, round what. */
export function OutlineEditor({ outline, plain, films }: Props) {
  const { recipe, plan, shop, handle, unit } = useJobContext();
  const { outlines } = recipe.build;
  const set = (next: Partial<Outline>) =>
    handle.change({ build: { outlines: outlines.map((one) => (one.id === outline.id ? { ...one, ...next } : one)) } });
  const name = shop.films.find((film) => film.id === outline.filmId)?.name ?? outline.filmId;
  const ruled = plan?.rulings.find((ruling) => ruling.id === `build.outline.${outline.id}`);
  return (
    <Said>
      An outline in{' '}
      <FilmChoice
        label={`Film of the outline in ${name}`}
        films={plain}
        value={outline.filmId}
        onChange={(filmId) => set({ filmId })}
      />{' '}
      <FigureField
        label={`Width of the outline in ${name}`}
        mm={outline.widthMm ?? Number(ruled?.value ?? 0)}
        unit={unit}
        min={0.1}
        max={500}
        stepMm={0.5}
        onChange={(widthMm) => set({ widthMm })}
      />{' '}
      wide
      {outline.widthMm !== null && (
        <>
          {' ('}
          <WordButton onPress={() => set({ widthMm: null })}>let the app find the smallest</WordButton>)
        </>
      )}{' '}
      goes around{' '}
      <AroundChoice
        name={name}
        around={outline.around}
        films={films.filter((film) => film.id !== outline.filmId)}
        onChange={(around) => set({ around })}
      />
      ,{' '}
      <Picker
        label={`How many outlines in ${name}`}
        value={outline.each}
        options={EACH.map(([id, text]) => ({ id, text }))}
        onChange={(each) => set({ each: each as OutlineEach })}
      />
      , corners{' '}
      <Picker
        label={`Corners of the outline in ${name}`}
        value={outline.join}
        options={CORNERS.map(([id, text]) => ({ id, text }))}
        onChange={(join) => set({ join: join as Outline['join'] })}
      />
      ,{' '}
      <FillBelow
        label={`Holes of the outline in ${name}`}
        figureLabel={`Holes filled below, outline in ${name}`}
        belowMm={outline.fillBelowMm}
        words={['holes open', 'narrow holes filled', 'all holes filled']}
        before=" below "
        onChange={(fillBelowMm) => set({ fillBelowMm })}
      />
      .{' '}
      <WordButton
        aria-label={`Remove: the outline in ${name}`}
        onPress={() => handle.change({ build: { outlines: outlines.filter((other) => other.id !== outline.id) } })}
      >
        Remove
      </WordButton>
    </Said>
  );
}

interface AroundProps {
  readonly name: string;
  readonly around: Around | null;
  /** Those that it can go round. */
  readonly films: readonly Film[];
  readonly onChange: (around: Around | null) => void;
}

/** What an outline goes round: everything, or films or parts of the design that are chosen one by one. */
function AroundChoice({ name, around, films, onChange }: AroundProps) {
  const { recipe } = useJobContext();
  const can = [
    ...films.map((film) => ({ by: 'films' as const, id: film.id, name: film.name })),
    ...(recipe.artworks.length > 1
      ? recipe.artworks.map((part) => ({ by: 'parts' as const, id: part.id, name: nameOfPart(part, recipe.artworks) }))
      : []),
  ];
  const gone = around?.by === 'parts' ? 'a part that is no longer here' : 'a film that is no longer here';
  const nameOf = (id: string) => can.find((one) => one.by === around?.by && one.id === id)?.name ?? gone;
  const others = can.filter((one) => around === null || (one.by === around.by && !around.ids.includes(one.id)));
  const choose = (value: string) => {
    const chosen = can[Number(value)];
    onChange(chosen ? { by: chosen.by, ids: [...(around?.ids ?? []), chosen.id] } : null);
  };
  return (
    <>
      {around?.ids.map((id) => (
        <span key={id}>
          {nameOf(id)}{' '}
          <WordButton
            aria-label={`Not around ${nameOf(id)}: the outline in ${name}`}
            onPress={() =>
              onChange(around.ids.length === 1 ? null : { ...around, ids: around.ids.filter((other) => other !== id) })
            }
          >
            (not)
          </WordButton>{' '}
          and{' '}
        </span>
      ))}
      <Picker
        label={`Around what: the outline in ${name}`}
        value=""
        placeholder={around === null ? 'everything' : 'nothing else'}
        options={[
          ...(around === null ? [] : [{ id: 'all', text: 'everything' }]),
          ...others.map((one) => ({
            id: String(can.indexOf(one)),
            text: around === null ? `${one.name} only` : one.name,
          })),
        ]}
        onChange={choose}
      />
    </>
  );
}
