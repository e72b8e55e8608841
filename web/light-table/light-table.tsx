import { useCallback, useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import type { Box } from '../../core/geometry/index.js';
import type { LengthUnit } from '../../core/job/index.js';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { Rulers, RULER_PX } from './rulers.js';
import { ScaleBar } from './scale-bar.js';

interface View {
  /** px per mm */
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}

interface LightTableProps {
  readonly label: string;
  /** What must be in view at first, mm. */
  readonly box: Box;
  readonly unit: LengthUnit;
  /** Where the vertical ruler has its zero and counts upwards from, mm; without it, it counts downwards from 0. */
  readonly feedFrom?: number;
  /** A place to bring into view; a new object brings it again. */
  readonly lookAt?: Box | null;
  /** A place on the design was picked, mm. */
  readonly onPick?: (x: number, y: number) => void;
  readonly children: ReactNode;
  /** What can be taken hold of, laid over the picture: given px per mm and where the picture's origin is, px. */
  readonly handles?: (view: { readonly zoom: number; readonly x: number; readonly y: number }) => ReactNode;
  readonly caption?: ReactNode;
}

const PADDING_PX = 34;
const SMALLEST = 0.02;
const LARGEST = 400;

/** The one large picture: to scale, with rulers in the user's unit, pan and zoom by mouse, touch pad and keys, and a scale bar. */
export function LightTable({ label, box, unit, feedFrom, lookAt, onPick, children, handles, caption }: LightTableProps) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 800, height: 500 });
  const [view, setView] = useState<View>({ zoom: 1, x: 0, y: 0 });
  const drag = useRef<{ x: number; y: number; moved: boolean } | null>(null);

  const show = useCallback((target: Box, { width, height }: { width: number; height: number }) => {
    const room = { width: Math.max(80, width - RULER_PX - 2 * PADDING_PX), height: Math.max(60, height - RULER_PX - 2 * PADDING_PX) };
    const zoom = clamp(Math.min(room.width / Math.max(target.maxX - target.minX, 1e-3), room.height / Math.max(target.maxY - target.minY, 1e-3)));
    setView({
      zoom,
      x: RULER_PX + (width - RULER_PX) / 2 - (zoom * (target.minX + target.maxX)) / 2,
      y: RULER_PX + (height - RULER_PX) / 2 - (zoom * (target.minY + target.maxY)) / 2,
    });
  }, []);

  const { minX, minY, maxX, maxY } = box;
  useLayoutEffect(() => {
    const element = frame.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  useLayoutEffect(() => show({ minX, minY, maxX, maxY }, size), [show, minX, minY, maxX, maxY, size]);
  useEffect(() => {
    if (lookAt) {
      const spare = Math.max(lookAt.maxX - lookAt.minX, lookAt.maxY - lookAt.minY, 8);
      show({ minX: lookAt.minX - spare, minY: lookAt.minY - spare, maxX: lookAt.maxX + spare, maxY: lookAt.maxY + spare }, size);
    }
    // A resize must not jump back to a place looked at before.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [lookAt]);

  const zoomAt = (factor: number, px: number, py: number) =>
    setView((v) => {
      const zoom = clamp(v.zoom * factor);
      const k = zoom / v.zoom;
      return { zoom, x: px - (px - v.x) * k, y: py - (py - v.y) * k };
    });
  const zoomMiddle = (factor: number) => zoomAt(factor, size.width / 2, size.height / 2);

  // React listens to wheels passively, and then the page would scroll along.
  useEffect(() => {
    const element = frame.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const at = element.getBoundingClientRect();
      if (event.shiftKey) setView((v) => ({ ...v, x: v.x - event.deltaY - event.deltaX }));
      else zoomAt(Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0016)), event.clientX - at.left, event.clientY - at.top);
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });

  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 120 : 30;
    const moves: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => setView((v) => ({ ...v, x: v.x + step })),
      ArrowRight: () => setView((v) => ({ ...v, x: v.x - step })),
      ArrowUp: () => setView((v) => ({ ...v, y: v.y + step })),
      ArrowDown: () => setView((v) => ({ ...v, y: v.y - step })),
      '+': () => zoomMiddle(1.25),
      '=': () => zoomMiddle(1.25),
      '-': () => zoomMiddle(0.8),
      '0': () => show(box, size),
    };
    const move = moves[event.key];
    if (!move || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    move();
  };
  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    drag.current = { x: event.clientX, y: event.clientY, moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.moved && Math.hypot(dx, dy) < 4) return;
    drag.current = { x: event.clientX, y: event.clientY, moved: true };
    setView((v) => ({ ...v, x: v.x + dx, y: v.y + dy }));
  };
  const onPointerUp = (event: PointerEvent) => {
    const at = frame.current!.getBoundingClientRect();
    if (drag.current && !drag.current.moved) onPick?.((event.clientX - at.left - view.x) / view.zoom, (event.clientY - at.top - view.y) / view.zoom);
    drag.current = null;
  };

  return (
    <Frame>
      <Glass ref={frame} tabIndex={0} role="group" aria-label={`${label}. Arrow keys move it, plus and minus zoom, 0 shows all of it.`} onKeyDown={onKeyDown} onPointerDown={onPointerDown} onPointerMove={onPointerMove} onPointerUp={onPointerUp}>
        <svg width={size.width} height={size.height} role="img" aria-label={label}>
          <defs>
            <pattern id="hatch-waste" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform={`rotate(45) scale(${1 / view.zoom})`}>
              <line x1="0" y1="0" x2="0" y2="7" stroke={colour.waste} strokeWidth="1.4" />
            </pattern>
            {/* Brushed and textured film at true scale: its grain is a millimetre or so. */}
            <pattern id="film-grain" width="2.4" height="1.2" patternUnits="userSpaceOnUse">
              <path d="M0 .3h1.7M.6 .9h1.8" stroke="#000000" strokeOpacity="0.28" strokeWidth="0.18" />
              <path d="M0 .55h2.100" stroke="#ffffff" strokeOpacity="0.35" strokeWidth="0.14" />
            </pattern>
            <pattern id="hatch-lap" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform={`rotate(-45) scale(${1 / view.zoom})`}>
              <rect width="4" height="4" fill="#ffffff" fillOpacity="0.75" />
              <line x1="0" y1="0" x2="0" y2="4" stroke="#8a1f4b" strokeWidth="2.2" />
            </pattern>
          </defs>
          <g transform={`translate(${view.x} ${view.y}) scale(${view.zoom})`}>{children}</g>
          <Rulers view={view} size={size} unit={unit} {...(feedFrom === undefined ? {} : { feedFrom })} />
        </svg>
        {handles && <Handles>{handles(view)}</Handles>}
      </Glass>
      <Foot>
        <ScaleBar zoom={view.zoom} unit={unit} />
        <Caption>{caption}</Caption>
        <span>
          <WordButton onPress={() => zoomMiddle(0.8)} aria-label="Zoom out">
            −
          </WordButton>{' '}
          <WordButton onPress={() => show(box, size)}>Show all</WordButton>{' '}
          <WordButton onPress={() => zoomMiddle(1.25)} aria-label="Zoom in">
            +
          </WordButton>
        </span>
      </Foot>
    </Frame>
  );
}

function clamp(zoom: number): number {
  return Math.min(LARGEST, Math.max(SMALLEST, zoom));
}

const Frame = styled.div`
  display: flex; flex-direction: column; min-height: 0; flex: 1; background: ${colour.docket};
  border: 1px solid ${colour.line}; border-radius: ${radius.l}; overflow: hidden; box-shadow: 0 1px 10px ${colour.shadow};
`;

const Glass = styled.div`
  position: relative; flex: 1; min-height: 160px; background: ${colour.table}; cursor: grab; touch-action: none; overflow: hidden;
  &:active { cursor: grabbing; }
  &:focus-visible { outline-offset: -3px; }
  svg { display: block; position: absolute; inset: 0; }
`;

const Handles = styled.div`position: absolute; inset: ${RULER_PX}px 0 0 ${RULER_PX}px; overflow: hidden; pointer-events: none; > div { position: absolute; left: -${RULER_PX}px; top: -${RULER_PX}px; }`;

const Foot = styled.div`
  display: flex; align-items: center; justify-content: space-between; gap: ${space.l}; padding: ${space.xs} ${space.m};
  border-top: 1px solid ${colour.line}; font-size: ${type.small}; min-height: 36px;
`;

const Caption = styled.span`color: ${colour.quiet}; flex: 1; text-align: center; overflow: hidden; text-overflow: ellipsis; white-space: nowrap;`;
