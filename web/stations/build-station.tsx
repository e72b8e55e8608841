import { useState } from 'react';
import styled from 'styled-components';
import { FindingPlaces } from '../job/finding-places.js';
import { Findings } from '../job/findings.js';
import { useJobContext, useSaid } from '../job/job-context.js';
import { Rulings } from '../job/rulings.js';
import { StationLayout } from '../job/station-layout.js';
import { LightTable } from '../light-table/light-table.js';
import { colour, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { FigureField } from '../ui/figure-field.js';
import { count, sayArea } from '../ui/say.js';
import { Swatch } from '../ui/swatch.js';
import { CrossSection } from './cross-section.js';
import { designBox } from './design-box.js';
import { LayerPicture } from './layer-picture.js';
import { TrapHandle } from './trap-handle.js';

/** How the layers are made of the colours, and how far they run under each other. */
export function BuildStation() {
  const { plan, recipe, handle, unit, lookAt } = useJobContext();
  const { findings, rulings } = useSaid('build');
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [laps, setLaps] = useState(true);
  const box = designBox(plan);
  const [pickedY, setPickedY] = useState<number | null>(null);
  const sectionY = Math.min(pickedY ?? box.maxY / 2, box.maxY);
  const trap = rulings.find((ruling) => ruling.id === 'build.trap');
  const tryTrap = (trapMm: number) => handle.preview({ build: { trapMm } });
  return (
    <StationLayout
      title="Build"
      docket={
        <>
          <Findings findings={findings} />
          <Rulings
            rulings={rulings}
            editors={{
              'build.trap': trap && (
                <FigureField label="Trap width" mm={trap.value as number} unit={unit} max={20} stepMm={0.05} onTry={tryTrap} onGiveUp={() => handle.preview(null)} onChange={(trapMm) => handle.change({ build: { trapMm } })} />
              ),
            }}
            below={{
              'build.trap': trap && (
                <>
                  <TrapHandle trapMm={trap.value as number} ruledMm={trap.proposed as number} />
                  <Said>
                    A layer is laid within{' '}
                    <FigureField label="Placement error" mm={recipe.build.placementErrorMm} unit={unit} max={5} stepMm={0.05} onChange={(placementErrorMm) => handle.change({ build: { placementErrorMm } })} /> of where it should lie.
                  </Said>
                </>
              ),
            }}
            onReturn={{ 'build.trap': () => handle.change({ build: { trapMm: null } }) }}
          />
          <section aria-label="Order of the layers">
            <h3>From the top down to the surface</h3>
            <Order>
              {[...(plan?.layers ?? [])].reverse().map((layer) => (
                <LayerRow key={layer.film.id} filmId={layer.film.id} shown={!hidden.has(layer.film.id)} onShow={(shown) => setHidden(shown ? without(hidden, layer.film.id) : new Set([...hidden, layer.film.id]))} />
              ))}
            </Order>
          </section>
        </>
      }
    >
      <Looks>
        <label>
          <input type="checkbox" checked={laps} onChange={(event) => setLaps(event.target.checked)} /> Show laps
        </label>
        {hidden.size > 0 && <WordButton onPress={() => setHidden(new Set())}>Lay all layers back</WordButton>}
      </Looks>
      <LightTable label="The build" box={box} unit={unit} lookAt={lookAt} onPick={(_, y) => setPickedY(Math.min(Math.max(y, 0), box.maxY))} caption="choose a place to cut through it there">
        <LayerPicture layers={plan?.layers ?? []} hidden={hidden} laps={laps} />
        <FindingPlaces />
        <line x1={box.minX} x2={box.maxX} y1={sectionY} y2={sectionY} stroke="#182325" strokeWidth="1.5" strokeDasharray="8 4 2 4" vectorEffect="non-scaling-stroke" />
      </LightTable>
      <CrossSection yMm={sectionY} onMove={setPickedY} />
    </StationLayout>
  );
}

function LayerRow({ filmId, shown, onShow }: { readonly filmId: string; readonly shown: boolean; readonly onShow: (shown: boolean) => void }) {
  const { plan, handle } = useJobContext();
  const layers = plan?.layers ?? [];
  const at = layers.findIndex((layer) => layer.film.id === filmId);
  const layer = layers[at]!;
  const move = (by: 1 | -1) => {
    const order = layers.map((l) => l.film.id);
    [order[at], order[at + by]] = [order[at + by]!, order[at]!];
    handle.change({ build: { order } });
  };
  return (
    <Row>
      <label>
        <input type="checkbox" checked={shown} onChange={(event) => onShow(event.target.checked)} aria-label={`Show ${layer.film.name}`} /> <Swatch film={layer.film} size={18} /> {layer.film.name}
        <Figures>
          {sayArea(layer.areaMm2)}, {count(layer.pieces, 'piece')}
        </Figures>
      </label>
      <span>
        <WordButton isDisabled={at === layers.length - 1} onPress={() => move(1)} aria-label={`Move ${layer.film.name} up`}>
          up
        </WordButton>
        <WordButton isDisabled={at === 0} onPress={() => move(-1)} aria-label={`Move ${layer.film.name} down`}>
          down
        </WordButton>
      </span>
    </Row>
  );
}

function without(set: ReadonlySet<string>, key: string): Set<string> {
  return new Set([...set].filter((k) => k !== key));
}

const Order = styled.ol`list-style: none; border-bottom: 6px solid ${colour.line};`;

const Row = styled.li`
  display: grid; grid-template-columns: 1fr auto; gap: ${space.s}; align-items: center; padding: 5px 0; border-bottom: 1px solid ${colour.faint}; font-size: ${type.small};
  label { cursor: pointer; }
`;

const Figures = styled.span`display: block; padding-left: 44px; color: ${colour.quiet}; font-variant-numeric: tabular-nums;`;
const Looks = styled.div`display: flex; gap: ${space.l}; align-items: center; font-size: ${type.small}; min-height: 24px; margin: -6px 0 -4px;`;
const Said = styled.p`font-size: ${type.small}; color: ${colour.quiet};`;
