import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import {
  handleOf,
  rimOf,
  seenLine,
  seenRings,
  strainAt,
  type Outlook,
  type Solid,
  type Surface,
} from '../../../core/engines/surface/index.js';
import { boxRing } from '../../../core/geometry/index.js';
import type { PlanView } from '../../../core/plan/page/plan-view.js';
import { colour, radius, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { layersOnSkin, limitLines, solidOf, viewsOf, type LayerOnSkin } from './on-thing.js';
import { StrainLegend, strainColour } from './strain-scale.js';

/** Looked at from a little above, radians. */
const ABOVE = 0.22;
/** One press of an arrow key turns by so much, radians. */
const KEY_TURN = Math.PI / 24;
const PX_TURN = 0.009;
const MOST_ABOVE = 1.2;
/** A handle stands out by this share of how wide the thing is; a narrower gap is a seam. */
const HANDLE_SHARE = 0.32;
const LEAST_HANDLE_MM = 12;

interface ThingPictureProps {
  readonly placed: NonNullable<PlanView['surface']>;
  readonly layers: NonNullable<PlanView['layers']>;
  readonly skin: string;
}

/** The design on the thing it is made for, in projection: turned by the mouse or the arrow keys. */
export function ThingPicture({ placed, layers, skin }: ThingPictureProps) {
  const { surface } = placed;
  const solid = useMemo(() => solidOf(surface, placed), [surface, placed]);
  const onSkin = useMemo(() => layersOnSkin(placed, layers), [placed, layers]);
  const [turn, setTurn] = useState({ aroundRad: 0, aboveRad: ABOVE });
  const held = useRef<{ readonly x: number; readonly y: number } | null>(null);
  const views = viewsOf(placed);
  const by = (around: number, above: number) =>
    setTurn((now) => ({
      aroundRad: now.aroundRad + around,
      aboveRad: Math.max(-MOST_ABOVE, Math.min(MOST_ABOVE, now.aboveRad + above)),
    }));
  const reset = () => setTurn({ aroundRad: 0, aboveRad: ABOVE });
  // What surface is shown has changed: it is looked at anew.
  useEffect(reset, [surface.kind]);
  const onKeyDown = (event: KeyboardEvent) => {
    const acts: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => by(-KEY_TURN, 0),
      ArrowRight: () => by(KEY_TURN, 0),
      ArrowUp: () => by(0, KEY_TURN),
      ArrowDown: () => by(0, -KEY_TURN),
      '0': reset,
    };
    const act = acts[event.key];
    if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  if (!solid) return null;
  const pointers = {
    onPointerDown: (event: PointerEvent) => {
      held.current = { x: event.clientX, y: event.clientY };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent) => {
      if (!held.current) return;
      by(-(event.clientX - held.current.x) * PX_TURN, (event.clientY - held.current.y) * PX_TURN);
      held.current = { x: event.clientX, y: event.clientY };
    },
    onPointerUp: () => (held.current = null),
    onPointerCancel: () => (held.current = null),
  };
  return (
    <Frame>
      <Views
        tabIndex={0}
        role="group"
        aria-label="The design on the thing. Left and right arrow keys turn it, up and down tip it, 0 turns it back."
        onKeyDown={onKeyDown}
        {...pointers}
      >
        {views.map(({ label, turnRad }) => (
          <figure key={label}>
            <Body
              solid={solid}
              look={{ turnRad: turnRad + turn.aroundRad, aboveRad: turn.aboveRad }}
              surface={surface}
              placed={placed}
              layers={onSkin}
              skin={skin}
              label={label}
            />
            <figcaption>{label}</figcaption>
          </figure>
        ))}
      </Views>
      <Foot>
        <span>{surface.kind === 'compound' ? 'shaded: how far film must stretch' : 'dashed: stays free'}</span>
        {surface.kind === 'compound' && <StrainLegend mostPct={placed.figures.strainPct ?? 0} />}
        <span>
          <WordButton onPress={() => by(-KEY_TURN * 2, 0)}>Turn left</WordButton>{' '}
          <WordButton onPress={() => by(KEY_TURN * 2, 0)}>Turn right</WordButton>{' '}
          <WordButton onPress={reset}>Turn back</WordButton>
        </span>
      </Foot>
    </Frame>
  );
}

interface BodyProps {
  readonly solid: Solid;
  readonly look: Outlook;
  readonly surface: Surface;
  readonly placed: ThingPictureProps['placed'];
  readonly layers: readonly LayerOnSkin[];
  readonly skin: string;
  readonly label: string;
}

const pathOf = (points: readonly number[], closed: boolean) => {
  let d = '';
  for (let i = 0; i < points.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${points[i]!.toFixed(2)} ${points[i + 1]!.toFixed(2)}`;
  return closed ? `${d}Z` : d;
};

function Body({ solid, look, surface, placed, layers, skin, label }: BodyProps) {
  const area = (rings: readonly Float64Array[]) =>
    seenRings(solid, look, rings)
      .map((ring) => pathOf(ring, true))
      .join('');
  const { width, height } = sizeOf(solid);
  const thick = height * 0.065;
  const isStrained = surface.kind === 'compound';
  const handle =
    solid.kind === 'round' && surface.kind === 'cylinder' && surface.gapMm >= LEAST_HANDLE_MM
      ? handleOf(solid, look, surface.diameterMm * HANDLE_SHARE)
      : null;
  const handlePath = handle && (
    <path d={pathOf(handle.line, false)} fill="none" stroke={skin} strokeWidth={thick} strokeLinecap="round" />
  );
  const edge = handle && (
    <path d={pathOf(handle.line, false)} fill="none" stroke="#5c6b6d" strokeWidth={thick + 1} strokeLinecap="round" />
  );
  const wholeSkin = boxRing({
    minX: 0,
    minY: 0,
    ...(solid.kind === 'round'
      ? { maxX: solid.roundMm, maxY: solid.sideMm }
      : { maxX: solid.widthMm, maxY: solid.heightMm }),
  });
  return (
    <svg viewBox={`${-width / 2} ${-height / 2} ${width} ${height}`} role="img" aria-label={`The design ${label}`}>
      {handle && !handle.isBefore && edge}
      {handle && !handle.isBefore && handlePath}
      {solid.kind === 'round' && look.aboveRad < 0 && (
        <path d={pathOf(rimOf(solid, look, 'foot'), true)} fill={skin} stroke="#5c6b6d" strokeWidth="0.6" />
      )}
      <path d={area([wholeSkin])} fill={skin} stroke="#5c6b6d" strokeWidth="0.6" />
      {solid.kind === 'round' && look.aboveRad > 0 && (
        <path d={pathOf(rimOf(solid, look, 'top'), true)} fill="#d9dedd" stroke="#5c6b6d" strokeWidth="0.6" />
      )}
      {solid.kind === 'dome' && <Strain solid={solid} look={look} placed={placed} />}
      {layers.map((layer) => (
        <path
          key={layer.key}
          d={area(layer.rings)}
          fill={isStrained ? '#ffffff' : layer.colour}
          fillOpacity={isStrained ? 0.45 : 1}
          fillRule="evenodd"
          stroke="#182325"
          strokeOpacity={isStrained ? 0.8 : 0.3}
          strokeWidth="0.3"
        />
      ))}
      {(surface.kind === 'cylinder' || surface.kind === 'taper') &&
        limitLines(surface, placed).map((line, i) => (
          <path
            key={i}
            d={seenLine(solid, look, line)
              .map((piece) => pathOf(piece, false))
              .join('')}
            fill="none"
            stroke="#4c5a5c"
            strokeWidth="0.5"
            strokeDasharray="2.500 2"
          />
        ))}
      {handle?.isBefore && edge}
      {handle?.isBefore && handlePath}
    </svg>
  );
}

/** So many cells of the design are shaded each way. */
const CELLS = 14;

function Strain({
  solid,
  look,
  placed,
}: Pick<BodyProps, 'look' | 'placed'> & { readonly solid: Extract<Solid, { kind: 'dome' }> }) {
  const { widthMm, heightMm, xMm, yMm, figures } = placed;
  const most = figures.strainPct ?? 0;
  return Array.from({ length: CELLS * CELLS }, (_, i) => {
    const [column, row] = [i % CELLS, Math.floor(i / CELLS)];
    const [x0, x1, y0, y1] = [
      (column * widthMm) / CELLS,
      ((column + 1) * widthMm) / CELLS,
      (row * heightMm) / CELLS,
      ((row + 1) * heightMm) / CELLS,
    ];
    const cell = boxRing({ minX: xMm + x0, minY: yMm + y0, maxX: xMm + x1, maxY: yMm + y1 });
    const fill = strainColour(most === 0 ? 0 : strainAt(solid.bend, widthMm, heightMm, (x0 + x1) / 2, (y0 + y1) / 2));
    return (
      <path
        key={i}
        d={seenRings(solid, look, [cell])
          .map((ring) => pathOf(ring, true))
          .join('')}
        fill={fill}
        stroke={fill}
        strokeWidth="0.3"
      />
    );
  });
}

function sizeOf(solid: Solid) {
  if (solid.kind === 'dome') return { width: solid.widthMm * 1.15, height: solid.heightMm * 1.2 };
  const across = 2 * Math.max(solid.topRadiusMm, solid.footRadiusMm);
  return { width: across * 1.85, height: solid.uprightMm + across * 0.45 };
}

const Frame = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  background: ${colour.docket};
  border: 1px solid ${colour.line};
  border-radius: ${radius.l};
  overflow: hidden;
  box-shadow: 0 1px 10px ${colour.shadow};
`;
const Views = styled.div`
  flex: 1;
  min-height: 200px;
  display: flex;
  gap: ${space.m};
  background: ${colour.table};
  cursor: grab;
  touch-action: none;
  padding: ${space.m};
  forced-color-adjust: none;
  &:active {
    cursor: grabbing;
  }
  &:focus-visible {
    outline-offset: -3px;
  }
  figure {
    flex: 1;
    min-width: 0;
    min-height: 0;
    margin: 0;
    display: flex;
    flex-direction: column;
  }
  svg {
    flex: 1;
    min-height: 0;
    width: 100%;
    display: block;
  }
  figcaption {
    text-align: center;
    font-size: ${type.small};
    color: #33413f;
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: ${space.xs} ${space.l};
  padding: ${space.xs} ${space.m};
  font-size: ${type.small};
  color: ${colour.quiet};
  border-top: 1px solid ${colour.line};
`;
