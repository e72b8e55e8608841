import {
  memo,
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import styled from 'styled-components';
import type { Box } from '../../core/geometry/index.js';
import type { LengthUnit } from '../../core/words/index.js';
import { colour, radius, space, type, width } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { between, fitted, pinched, resized, shifted, zoomedAt, type Camera, type Point, type Size } from './camera.js';
import { Rulers, RULER_PX } from './rulers.js';
import { DrawnZoom } from './shape.js';
import { ScaleBar } from './scale-bar.js';

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
  /** One finger or pointer strokes over the picture instead of moving it: told wherever it goes, mm, and when it is lifted. */
  readonly onStroke?: { readonly over: (x: number, y: number) => void; readonly end: () => void };
  readonly children: ReactNode;
  /** What can be taken hold of, laid over the picture: given px per mm and where the picture's origin is, px. */
  readonly handles?: (view: Camera) => ReactNode;
  readonly caption?: ReactNode;
}

/** After so long without a move the picture is drawn anew where it is. */
const REST_MS = 140;
/** So much of its size the picture is drawn beyond each edge of the window, to be moved into it. */
const BEYOND = 0.3;

/** The one large picture: to scale, with rulers in the user's unit, pan and zoom by mouse, touch and keys, and a scale bar. */
export function LightTable({
  label,
  box,
  unit,
  feedFrom,
  lookAt,
  onPick,
  onStroke,
  children,
  handles,
  caption,
}: LightTableProps) {
  const frame = useRef<HTMLDivElement>(null);
  const [{ size, camera, drawn }, setView] = useState<View>({
    size: { width: 800, height: 500 },
    camera: START,
    drawn: START,
    isMoved: false,
  });
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);

  /** Moved by hand: the picture that is there is moved along, and drawn anew at rest. */
  const move = useCallback((to: (camera: Camera, size: Size) => Camera) => {
    setView((view) => ({ ...view, camera: to(view.camera, view.size), isMoved: true }));
    clearTimeout(rest.current);
    rest.current = setTimeout(() => setView((view) => ({ ...view, drawn: view.camera })), REST_MS);
  }, []);
  const show = useCallback((target: Box) => {
    setView((view) => {
      const now = fitted(target, view.size, RULER_PX);
      return { ...view, camera: now, drawn: now, isMoved: false };
    });
  }, []);
  useEffect(() => () => clearTimeout(rest.current), []);

  const { minX, minY, maxX, maxY } = box;
  useLayoutEffect(() => show({ minX, minY, maxX, maxY }), [show, minX, minY, maxX, maxY]);
  useLayoutEffect(() => {
    const element = frame.current!;
    const observer = new ResizeObserver(() => {
      const to = { width: element.clientWidth, height: element.clientHeight };
      setView((view) => {
        // What was looked at stays in view; what shows all goes on showing all.
        const now = view.isMoved
          ? resized(view.camera, view.size, to)
          : fitted({ minX, minY, maxX, maxY }, to, RULER_PX);
        return { ...view, size: to, camera: now, drawn: now };
      });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [minX, minY, maxX, maxY]);
  useEffect(() => {
    if (!lookAt) return;
    const spare = Math.max(lookAt.maxX - lookAt.minX, lookAt.maxY - lookAt.minY, 8);
    show({
      minX: lookAt.minX - spare,
      minY: lookAt.minY - spare,
      maxX: lookAt.maxX + spare,
      maxY: lookAt.maxY + spare,
    });
    // It was brought into view: a resize keeps it there.
    setView((view) => ({ ...view, isMoved: true }));
  }, [lookAt, show]);

  const zoomMiddle = (factor: number) =>
    move((now, { width, height }) => zoomedAt(now, factor, { x: width / 2, y: height / 2 }));

  // React listens to wheels passively, and then the page would scroll along.
  useEffect(() => {
    const element = frame.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const at = element.getBoundingClientRect();
      if (event.shiftKey) move((now) => shifted(now, -event.deltaY - event.deltaX, 0));
      else
        move((now) =>
          zoomedAt(now, Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0016)), {
            x: event.clientX - at.left,
            y: event.clientY - at.top,
          }),
        );
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [move]);

  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 120 : 30;
    const moves: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => move((now) => shifted(now, step, 0)),
      ArrowRight: () => move((now) => shifted(now, -step, 0)),
      ArrowUp: () => move((now) => shifted(now, 0, step)),
      ArrowDown: () => move((now) => shifted(now, 0, -step)),
      '+': () => zoomMiddle(1.25),
      '=': () => zoomMiddle(1.25),
      '-': () => zoomMiddle(0.8),
      '0': () => show(box),
    };
    const act = moves[event.key];
    if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  const onDesign = (tell: (x: number, y: number) => void) => (at: Point) =>
    tell((at.x - camera.x) / camera.zoom, (at.y - camera.y) / camera.zoom);
  const pointers = usePointers(frame, move, {
    onPick: onDesign((x, y) => onPick?.(x, y)),
    ...(onStroke && { stroke: { over: onDesign(onStroke.over), end: onStroke.end } }),
  });

  return (
    <Frame>
      <Glass
        ref={frame}
        tabIndex={0}
        role="group"
        aria-label={`${label}. Arrow keys move it, plus and minus zoom, 0 shows all of it.`}
        onKeyDown={onKeyDown}
        {...pointers}
      >
        <Picture label={label} drawn={drawn} camera={camera} size={size}>
          {children}
        </Picture>
        <svg width={size.width} height={size.height} aria-hidden>
          <Rulers view={camera} size={size} unit={unit} {...(feedFrom === undefined ? {} : { feedFrom })} />
        </svg>
        {handles && <Handles>{handles(camera)}</Handles>}
      </Glass>
      <Foot>
        <ScaleBar zoom={camera.zoom} unit={unit} />
        <Caption>{caption}</Caption>
        <span>
          <WordButton onPress={() => zoomMiddle(0.8)} aria-label="Zoom out">
            −
          </WordButton>{' '}
          <WordButton onPress={() => show(box)}>Show all</WordButton>{' '}
          <WordButton onPress={() => zoomMiddle(1.25)} aria-label="Zoom in">
            +
          </WordButton>
        </span>
      </Foot>
    </Frame>
  );
}

interface View {
  readonly size: Size;
  readonly camera: Camera;
  /** For which camera the picture was drawn. */
  readonly drawn: Camera;
  /** It was moved by hand since it showed all. */
  readonly isMoved: boolean;
}

const START: Camera = { zoom: 1, x: 0, y: 0 };
/** A pointer that moved less than this picks a place; px. */
const STILL_PX = 4;

interface PointersTell {
  readonly onPick: (at: Point) => void;
  readonly stroke?: { readonly over: (at: Point) => void; readonly end: () => void };
}

/** One pointer drags the picture or strokes over it, or picks a place when it stays; two fingers drag and zoom it. */
function usePointers(
  frame: { readonly current: HTMLElement | null },
  move: (to: (camera: Camera) => Camera) => void,
  { onPick, stroke }: PointersTell,
) {
  const down = useRef(new Map<number, Point>());
  const isMoved = useRef(false);
  const pointOf = (event: PointerEvent): Point => {
    const at = frame.current!.getBoundingClientRect();
    return { x: event.clientX - at.left, y: event.clientY - at.top };
  };
  const onPointerCancel = (event: PointerEvent) => {
    down.current.delete(event.pointerId);
    // Another program, or the system, took the gesture: nothing was picked.
    isMoved.current = true;
    stroke?.end();
  };
  return {
    onPointerDown: (event: PointerEvent) => {
      if (event.button !== 0) return;
      if (down.current.size === 0) isMoved.current = false;
      down.current.set(event.pointerId, pointOf(event));
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent) => {
      const before = down.current.get(event.pointerId);
      if (!before) return;
      const now = pointOf(event);
      if (!isMoved.current && down.current.size === 1 && Math.hypot(now.x - before.x, now.y - before.y) < STILL_PX)
        return;
      isMoved.current = true;
      const [other] = [...down.current].flatMap(([id, point]) => (id === event.pointerId ? [] : [point]));
      down.current.set(event.pointerId, now);
      if (stroke && !other) return stroke.over(now);
      move((camera) =>
        other ? pinched(camera, [before, other], [now, other]) : shifted(camera, now.x - before.x, now.y - before.y),
      );
    },
    onPointerUp: (event: PointerEvent) => {
      const wasDown = down.current.delete(event.pointerId);
      if (wasDown && !isMoved.current && down.current.size === 0) onPick(pointOf(event));
      if (wasDown && isMoved.current && down.current.size === 0) stroke?.end();
    },
    onPointerCancel,
  };
}

interface PictureProps {
  readonly label: string;
  readonly drawn: Camera;
  readonly camera: Camera;
  readonly size: Size;
  readonly children: ReactNode;
}

/** While it moves, the picture is a sheet that is shifted and stretched as it is, however much is on it. */
function Picture({ camera, ...picture }: PictureProps) {
  const { drawn, size } = picture;
  const { factor, x, y } = between(drawn, camera);
  const [beyondX, beyondY] = [Math.round(size.width * BEYOND), Math.round(size.height * BEYOND)];
  return (
    <Layer
      style={{
        left: -beyondX,
        top: -beyondY,
        width: size.width + 2 * beyondX,
        height: size.height + 2 * beyondY,
        transformOrigin: `${beyondX}px ${beyondY}px`,
        transform: `translate(${x}px, ${y}px) scale(${factor})`,
      }}
    >
      <Drawing {...picture} beyondX={beyondX} beyondY={beyondY} />
    </Layer>
  );
}

const Drawing = memo(function Drawing({
  label,
  drawn,
  size,
  beyondX,
  beyondY,
  children,
}: Omit<PictureProps, 'camera'> & { readonly beyondX: number; readonly beyondY: number }) {
  return (
    <svg width={size.width + 2 * beyondX} height={size.height + 2 * beyondY} role="img" aria-label={label}>
      <defs>
        <pattern
          id="hatch-waste"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(45) scale(${1 / drawn.zoom})`}
        >
          <line x1="0" y1="0" x2="0" y2="7" stroke={colour.waste} strokeWidth="1.4" />
        </pattern>
        {/* Brushed and textured film at true scale: its grain is a millimetre or so. */}
        <pattern id="film-grain" width="2.4" height="1.2" patternUnits="userSpaceOnUse">
          <path d="M0 .3h1.7M.6 .9h1.8" stroke="#000000" strokeOpacity="0.28" strokeWidth="0.18" />
          <path d="M0 .55h2.100" stroke="#ffffff" strokeOpacity="0.35" strokeWidth="0.14" />
        </pattern>
        <pattern
          id="hatch-lap"
          width="4"
          height="4"
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(-45) scale(${1 / drawn.zoom})`}
        >
          <rect width="4" height="4" fill="#ffffff" fillOpacity="0.75" />
          <line x1="0" y1="0" x2="0" y2="4" stroke="#8a1f4b" strokeWidth="2.2" />
        </pattern>
      </defs>
      <g transform={`translate(${drawn.x + beyondX} ${drawn.y + beyondY}) scale(${drawn.zoom})`}>
        <DrawnZoom value={drawn.zoom}>{children}</DrawnZoom>
      </g>
    </svg>
  );
});

const Layer = styled.div`
  position: absolute;
  will-change: transform;
  forced-color-adjust: none;
`;

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

const Glass = styled.div`
  position: relative;
  flex: 1;
  min-height: 160px;
  background: ${colour.table};
  cursor: grab;
  touch-action: none;
  overflow: hidden;
  &:active {
    cursor: grabbing;
  }
  &:focus-visible {
    outline-offset: -3px;
  }
  svg {
    display: block;
    position: absolute;
    inset: 0;
  }
`;

const Handles = styled.div`
  position: absolute;
  inset: ${RULER_PX}px 0 0 ${RULER_PX}px;
  overflow: hidden;
  pointer-events: none;
  > div {
    position: absolute;
    left: -${RULER_PX}px;
    top: -${RULER_PX}px;
  }
`;

const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: ${space.xs} ${space.l};
  padding: ${space.xs} ${space.m};
  border-top: 1px solid ${colour.line};
  font-size: ${type.small};
  min-height: 36px;
`;

const Caption = styled.span`
  color: ${colour.quiet};
  flex: 1;
  text-align: center;
  font-size: ${type.small};
  /* Too long for what is left between scale and zoom, it has a line of its own; it is never cut short. */
  @media (max-width: ${width.narrow}) {
    order: 3;
    flex-basis: 100%;
    text-align: left;
    &:empty {
      display: none;
    }
  }
`;
