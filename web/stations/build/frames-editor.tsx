import styled from 'styled-components';
import type { Film } from '../../../core/shop/index.js';
import { ALL_HOLES_MM, type KnockOut, type Outline } from '../../../core/stations/build/index.js';
import { useJobContext } from '../../job/job-context.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Select } from '../../ui/plain-fields.js';

/** What is made of the artwork besides itself: outlines round it, shapes knocked out, a film laid beneath. */
export function FramesEditor() {
  const { recipe, plan, shop, handle, unit } = useJobContext();
  const { outlines, knockOuts, blockOut, contour } = recipe.build;
  const films = plan?.layers?.map((layer) => layer.film) ?? [];
  const change = handle.change;
  const plain = shop.films.filter((film) => film.finish !== 'translucent');
  const setOutline = (id: string, next: Partial<Outline>) => change({ build: { outlines: outlines.map((outline) => (outline.id === id ? { ...outline, ...next } : outline)) } });
  const setKnockOut = (at: number, next: Partial<KnockOut>) => change({ build: { knockOuts: knockOuts.map((one, i) => (i === at ? { ...one, ...next } : one)) } });
  const freeFilm = shop.films.find((film) => film.finish !== 'textured' && film.finish !== 'translucent' && !films.some((used) => used.id === film.id)) ?? shop.films[0]!;
  return (
    <section aria-label="Outlines, cut-outs and backing film">
      <h3>Outlines, cut-outs, backing film</h3>
      {outlines.map((outline) => {
        const name = shop.films.find((film) => film.id === outline.filmId)?.name ?? outline.filmId;
        const ruled = plan?.rulings.find((ruling) => ruling.id === `build.outline.${outline.id}`);
        return (
          <Said key={outline.id}>
            An outline in <FilmChoice label={`Film of the outline in ${name}`} films={plain} value={outline.filmId} onChange={(filmId) => setOutline(outline.id, { filmId })} />{' '}
            <FigureField label={`Width of the outline in ${name}`} mm={outline.widthMm ?? Number(ruled?.value ?? 0)} unit={unit} min={0.1} max={500} stepMm={0.5} onChange={(widthMm) => setOutline(outline.id, { widthMm })} /> wide
            {outline.widthMm !== null && (
              <>
                {' ('}
                <WordButton onPress={() => setOutline(outline.id, { widthMm: null })}>let the app find the smallest</WordButton>)
              </>
            )}{' '}
            goes around <Around name={name} around={outline.around} films={films.filter((film) => film.id !== outline.filmId)} onChange={(around) => setOutline(outline.id, { around })} />, corners{' '}
            <Select aria-label={`Corners of the outline in ${name}`} value={outline.join} onChange={(event) => setOutline(outline.id, { join: event.target.value as Outline['join'] })}>
              <option value="round">round</option>
              <option value="mitred">sharp (mitred)</option>
              <option value="bevelled">cut off (bevelled)</option>
            </Select>
            ,{' '}
            <Select
              aria-label={`Holes of the outline in ${name}`}
              value={outline.fillBelowMm === 0 ? 'open' : outline.fillBelowMm >= ALL_HOLES_MM ? 'filled' : 'some'}
              onChange={(event) => setOutline(outline.id, { fillBelowMm: { open: 0, filled: ALL_HOLES_MM, some: 5 }[event.target.value as 'open' | 'filled' | 'some'] })}
            >
              <option value="open">holes open</option>
              <option value="some">narrow holes filled</option>
              <option value="filled">all holes filled</option>
            </Select>
            {outline.fillBelowMm > 0 && outline.fillBelowMm < ALL_HOLES_MM && (
              <>
                {' '}
                below <FigureField label={`Holes filled below, outline in ${name}`} mm={outline.fillBelowMm} unit={unit} min={0.1} stepMm={0.5} onChange={(fillBelowMm) => setOutline(outline.id, { fillBelowMm })} />
              </>
            )}
            . <WordButton aria-label={`Remove: the outline in ${name}`} onPress={() => change({ build: { outlines: outlines.filter((other) => other !== outline) } })}>Remove</WordButton>
          </Said>
        );
      })}
      {knockOuts.map((one, at) => (
        <Said key={at}>
          <FilmChoice label={`Shapes cut out, ${at + 1}`} films={films} value={one.shapeFilmId} onChange={(shapeFilmId) => setKnockOut(at, { shapeFilmId })} /> is cut out of{' '}
          <FilmChoice label={`Cut out of, ${at + 1}`} films={films} value={one.baseFilmId} onChange={(baseFilmId) => setKnockOut(at, { baseFilmId })} /> with{' '}
          <FigureField label={`Clearance, ${at + 1}`} mm={one.clearanceMm} unit={unit} max={50} stepMm={0.5} onChange={(clearanceMm) => setKnockOut(at, { clearanceMm })} /> free all around.{' '}
          What lies inside its shapes and between them{' '}
          <Select aria-label={`Inside and between, ${at + 1}`} value={one.fillBelowMm === 0 ? 'open' : one.fillBelowMm >= ALL_HOLES_MM ? 'filled' : 'some'} onChange={(event) => setKnockOut(at, { fillBelowMm: { open: 0, filled: ALL_HOLES_MM, some: 5 }[event.target.value as 'open' | 'filled' | 'some'] })}>
            <option value="open">stays</option>
            <option value="some">goes where it is narrow</option>
            <option value="filled">goes too, all of it</option>
          </Select>
          {one.fillBelowMm > 0 && one.fillBelowMm < ALL_HOLES_MM && (
            <>
              , below <FigureField label={`Narrower than this goes, ${at + 1}`} mm={one.fillBelowMm} unit={unit} min={0.1} stepMm={0.5} onChange={(fillBelowMm) => setKnockOut(at, { fillBelowMm })} />
            </>
          )}
          ; pieces that come off are dropped{' '}
          <Select aria-label={`Pieces that come off, ${at + 1}`} value={one.dropBelowMm2 === null ? 'weed' : 'size'} onChange={(event) => setKnockOut(at, { dropBelowMm2: event.target.value === 'weed' ? null : 25 })}>
            <option value="weed">where they cannot be weeded</option>
            <option value="size">where they are small</option>
          </Select>
          {one.dropBelowMm2 !== null && (
            <>
              , below a square of <FigureField label={`Side of the square below which pieces are dropped, ${at + 1}`} mm={Math.sqrt(one.dropBelowMm2)} unit={unit} min={0.1} max={1000} stepMm={0.5} onChange={(side) => setKnockOut(at, { dropBelowMm2: Number((side * side).toFixed(4)) })} />
            </>
          )}
          . <WordButton aria-label={`Remove: knock-out ${at + 1}`} onPress={() => change({ build: { knockOuts: knockOuts.filter((other) => other !== one) } })}>Remove</WordButton>
        </Said>
      ))}
      {blockOut && (
        <Said>
          <FilmChoice label="Film of the backing" films={plain} value={blockOut.filmId} onChange={(filmId) => change({ build: { blockOut: { ...blockOut, filmId } } })} /> lies under{' '}
          <FilmChoice label="Film that is backed" films={films.filter((film) => film.id !== blockOut.filmId)} value={blockOut.underFilmId} onChange={(underFilmId) => change({ build: { blockOut: { ...blockOut, underFilmId } } })} />,{' '}
          <FigureField label="Backing inside the edge" mm={blockOut.insetMm} unit={unit} max={50} stepMm={0.1} onChange={(insetMm) => change({ build: { blockOut: { ...blockOut, insetMm } } })} /> within its edge.{' '}
          <WordButton onPress={() => change({ build: { blockOut: null } })}>Remove the backing</WordButton>
        </Said>
      )}
      {contour && (
        <Said>
          The artwork is printed on <FilmChoice label="Film that is printed on" films={plain} value={contour.filmId} onChange={(filmId) => change({ build: { contour: { ...contour, filmId } } })} /> and cut{' '}
          <FigureField label="Cut line moved by" mm={contour.byMm} unit={unit} max={50} stepMm={0.1} onChange={(byMm) => change({ build: { contour: { ...contour, byMm } } })} />{' '}
          <Select aria-label="Side of the cut line" value={contour.side} onChange={(event) => change({ build: { contour: { ...contour, side: event.target.value as 'inside' | 'outside' } } })}>
            <option value="inside">inside</option>
            <option value="outside">outside</option>
          </Select>{' '}
          its edge. <WordButton onPress={() => change({ build: { contour: null } })}>Cut it from film instead</WordButton>
        </Said>
      )}
      <Adds>
        <WordButton onPress={() => change({ build: { outlines: [...outlines, { id: crypto.randomUUID(), filmId: freeFilm.id, around: null, widthMm: null, join: 'round', fillBelowMm: 0 }] } })}>Add an outline</WordButton>
        {films.length > 1 && <WordButton onPress={() => change({ build: { knockOuts: [...knockOuts, { shapeFilmId: films.at(-1)!.id, baseFilmId: films[0]!.id, clearanceMm: 1, fillBelowMm: 0, dropBelowMm2: null }] } })}>Cut one film out of another</WordButton>}
        {!contour && <WordButton onPress={() => change({ build: { contour: { filmId: films[0]?.id ?? freeFilm.id, side: 'inside', byMm: Math.max(0.2, 2 * shop.cutter.repeatabilityMm) } } })}>It is printed: only cut around it</WordButton>}
        {!blockOut && films.length > 0 && <WordButton onPress={() => change({ build: { blockOut: { filmId: freeFilm.id, underFilmId: films.at(-1)!.id, insetMm: 0.3 } } })}>Put a backing under a film</WordButton>}
      </Adds>
    </section>
  );
}

interface AroundProps {
  readonly name: string;
  readonly around: Outline['around'];
  /** Those that it can go round. */
  readonly films: readonly Film[];
  readonly onChange: (around: Outline['around']) => void;
}

/** What an outline goes round: everything, or films that are chosen one by one. */
function Around({ name, around, films, onChange }: AroundProps) {
  const nameOf = (id: string) => films.find((film) => film.id === id)?.name ?? 'a film that is no longer here';
  const others = films.filter((film) => !around?.includes(film.id));
  return (
    <>
      {around?.map((id) => (
        <span key={id}>
          {nameOf(id)} <WordButton aria-label={`Not around ${nameOf(id)}: the outline in ${name}`} onPress={() => onChange(around.length === 1 ? null : around.filter((other) => other !== id))}>(not)</WordButton>{' '}
          and{' '}
        </span>
      ))}
      <Select aria-label={`Around what: the outline in ${name}`} value="" onChange={(event) => onChange(event.target.value === 'all' ? null : [...(around ?? []), event.target.value])}>
        <option value="">{around === null ? 'everything' : 'no other film'}</option>
        {around !== null && <option value="all">everything</option>}
        {others.map((film) => (
          <option key={film.id} value={film.id}>
            {around === null ? `${film.name} only` : film.name}
          </option>
        ))}
      </Select>
    </>
  );
}

function FilmChoice({ label, films, value, onChange }: { readonly label: string; readonly films: readonly Film[]; readonly value: string; readonly onChange: (id: string) => void }) {
  return (
    <Select aria-label={label} value={value} onChange={(event) => onChange(event.target.value)}>
      {!films.some((film) => film.id === value) && <option value={value}>a film that is no longer here</option>}
      {films.map((film) => (
        <option key={film.id} value={film.id}>
          {film.name}
        </option>
      ))}
    </Select>
  );
}

const Said = styled.p`font-size: ${type.small}; line-height: 2.1; select { min-height: 26px; padding: 1px 4px; }`;
const Adds = styled.p`display: flex; flex-wrap: wrap; gap: ${space.m}; font-size: ${type.small};`;
