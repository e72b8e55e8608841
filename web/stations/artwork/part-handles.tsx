import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import { moved, snapped, type SnapLine } from '../../../core/stations/artwork/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, radius } from '../../tokens.js';
import { isOneWith, type ArrangedPart, type Arrangement } from './use-arrangement.js';

/** What is being moved: which parts, and how far on the design at its final size, mm. */
export interface Shift {
  readonly ids: readonly string[];
  readonly x: number;
  readonly y: number;
  readonly lines: readonly SnapLine[];
}

/** A part is drawn to a line within so many pixels. */
const SNAP_PX = 7;
const NUDGES_MM: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface PartHandlesProps {
  readonly arrangement: Arrangement;
  readonly view: { readonly zoom: number; readonly x: number; readonly y: number };
  readonly shift: Shift | null;
  readonly onShift: (shift: Shift | null) => void;
}

/**
 * The parts of the design to be taken hold of on the light table: dragged, or nudged by arrow keys. What is moved is shown at once and
 * kept when it is let go.
 */
export function PartHandles({ arrangement, view, shift, onShift }: PartHandlesProps) {
  const { unit } = useJobContext();
  const { parts, chosen, choose, place, scale, tried } = arrangement;
  const start = useRef<{ x: number; y: number; ids: readonly string[]; moved: boolean } | null>(null);
  const isNudged = useRef(false);
  const isChosen = (part: ArrangedPart) => chosen.includes(part);
  const taken = (part: ArrangedPart, add: boolean) =>
    (add
      ? isChosen(part)
        ? chosen.filter((other) => !isOneWith(other, part))
        : [...chosen, part]
      : isChosen(part)
        ? chosen
        : [part]
    ).map((other) => other.id);

  const shiftFor = (ids: readonly string[], x: number, y: number, freely: boolean): Shift => {
    const lead = parts.find((part) => part.id === ids[0]);
    if (!lead || freely) return { ids, x, y, lines: [] };
    const others = parts.filter((part) => !ids.includes(part.id)).map((part) => part.shown);
    const { by, lines } = snapped(lead.shown, { x, y }, others, SNAP_PX / view.zoom);
    return { ids, ...by, lines };
  };
  const save = ({ ids, x, y }: Shift) => {
    onShift(null);
    place(
      new Map(
        parts
          .filter((part) => ids.includes(part.id))
          .map((part) => [part.id, moved(part.place, { x: x / scale, y: y / scale })]),
      ),
    );
  };

  const onPointerDown = (part: ArrangedPart) => (event: PointerEvent<HTMLButtonElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    keep();
    const ids = taken(part, event.shiftKey);
    choose(ids);
    start.current = {
      x: event.clientX,
      y: event.clientY,
      ids: [part.id, ...ids.filter((id) => id !== part.id)],
      moved: false,
    };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: PointerEvent) => {
    const from = start.current;
    if (!from) return;
    event.stopPropagation();
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.moved && Math.hypot(dx, dy) < 4) return;
    start.current = { ...from, moved: true };
    onShift(shiftFor(from.ids, dx / view.zoom, dy / view.zoom, event.altKey));
  };
  const onPointerUp = (event: PointerEvent) => {
    event.stopPropagation();
    if (start.current?.moved && shift) save(shift);
    start.current = null;
  };
  const onPointerCancel = () => {
    start.current = null;
    onShift(null);
  };
  const onKeyDown = (part: ArrangedPart) => (event: KeyboardEvent) => {
    if (event.key === 'Enter' && isNudged.current) {
      event.preventDefault();
      return keep();
    }
    if (event.key === 'Escape' && isNudged.current) {
      isNudged.current = false;
      return onShift(null);
    }
    const way = NUDGES_MM[event.key];
    if (!way || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const ids = isChosen(part) ? chosen.map((other) => other.id) : [part.id];
    if (!isChosen(part)) choose(ids);
    const before = shift ?? { ids, x: 0, y: 0 };
    onShift({ ids, x: before.x + way[0] * step, y: before.y + way[1] * step, lines: [] });
    isNudged.current = true;
  };
  // A row of arrow keys is one step: kept on Enter, when another part is taken hold of, or when the handles go away.
  const keep = () => {
    if (isNudged.current && latest.current.shift) latest.current.save(latest.current.shift);
    isNudged.current = false;
  };
  const latest = useRef({ shift, save });
  useEffect(() => {
    latest.current = { shift, save };
  });
  useEffect(() => keep, []);

  return (
    <div>
      {parts.map((part) => {
        const by = shift?.ids.includes(part.id) ? shift : { x: 0, y: 0 };
        const { minX, minY, maxX, maxY } = part.shown;
        return (
          <Handle
            key={part.id}
            type="button"
            data-chosen={isChosen(part) || undefined}
            aria-pressed={isChosen(part)}
            aria-label={`${part.name}, ${formatLength(maxX - minX, unit)} × ${formatLength(maxY - minY, unit)} ${unit}. Arrow keys move it by a millimetre, with Shift by ten.`}
            style={{
              left: view.x + (minX + by.x) * view.zoom,
              top: view.y + (minY + by.y) * view.zoom,
              width: (maxX - minX) * view.zoom,
              height: (maxY - minY) * view.zoom,
            }}
            onPointerDown={onPointerDown(part)}
            onPointerMove={onPointerMove}
            onPointerUp={onPointerUp}
            onClick={(event) => event.detail === 0 && choose(taken(part, event.shiftKey))}
            onKeyDown={onKeyDown(part)}
            onBlur={keep}
            onPointerCancel={onPointerCancel}
          />
        );
      })}
      {tried &&
        [...tried].map(([id, { minX, minY, maxX, maxY }]) => (
          <Ghost
            key={id}
            aria-hidden
            style={{
              left: view.x + minX * view.zoom,
              top: view.y + minY * view.zoom,
              width: (maxX - minX) * view.zoom,
              height: (maxY - minY) * view.zoom,
            }}
          />
        ))}
      {shift?.lines.map(({ axis, at }) => (
        <SnapMark
          key={axis}
          aria-hidden
          style={
            axis === 'x'
              ? { left: view.x + at * view.zoom, top: 0, height: 4000, width: 1 }
              : { top: view.y + at * view.zoom, left: 0, width: 4000, height: 1 }
          }
        />
      ))}
    </div>
  );
}

const Handle = styled.button`
  position: absolute;
  pointer-events: auto;
  padding: 0;
  border: 1px solid transparent;
  background: transparent;
  cursor: move;
  border-radius: ${radius.s};
  touch-action: none;
  &:hover {
    border: 1px dashed ${colour.quiet};
  }
  &[data-chosen] {
    border: 1.5px solid ${colour.accent};
    box-shadow:
      0 0 0 1px #fff,
      inset 0 0 0 1px #fff;
  }
`;

/** Where a part would go. */
const Ghost = styled.div`
  position: absolute;
  pointer-events: none;
  border: 2px dashed ${colour.accent};
  border-radius: ${radius.s};
`;

const SnapMark = styled.div`
  position: absolute;
  background: ${colour.bad};
  pointer-events: none;
`;
