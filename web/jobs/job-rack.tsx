import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import type { JobSummary } from '../../core/recipe/index.js';
import { space } from '../tokens.js';

/** A docket is at least so wide, where there is room; px. */
const LEAST_WIDTH = 520;
/** As high with what parts it from the next: on a phone its words stand below each other. */
const ROW = { wide: 146, phone: 186 } as const;
const PHONE = 560;
const GAP = 16;
/** What is asked for before it is looked at. */
const ROWS_AHEAD = 6;

interface JobRackProps {
  readonly jobs: readonly JobSummary[];
  readonly total: number;
  /** The last of them has come near: more are wanted. */
  readonly onNearEnd: () => void;
  readonly children: (job: JobSummary) => ReactNode;
}

/** Dockets side by side, of which only those in view are there: a thousand cost no more than ten. */
export function JobRack({ jobs, total, onNearEnd, children }: JobRackProps) {
  const rack = useRef<HTMLUListElement>(null);
  const [place, setPlace] = useState({ columns: 1, top: 0, row: ROW.wide as number });
  useLayoutEffect(() => {
    const element = rack.current!;
    const measure = () =>
      setPlace({
        columns: Math.max(1, Math.floor((element.clientWidth + GAP) / (LEAST_WIDTH + GAP))),
        top: element.offsetTop,
        row: element.clientWidth < PHONE ? ROW.phone : ROW.wide,
      });
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const rows = Math.ceil(jobs.length / place.columns);
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => rack.current?.parentElement ?? null,
    estimateSize: () => place.row,
    overscan: 4,
    scrollMargin: place.top,
  });
  useLayoutEffect(() => virtual.measure(), [virtual, place.row]);
  const shown = virtual.getVirtualItems();
  const isNearEnd = jobs.length < total && (shown.at(-1)?.index ?? 0) >= rows - ROWS_AHEAD;
  const ask = useRef(onNearEnd);
  useEffect(() => {
    ask.current = onNearEnd;
  });
  useEffect(() => {
    if (isNearEnd) ask.current();
  }, [isNearEnd, jobs.length]);
  return (
    <Rack ref={rack} aria-label="Jobs" style={{ height: virtual.getTotalSize() }}>
      {shown.map((row) =>
        jobs.slice(row.index * place.columns, (row.index + 1) * place.columns).map((job, column) => (
          <Slot
            key={job.id}
            aria-setsize={total}
            aria-posinset={row.index * place.columns + column + 1}
            style={{
              transform: `translateY(${row.start - place.top}px)`,
              left: `calc(${column} * (100% + ${GAP}px) / ${place.columns})`,
              width: `calc((100% - ${(place.columns - 1) * GAP}px) / ${place.columns})`,
              height: place.row - GAP,
            }}
          >
            {children(job)}
          </Slot>
        )),
      )}
    </Rack>
  );
}

const Rack = styled.ul`
  list-style: none;
  position: relative;
  margin-bottom: ${space.l};
`;
const Slot = styled.li`
  position: absolute;
  top: 0;
  display: grid;
`;
