import { useState } from 'react';
import styled from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import type { SectionBar } from '../../../core/engines/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useAsked } from '../../job/use-asked.js';
import { colour, radius, space, type, width } from '../../tokens.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { Swatch } from '../../ui/swatch.js';
import { useLayerOrder } from './use-layer-order.js';

const NO_BARS: readonly SectionBar[] = [];

const WIDTH = 1000;
const HEIGHT = 132;
const SURFACE = 18;

interface CrossSectionProps {
  readonly at: SectionAt;
  readonly onMove: (at: SectionAt) => void;
}

/** A line through the design: level at so many mm from the top, or upright from the left. */
export interface SectionAt {
  readonly way: 'level' | 'upright';
  readonly mm: number;
}

const WAYS = [
  ['level', 'Across'],
  ['upright', 'Down'],
] as const;

/** A bar must be dragged so far, in px, to go one layer up or down. */
const STEP_PX = 26;

/** The build cut through, like strata: true order, thickness exaggerated, laps as steps. Films are dragged up and down in it, or moved by keys. */
export function CrossSection({ at, onMove }: CrossSectionProps) {
  const { plan, unit } = useJobContext();
  const bars = useAsked<readonly SectionBar[]>(
    (api, id) => api.section(id, at.mm, at.way),
    NO_BARS,
    `${at.way} ${at.mm}`,
  );
  const layers = plan?.layers ?? [];
  const { move } = useLayerOrder();
  const [drag, setDrag] = useState<{ readonly id: string; readonly from: number; readonly by: number } | null>(null);
  const steps = drag ? Math.round(drag.by / STEP_PX) : 0;
  const films = new Map(layers.map((layer) => [layer.film.id, layer.film]));
  const isLevel = at.way === 'level';
  const { widthMm: wide = 1, heightMm: high = 1 } = plan?.surface ?? {};
  const widthMm = isLevel ? wide : high;
  const from = isLevel ? 'from the top' : 'from the left';
  const thickestUm = Math.max(1, ...bars.map((bar) => bar.baseUm + bar.thicknessUm));
  const stackUm = Math.max(thickestUm, layers.reduce((sum, layer) => sum + layer.film.thicknessUm, 0) * 0.6);
  const perUm = (HEIGHT - SURFACE - 8) / stackUm;
  const x = (mm: number) => (mm / widthMm) * WIDTH;
  const overlaid = bars.filter((bar) => bar.baseUm > 0).length;
  const said = `${bars.length} pieces of film, ${overlaid} of them on top of others. The thickest place is ${thickestUm} µm.`;
  return (
    <Strip aria-label="Cross-section">
      <Head>
        <h3>Cross-section</h3>
        <span>
          <Choice
            label="Which way it is cut"
            value={at.way}
            options={WAYS}
            onChange={(way) => onMove({ way, mm: (way === 'level' ? high : wide) / 2 })}
          />{' '}
          at{' '}
          <FigureField
            label="Place of the cross-section"
            mm={at.mm}
            unit={unit}
            max={isLevel ? high : wide}
            stepMm={1}
            onTry={(mm) => mm !== null && onMove({ ...at, mm })}
            onChange={(mm) => onMove({ ...at, mm })}
          />{' '}
          {from}
        </span>
        <Thick>
          {drag
            ? steps === 0
              ? 'drag it up or down'
              : `${films.get(drag.id)!.name} goes ${Math.abs(steps)} ${steps > 0 ? 'up' : 'down'}`
            : bars.length > 0
              ? `${thickestUm} µm at the thickest place here`
              : 'no film here'}
        </Thick>
      </Head>
      <Body>
        <ul aria-label="Layers in the section, the uppermost first">
          {[...layers].reverse().map(({ film, order }) => (
            <li key={film.id}>
              <Stratum
                aria-label={`${film.name}, layer ${order} of ${layers.length}: arrow keys move it up and down`}
                onKeyDown={(event) => {
                  if (event.key === 'ArrowUp') move(film.id, 1);
                  else if (event.key === 'ArrowDown') move(film.id, -1);
                  else return;
                  event.preventDefault();
                  event.stopPropagation();
                }}
              >
                <Swatch film={film} size={13} /> <span>{film.name}</span>
              </Stratum>
            </li>
          ))}
        </ul>
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          preserveAspectRatio="none"
          role="img"
          aria-label={`Cross-section at ${formatLength(at.mm, unit)} ${unit} ${from}: ${said}`}
        >
          {bars.map((bar, i) => {
            const film = films.get(bar.key);
            const top = HEIGHT - SURFACE - (bar.baseUm + bar.thicknessUm) * perUm;
            return (
              <rect
                key={i}
                x={x(bar.fromMm)}
                y={top}
                width={Math.max(1, x(bar.toMm) - x(bar.fromMm))}
                height={bar.thicknessUm * perUm}
                fill={film?.colour ?? 'none'}
                stroke="#182325"
                strokeWidth="0.8"
                vectorEffect="non-scaling-stroke"
                {...(layers.length > 1 && {
                  style: { cursor: 'ns-resize', touchAction: 'none' },
                  opacity: drag && drag.id !== bar.key ? 0.45 : 1,
                  transform: drag?.id === bar.key ? `translate(0 ${-drag.by})` : '',
                  onPointerDown: (event) => {
                    event.currentTarget.setPointerCapture(event.pointerId);
                    setDrag({ id: bar.key, from: event.clientY, by: 0 });
                  },
                  onPointerMove: (event) => setDrag((now) => now && { ...now, by: now.from - event.clientY }),
                  onPointerUp: () => {
                    if (drag && steps !== 0) move(drag.id, steps);
                    setDrag(null);
                  },
                  onPointerCancel: () => setDrag(null),
                })}
              />
            );
          })}
          <rect y={HEIGHT - SURFACE} width={WIDTH} height={SURFACE} fill="url(#hatch-surface)" />
          <rect y={HEIGHT - SURFACE} width={WIDTH} height="1.5" fill="#4c5a5c" />
          <defs>
            <pattern
              id="hatch-surface"
              width="9"
              height="9"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width="9" height="9" fill="#dbe2e1" />
              <line x1="0" y1="0" x2="0" y2="9" stroke="#9fb0b0" strokeWidth="3" />
            </pattern>
          </defs>
        </svg>
      </Body>
    </Strip>
  );
}

const Strip = styled.section`
  flex: none;
  border: 1px solid ${colour.line};
  border-radius: ${radius.l};
  overflow: hidden;
  background: ${colour.docket};
  svg {
    display: block;
    width: 100%;
    height: 124px;
    background: ${colour.table};
    border-left: 1px solid ${colour.line};
  }
`;

const Body = styled.div`
  display: grid;
  grid-template-columns: 138px 1fr;
  border-top: 1px solid ${colour.line};
  ul {
    list-style: none;
    height: 124px;
    overflow: auto;
    display: flex;
    flex-direction: column;
    justify-content: safe end;
    padding: 2px 4px 14px;
  }
  @media (max-width: ${width.phone}) {
    grid-template-columns: 1fr;
    ul {
      display: none;
    }
  }
`;

const Stratum = styled.button.attrs({ type: 'button' })`
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 24px;
  padding: 1px 6px;
  border: 0;
  border-radius: ${radius.s};
  background: none;
  color: ${colour.ink};
  font: 500 0.78rem/1.2 ${type.text};
  text-align: left;
  cursor: default;
  span:last-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: ${space.m};
  padding: ${space.xs} ${space.m};
  font-size: ${type.small};
  h3 {
    font-size: ${type.small};
  }
`;

const Thick = styled.span`
  margin-left: auto;
  color: ${colour.quiet};
  font-variant-numeric: tabular-nums;
`;
