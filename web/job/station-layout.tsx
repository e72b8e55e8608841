import { useEffect, useRef, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { colour, space, type, width } from '../tokens.js';

/** A station: what was decided on the left, like a written docket; the matter at hand large beside it. */
export function StationLayout({
  title,
  lead,
  docket,
  pictureFirst = false,
  children,
}: {
  readonly title: string;
  readonly lead?: ReactNode;
  readonly docket: ReactNode;
  /** On a phone the picture is worked from: it stands above what was decided. */ readonly pictureFirst?: boolean;
  readonly children: ReactNode;
}) {
  const docketRef = useRef<HTMLElement>(null);
  const { key } = useLocation();
  // The focus comes along to a station that is gone to; a page that is opened begins at its top.
  useEffect(() => {
    if (key !== 'default') docketRef.current?.focus({ preventScroll: true });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return (
    <Grid>
      <Docket ref={docketRef} aria-label={`${title}: decisions`} tabIndex={0}>
        <div>
          <h2>{title}</h2>
          {lead && <Lead>{lead}</Lead>}
        </div>
        {docket}
      </Docket>
      <Bench data-first={pictureFirst || undefined}>{children}</Bench>
    </Grid>
  );
}

const Grid = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 372px minmax(0, 1fr);
  background: ${colour.docket};
  @media (max-width: ${width.narrow}) {
    grid-template-columns: 318px minmax(0, 1fr);
  }
  @media (max-width: ${width.phone}) {
    display: flex;
    flex-direction: column;
    overflow-y: auto;
  }
`;

const Docket = styled.section`
  position: relative;
  overflow-y: auto;
  padding: ${space.l} ${space.l} ${space.xl};
  display: flex;
  flex-direction: column;
  gap: ${space.l};
  border-right: 1px dashed ${colour.line};
  h2 {
    font-size: ${type.title};
  }
  h3 {
    font-size: ${type.body};
    margin-bottom: ${space.s};
  }
  &:focus-visible {
    outline-offset: -3px;
  }
  @media (max-width: ${width.phone}) {
    overflow: visible;
    border: 0;
  }
`;

const Lead = styled.p`
  margin-top: ${space.xs};
  color: ${colour.quiet};
  font-size: ${type.small};
`;

const Bench = styled.section`
  min-height: 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: ${space.m};
  padding: ${space.l};
  @media (max-width: ${width.narrow}) {
    padding: ${space.m};
  }
  @media (max-width: ${width.phone}) {
    min-height: 420px;
    &[data-first] {
      order: -1;
      min-height: 76vh;
    }
  }
`;
