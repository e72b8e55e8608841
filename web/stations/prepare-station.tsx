import { useState } from 'react';
import styled from 'styled-components';
import type { Film } from '../../core/job/index.js';
import { Findings } from '../job/findings.js';
import { useJobContext, useSaid } from '../job/job-context.js';
import { Rulings } from '../job/rulings.js';
import { StationLayout } from '../job/station-layout.js';
import { LightTable } from '../light-table/light-table.js';
import type { PrepareView } from '../plan/plan-view.js';
import { colour, space, type } from '../tokens.js';
import { Choice } from '../ui/choice.js';
import { FigureField } from '../ui/figure-field.js';
import { Small } from '../ui/plain-fields.js';
import { count } from '../ui/say.js';
import { designBox } from './design-box.js';
import { MarkDistance } from './mark-distance.js';
import { useTicks } from './use-ticks.js';

/** What every layer gets so that it can be weeded and laid true, and the map for weeding it. */
export function PrepareStation() {
  const { plan, recipe, handle, unit, job } = useJobContext();
  const { findings, rulings } = useSaid('prepare');
  const [chosen, setChosen] = useState<string | null>(null);
  const layers = plan?.layers ?? [];
  const prepare = plan?.prepare;
  const layer = layers.find((l) => l.film.id === chosen) ?? layers[0];
  const weed = prepare?.weed.find((w) => w.filmId === layer?.film.id);
  const valueOf = (id: string) => Number(rulings.find((ruling) => ruling.id === id)?.value ?? 0);
  const { ticked, toggle } = useTicks(`${job.id}.${layer?.film.id ?? ''}`);
  return (
    <StationLayout
      title="Prepare"
      docket={
        <>
          <Findings findings={findings} />
          <Rulings
            rulings={rulings}
            editors={{
              ...(recipe.preparation.border && {
                'prepare.border': <FigureField label="Gap of the weeding border" mm={valueOf('prepare.border')} unit={unit} max={100} stepMm={0.5} onChange={(borderGapMm) => handle.change({ preparation: { borderGapMm } })} />,
              }),
              ...(recipe.preparation.marks && layers.length > 1 && { 'prepare.marks': <MarkDistance mm={valueOf('prepare.marks')} /> }),
            }}
            onReturn={{
              'prepare.border': () => handle.change({ preparation: { border: true, borderGapMm: null } }),
              'prepare.marks': () => handle.change({ preparation: { marks: true, markDistanceMm: null } }),
            }}
          />
          {recipe.preparation.marks && (
            <Small>
              Marks are <FigureField label="Size of the marks" mm={recipe.preparation.markSizeMm} unit={unit} min={2} max={50} stepMm={0.5} onChange={(markSizeMm) => handle.change({ preparation: { markSizeMm } })} /> across.
            </Small>
          )}
          {weed && layer && (
            <section aria-label="Weeding list">
              <h3>To take out of {layer.film.name}</h3>
              {weed.spots.length === 0 ? (
                <Small>{count(weed.pieces, 'piece')}, no counters: the waste comes off in one pull.</Small>
              ) : (
                <>
                  <Small>
                    {count(weed.pieces, 'piece')}, {count(weed.counters, 'counter')}; {ticked.size} of {weed.spots.length} seen to.
                  </Small>
                  <Spots>
                    {weed.spots.map((spot, i) => (
                      <li key={i}>
                        <label>
                          <input type="checkbox" checked={ticked.has(i)} onChange={() => toggle(i)} /> {i + 1}. {spot.kind === 'counter' ? 'counter' : 'small part that stays'}
                        </label>
                      </li>
                    ))}
                  </Spots>
                </>
              )}
            </section>
          )}
        </>
      }
    >
      {layer && prepare && <Choice label="Layer" value={layer.film.id} options={layers.map((l) => [l.film.id, l.film.name] as const)} onChange={setChosen} />}
      <LightTable label={layer ? `Weed map of ${layer.film.name}` : 'Weed map'} box={prepare?.box ?? designBox(plan)} unit={unit} caption="hatched: waste · numbered: counters (round) and small parts (square)">
        {prepare && layer && weed && <WeedPicture film={layer.film} cut={layer.cut} prepare={prepare} spots={weed.spots} ticked={ticked} />}
      </LightTable>
    </StationLayout>
  );
}

interface WeedPictureProps {
  readonly film: Film;
  readonly cut: string;
  readonly prepare: PrepareView;
  readonly spots: PrepareView['weed'][number]['spots'];
  readonly ticked: ReadonlySet<number>;
}

function WeedPicture({ film, cut, prepare, spots, ticked }: WeedPictureProps) {
  const { box } = prepare;
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY) / 60;
  return (
    <>
      {prepare.border && <path d={prepare.border} fill="#ffffff" stroke="#182325" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />}
      {prepare.border && <path d={prepare.border} fill="url(#hatch-waste)" />}
      <path d={cut} fill={film.colour} fillRule="evenodd" stroke="#182325" strokeWidth="1" vectorEffect="non-scaling-stroke" />
      <path d={prepare.marks} fill={film.colour} stroke="#182325" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
      {spots.map((spot, i) => (
        <g key={i} transform={`translate(${spot.xMm} ${spot.yMm})`} fontSize={size * 1.1} fontWeight="700" textAnchor="middle">
          {spot.kind === 'counter' ? (
            <circle r={size} fill={ticked.has(i) ? '#1f6145' : '#ffffff'} stroke="#182325" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
          ) : (
            <rect x={-size} y={-size} width={2 * size} height={2 * size} fill={ticked.has(i) ? '#1f6145' : '#ffffff'} stroke="#182325" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
          )}
          <text dy="0.36em" fill={ticked.has(i) ? '#ffffff' : '#182325'}>
            {ticked.has(i) ? '✓' : i + 1}
          </text>
        </g>
      ))}
    </>
  );
}

const Spots = styled.ul`
  list-style: none; margin-top: ${space.s}; columns: 2; column-gap: ${space.m}; font-size: ${type.small};
  li { break-inside: avoid; padding: 3px 0; border-bottom: 1px solid ${colour.faint}; }
  label { cursor: pointer; }
`;
