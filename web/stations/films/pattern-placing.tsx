import { useRef } from 'react';
import styled from 'styled-components';
import type { Film } from '../../../core/shop/index.js';
import type { PatternPlace } from '../../../core/stations/films/index.js';
import { useJobContext } from '../../job/job-context.js';
import type { Camera } from '../../light-table/camera.js';
import { showPatternAt } from '../../light-table/film-fill.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';

const ORIGIN: PatternPlace = { xMm: 0, yMm: 0 };

/** A pattern that is moved by a whole repeat looks the same: the nearest place that does. */
function withinRepeat({ xMm, yMm }: PatternPlace, { repeatMm, ratio }: NonNullable<Film['pattern']>): PatternPlace {
  const wrap = (at: number, every: number) => Number((((at % every) + every) % every).toFixed(2));
  return { xMm: wrap(xMm, repeatMm), yMm: wrap(yMm, repeatMm * ratio) };
}

function usePlacing(film: Film) {
  const { recipe, handle } = useJobContext();
  const { patterns } = recipe.films;
  const place = patterns[film.id] ?? ORIGIN;
  const put = (next: PatternPlace) =>
    handle.change({ films: { patterns: { ...patterns, [film.id]: withinRepeat(next, film.pattern!) } } });
  const letApp = () =>
    handle.change({
      films: { patterns: Object.fromEntries(Object.entries(patterns).filter(([id]) => id !== film.id)) },
    });
  return { place, put, letApp, isPlaced: patterns[film.id] !== undefined };
}

/** Where a film's pattern lies on the design, by figures; it can be dragged on the picture as well. */
export function PatternPlacing({ film }: { readonly film: Film }) {
  const { unit } = useJobContext();
  const { place, put, letApp, isPlaced } = usePlacing(film);
  const { repeatMm, ratio } = film.pattern!;
  return (
    <Said>
      The pattern of {film.name} begins{' '}
      <FigureField
        label={`Across: the pattern of ${film.name}`}
        mm={place.xMm}
        unit={unit}
        min={0}
        max={repeatMm}
        stepMm={1}
        onChange={(xMm) => put({ ...place, xMm })}
      />{' '}
      across and{' '}
      <FigureField
        label={`Down: the pattern of ${film.name}`}
        mm={place.yMm}
        unit={unit}
        min={0}
        max={repeatMm * ratio}
        stepMm={1}
        onChange={(yMm) => put({ ...place, yMm })}
      />{' '}
      down. Drag its handle on the picture.{' '}
      {isPlaced && <WordButton onPress={letApp}>Let it begin with the design</WordButton>}
    </Said>
  );
}

/** A handle on the picture by which a film's pattern is dragged. */
export function PatternHandle({ film, view }: { readonly film: Film; readonly view: Camera }) {
  const { place, put } = usePlacing(film);
  const from = useRef<{ readonly x: number; readonly y: number } | null>(null);
  const at = (event: { clientX: number; clientY: number }): PatternPlace => ({
    xMm: place.xMm + (event.clientX - from.current!.x) / view.zoom,
    yMm: place.yMm + (event.clientY - from.current!.y) / view.zoom,
  });
  return (
    <Handle
      type="button"
      aria-label={`Drag the pattern of ${film.name}`}
      style={{ left: view.x + place.xMm * view.zoom, top: view.y + place.yMm * view.zoom }}
      onPointerDown={(event) => {
        event.preventDefault();
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { x: event.clientX, y: event.clientY };
      }}
      onPointerMove={(event) => {
        if (!from.current) return;
        const to = at(event);
        showPatternAt(film.id, to);
        event.currentTarget.style.left = `${view.x + to.xMm * view.zoom}px`;
        event.currentTarget.style.top = `${view.y + to.yMm * view.zoom}px`;
      }}
      onPointerUp={(event) => {
        if (!from.current) return;
        const to = at(event);
        from.current = null;
        put(to);
      }}
      onPointerCancel={() => {
        from.current = null;
        showPatternAt(film.id, place);
      }}
      onKeyDown={(event) => {
        const move = (
          { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as Readonly<
            Record<string, readonly [number, number]>
          >
        )[event.key];
        if (!move) return;
        event.preventDefault();
        event.stopPropagation();
        put({ xMm: place.xMm + move[0], yMm: place.yMm + move[1] });
      }}
    >
      ✥
    </Handle>
  );
}

const Said = styled.p`
  font-size: ${type.small};
  line-height: 2;
  padding: ${space.xs} 0;
`;
const Handle = styled.button`
  position: absolute;
  width: 28px;
  height: 28px;
  margin: -14px 0 0 -14px;
  display: grid;
  place-items: center;
  border-radius: 50%;
  cursor: grab;
  touch-action: none;
  pointer-events: auto;
  background: #ffffff;
  color: #182325;
  border: 2px solid #182325;
  font-size: 15px;
  line-height: 1;
  padding: 0;
  &:active {
    cursor: grabbing;
  }
`;
