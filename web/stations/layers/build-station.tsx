import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { FindingPlaces } from '../../job/finding-places.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Later } from '../../job/later.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { useTrial } from '../../job/use-trial.js';
import { LightTable } from '../../light-table/light-table.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Choice } from '../../ui/choice.js';
import type { Box } from '../../../core/geometry/index.js';
import type { TrialAnswer } from '../../../core/stations/layers/index.js';
import { GapHeat, HeatLegend, heatCaption } from './gap-heat.js';
import { PairsTable } from './pairs-table.js';
import { TakeAway } from './take-away.js';
import { TrapTerms } from './trap-terms.js';
import { CrossSection, type SectionAt } from './cross-section.js';
import { designBox } from '../../light-table/design-box.js';
import { LayerPicture } from '../../light-table/layer-picture.js';
import { TrapHandle } from './trap-handle.js';
import { fetchedLate, Part } from '../../ui/part.js';

const BELOW = [
  ['section', 'Cross-section'],
  ['trial', 'Gap trial'],
  ['schools', 'Three ways to build'],
] as const;
type Below = (typeof BELOW)[number][0];

// With its chart it is large, and not every build is tried.
const GapTrialPanel = fetchedLate(
  () => import('./gap-trial.js'),
  (m) => m.GapTrialPanel,
);
const SchoolsTable = fetchedLate(
  () => import('./schools-table.js'),
  (m) => m.SchoolsTable,
);
const OrderList = fetchedLate(
  () => import('./order-list.js'),
  (m) => m.OrderList,
);
const FramesEditor = fetchedLate(
  () => import('./frames-editor.js'),
  (m) => m.FramesEditor,
);

/** How the layers are made of the colours, and how far they run under each other. */
export function BuildStation() {
  const { plan, decided, handle, unit, lookAt } = useJobContext();
  const { findings, rulings } = useSaid('build');
  const layers = plan?.layers ?? [];
  const [below, setBelow] = useState<Below>('section');
  const [heat, setHeat] = useState<TrialAnswer['heat']>([]);
  const [apart, setApart] = useState(false);
  const [isListed, setListed] = useState(false);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [laps, setLaps] = useState(true);
  const box = designBox(plan);
  const [picked, setPicked] = useState<SectionAt | null>(null);
  const section: SectionAt = {
    way: picked?.way ?? 'level',
    mm: Math.min(picked?.mm ?? box.maxY / 2, picked?.way === 'upright' ? box.maxX : box.maxY),
  };
  const pick = (x: number, y: number) =>
    setPicked(
      section.way === 'level'
        ? { way: 'level', mm: Math.min(Math.max(y, 0), box.maxY) }
        : { way: 'upright', mm: Math.min(Math.max(x, 0), box.maxX) },
    );
  const tables = useMemo(
    () => (
      <>
        <PairsTable />
        <Part name="The list of layers" fallback={null}>
          {/* Names and order stand beside the cross-section; what more there is of the layers is looked at now and then. */}
          <details onToggle={(event) => setListed(event.currentTarget.open)}>
            <summary>The layers from the top down</summary>
            {isListed && <OrderList hidden={hidden} onHide={setHidden} />}
          </details>
          <FramesEditor />
        </Part>
        <TakeAway />
      </>
    ),
    [hidden, isListed],
  );
  const trap = rulings.find((ruling) => ruling.id === 'build.trap');
  // What is decided shows at once; what the app rules is the same whatever is being tried.
  const trapMm = decided.build.trapMm ?? (trap?.proposed as number);
  const tryOut = useTrial();
  const isHeated = below === 'trial' && !apart && heat.some(({ share }) => share > 0);
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
                <FigureField
                  label="Trap width"
                  mm={trapMm}
                  unit={unit}
                  max={20}
                  stepMm={0.05}
                  onTry={(mm) => tryOut(mm === null ? null : { build: { trapMm: mm } })}
                  onChange={(mm) => handle.change({ build: { trapMm: mm } })}
                />
              ),
            }}
            below={{
              'build.trap': trap && (
                <>
                  <TrapHandle trapMm={trapMm} ruledMm={trap.proposed as number} />
                  <TrapTerms />
                </>
              ),
            }}
            onReturn={{ 'build.trap': () => handle.change({ build: { trapMm: null } }) }}
          />
          <Later>{tables}</Later>
        </>
      }
    >
      <Looks>
        {layers.length > 1 && <Choice label="Under the picture" value={below} options={BELOW} onChange={setBelow} />}
        <label>
          <input type="checkbox" checked={laps} onChange={(event) => setLaps(event.target.checked)} /> Show traps
        </label>
        <label>
          <input type="checkbox" checked={apart} onChange={(event) => setApart(event.target.checked)} /> Pull the layers
          apart
        </label>
        {(hidden.size > 0 || apart) && (
          <WordButton
            onPress={() => {
              setHidden(new Set());
              setApart(false);
            }}
          >
            Lay all layers back
          </WordButton>
        )}
      </Looks>
      <LightTable
        label="The build"
        box={apart ? spreadBox(box, layers.length) : box}
        unit={unit}
        lookAt={lookAt}
        onPick={pick}
        caption={below === 'trial' ? heatCaption(heat) : 'choose a place for the cross-section'}
      >
        <LayerPicture
          layers={layers}
          hidden={hidden}
          laps={laps && !apart && !isHeated}
          apartMm={apart ? apartMm(box) : 0}
          faded={isHeated}
        />
        {isHeated && <GapHeat heat={heat} />}
        <FindingPlaces />
        {below === 'section' && !apart && (
          <line
            {...(section.way === 'level'
              ? { x1: box.minX, x2: box.maxX, y1: section.mm, y2: section.mm }
              : { x1: section.mm, x2: section.mm, y1: box.minY, y2: box.maxY })}
            stroke="#182325"
            strokeWidth="1.5"
            strokeDasharray="8 4 2 4"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </LightTable>
      {isHeated && <HeatLegend heat={heat} />}
      <Part name="This panel" of={below} fallback={<p role="status">Fetching …</p>}>
        {below === 'section' && <CrossSection at={section} onMove={setPicked} />}
        {below === 'trial' && <GapTrialPanel onHeat={setHeat} />}
        {below === 'schools' && <SchoolsTable />}
      </Part>
    </StationLayout>
  );
}

/** Layers moved apart stand so far from each other, mm. */
function apartMm(box: Box): number {
  return 0.18 * Math.max(box.maxX - box.minX, box.maxY - box.minY);
}

function spreadBox(box: Box, layers: number): Box {
  const by = apartMm(box) * Math.max(0, layers - 1);
  return { ...box, maxX: box.maxX + by, minY: box.minY - by / 2 };
}

const Looks = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.xs} ${space.l};
  align-items: center;
  font-size: ${type.small};
  min-height: 24px;
  margin: -6px 0 -4px;
`;
