import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { colour } from '../tokens.js';
import type { Camera } from './camera.js';

/** A point on the light table that is taken hold of, mm. */
export interface HeldPoint {
  readonly id: string;
  readonly label: string;
  readonly xMm: number;
  readonly yMm: number;
}

interface PointHandlesProps {
  readonly points: readonly HeldPoint[];
  readonly view: Camera;
  /** A point is held so far from where it was, mm; null once it is let go. */
  readonly onHold?: (held: { readonly id: string; readonly x: number; readonly y: number } | null) => void;
  /** A point was let go somewhere else. */
  readonly onMove: (id: string, xMm: number, yMm: number) => void;
}

const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Points that are dragged, or nudged by arrow keys (a millimetre; ten with Shift, a tenth with Alt): kept when they are let go, or on Enter. */
export function PointHandles({ points, view, onHold, onMove }: PointHandlesProps) {
  const [held, setHeld] = useState<{ readonly id: string; readonly x: number; readonly y: number } | null>(null);
  const tellHold = useRef(onHold);
  useEffect(() => {
    tellHold.current = onHold;
  });
  useEffect(() => tellHold.current?.(held), [held]);
  const start = useRef<{ readonly id: string; readonly x: number; readonly y: number } | null>(null);
  const latest = useRef({ held, onMove });
  useEffect(() => {
    latest.current = { held, onMove };
  });
  const keep = () => {
    const { held: now, onMove: tell } = latest.current;
    setHeld(null);
    const point = now && points.find(({ id }) => id === now.id);
    if (now && point && (now.x !== 0 || now.y !== 0)) tell(now.id, round(point.xMm + now.x), round(point.yMm + now.y));
  };
  const onPointerDown =
    ({ id }: HeldPoint) =>
    (event: PointerEvent<HTMLButtonElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      start.current = { id, x: event.clientX, y: event.clientY };
    };
  const onPointerMove = (event: PointerEvent) => {
    const from = start.current;
    if (!from) return;
    event.stopPropagation();
    setHeld({ id: from.id, x: (event.clientX - from.x) / view.zoom, y: (event.clientY - from.y) / view.zoom });
  };
  const onPointerUp = (event: PointerEvent) => {
    if (!start.current) return;
    event.stopPropagation();
    start.current = null;
    keep();
  };
  const onPointerCancel = () => {
    start.current = null;
    setHeld(null);
  };
  const onKeyDown =
    ({ id }: HeldPoint) =>
    (event: KeyboardEvent) => {
      if (event.key === 'Enter' && held) {
        event.preventDefault();
        return keep();
      }
      if (event.key === 'Escape' && held) return setHeld(null);
      const way = NUDGES[event.key];
      if (!way || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      event.stopPropagation();
      const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
      setHeld((before) => ({
        id,
        x: (before?.id === id ? before.x : 0) + way[0] * step,
        y: (before?.id === id ? before.y : 0) + way[1] * step,
      }));
    };
  return (
    <div>
      {points.map((point) => {
        const by = held?.id === point.id ? held : { x: 0, y: 0 };
        return (
          <Grip
            key={point.id}
            type="button"
            aria-label={`${point.label}. Arrow keys move it by a millimetre, with Shift by ten; Enter keeps it.`}
            data-held={held?.id === point.id || undefined}
            style={{ left: view.x + (point.xMm + by.x) * view.zoom, top: view.y + (point.yMm + by.y) * view.zoom }}
            onPointerDown={onPointerDown(point)}
            onPointerMove={onPointerMove}
            onPointerUp={onPointerUp}
            onPointerCancel={onPointerCancel}
            onKeyDown={onKeyDown(point)}
            onBlur={keep}
          />
        );
      })}
    </div>
  );
}

const round = (mm: number) => Math.round(mm * 100) / 100;

const Grip = styled.button`
  position: absolute;
  pointer-events: auto;
  width: 26px;
  height: 26px;
  margin: -13px 0 0 -13px;
  padding: 0;
  border: 0;
  background: transparent;
  cursor: move;
  touch-action: none;
  &::after {
    content: '';
    position: absolute;
    inset: 7px;
    border-radius: 50%;
    border: 2px solid ${colour.accent};
    background: #ffffff;
    box-shadow: 0 0 0 1.5px #ffffff;
  }
  &:hover::after,
  &[data-held]::after {
    inset: 5px;
    background: ${colour.accentWash};
  }
`;
