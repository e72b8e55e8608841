import { useMemo, useState } from 'react';
import { PANEL_LAP_MM } from '../../../core/engines/surface/index.js';
import type { PlanView } from '../../../core/plan/page/plan-view.js';
import {
  LARGER_WORK,
  LONGEST_DESIGN_MM,
  sayFieldTroubles,
  SURFACE_KINDS,
  type SurfaceKindName,
} from '../../../core/stations/surface/index.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { useNotify } from '../../ui/notices.js';
import { NumberField } from '../../ui/number-field.js';
import { Part } from '../../ui/part.js';
import { Picker } from '../../ui/picker.js';
import { BlankChoice } from './blank-choice.js';
import { CompoundMeasures } from './compound-measures.js';
import { FlatMeasures } from './flat-measures.js';
import { flatBox, FlatPicture, onFlatPicture } from './flat-picture.js';
import { GarmentMeasures } from './garment-measures.js';
import { GarmentPicture } from './garment-picture.js';
import { Ground } from './ground.js';
import { PanelChoices } from './panel-choices.js';
import { CylinderMeasures, TaperMeasures } from './round-measures.js';
import { SeveralDesigns } from './several-designs.js';
import { Measures, Said, useSurface } from './surface-fields.js';
import { ThingPicture } from './thing-picture.js';
import { ToPrint } from './to-print.js';

const KINDS: Readonly<Record<SurfaceKindName, string>> = {
  unmeasured: 'nothing measured yet',
  flat: 'a board, a wall, a van’s side',
  glass: 'glass, from inside',
  cylinder: 'a mug, a flask, a post',
  taper: 'a tin or tumbler, wider at one end',
  compound: 'a dome, a hull, a helmet',
  garment: 'a garment',
};

/** A board that is about to be measured begins as large as holds the design within its margins. */
function aroundDesign(plan: PlanView | null) {
  const placed = plan?.surface;
  return placed
    ? { widthMm: Math.ceil(placed.widthMm / 10 + 2) * 10, heightMm: Math.ceil(placed.heightMm / 10 + 2) * 10 }
    : {};
}

/** The thing it goes on, once one is measured, and the size the design gets. */
export function SurfaceStation() {
  const { plan, recipe, handle, unit, looked, lookAt } = useJobContext();
  const { findings, rulings } = useSaid('surface');
  const { surface, change } = useSurface();
  const notify = useNotify();
  const [picture, setPicture] = useState<'thing' | 'flat'>('thing');
  const troubles: ReadonlyMap<string, string> = sayFieldTroubles(recipe);
  const placed = plan?.surface;
  const { kind, size: sized } = surface;
  const isBent =
    placed !== undefined &&
    (placed.surface.kind === 'cylinder' || placed.surface.kind === 'taper' || placed.surface.kind === 'compound');
  const isRound = placed !== undefined && (placed.surface.kind === 'cylinder' || placed.surface.kind === 'taper');
  const isWorn = placed?.surface.kind === 'garment' && plan !== null;
  const skin = surface.ground?.colour ?? '#ffffff';
  const isLooked = looked?.finding.stage === 'surface';
  const at = useMemo(() => (isLooked && lookAt ? onFlatPicture(plan, lookAt) : null), [isLooked, lookAt, plan]);
  const choose = (to: SurfaceKindName) => {
    const fresh = to === 'flat' && kind === 'unmeasured' ? { flat: { ...surface.flat, ...aroundDesign(plan) } } : {};
    // A size that was fitted to a thing means nothing without one.
    const size =
      to === 'unmeasured' && sized.mode === 'fit'
        ? ({ size: { mode: 'own' } } as const)
        : kind === 'unmeasured' && to !== 'flat' && to !== 'glass' && sized.mode === 'own'
          ? ({ size: { mode: 'fit' } } as const)
          : {};
    change({ kind: to, at: null, ...fresh, ...size });
    const dropped = [
      ...(surface.at ? ['where the design lay'] : []),
      ...('size' in size && sized.mode === 'fit' ? ['that it was fitted'] : []),
    ];
    if (dropped.length > 0)
      notify(`What does not go with it was dropped: ${dropped.join(', and ')}. All measures are kept.`);
  };
  return (
    <StationLayout
      title="Surface"
      lead='Measure the surface each time. You can type lengths like 42, 4 cm or 16 1/2".'
      docket={
        <>
          <Measures>
            <p>
              It goes on{' '}
              <Picker
                label="What it goes on"
                value={kind}
                options={SURFACE_KINDS.map((id) => ({ id, text: KINDS[id] }))}
                onChange={(id) => choose(SURFACE_KINDS.find((one) => one === id)!)}
              />
            </p>
            {kind === 'unmeasured' ? (
              <Said>Nothing is measured yet, so the artwork keeps its own size.</Said>
            ) : (
              <BlankChoice />
            )}
            {(kind === 'flat' || kind === 'glass') && (
              <FlatMeasures thing={kind === 'flat' ? 'board' : 'pane'} troubles={troubles} />
            )}
            {kind === 'cylinder' && <CylinderMeasures troubles={troubles} />}
            {kind === 'taper' && <TaperMeasures troubles={troubles} />}
            {kind === 'compound' && <CompoundMeasures troubles={troubles} />}
            {kind === 'garment' && <GarmentMeasures />}
            {(kind === 'flat' || kind === 'glass' || (kind === 'cylinder' && !surface.cylinder.wraps)) && (
              <SeveralDesigns />
            )}
            {kind !== 'unmeasured' && <Ground />}
          </Measures>
          <Findings findings={findings} />
          <Rulings
            rulings={rulings}
            editors={{
              ...(placed && {
                'surface.size': (
                  <FigureField
                    label="Width of the design"
                    mm={sized.mode === 'width' ? sized.mm : placed.ruled.widthMm}
                    unit={unit}
                    min={1}
                    max={LONGEST_DESIGN_MM}
                    whyMax={LARGER_WORK}
                    stepMm={1}
                    onChange={(mm) => change({ size: { mode: 'width', mm } })}
                  />
                ),
              }),
              'surface.lap': (
                <FigureField
                  label="Lap of the panels"
                  mm={surface.panels.lapMm ?? PANEL_LAP_MM}
                  unit={unit}
                  max={50}
                  stepMm={1}
                  onChange={(lapMm) => change({ panels: { ...surface.panels, lapMm } })}
                />
              ),
            }}
            below={
              placed?.panels && placed.panels.along !== 'apart'
                ? { 'surface.lap': <PanelChoices along={placed.panels.along} /> }
                : {}
            }
            onReturn={{
              'surface.size': () =>
                change({
                  size: { mode: kind !== 'unmeasured' && sized.mode !== 'own' ? 'fit' : 'own' },
                  sizeOf: 'cut',
                }),
              'surface.lap': () => change({ panels: { ...surface.panels, lapMm: null } }),
            }}
          />
          {placed && (
            <Said>
              Or give {placed.isAmong ? 'the height of the first' : 'its height'}:{' '}
              <FigureField
                label="Height of the design"
                mm={sized.mode === 'height' ? sized.mm : placed.ruled.heightMm}
                unit={unit}
                min={1}
                max={LONGEST_DESIGN_MM}
                whyMax={LARGER_WORK}
                stepMm={1}
                onChange={(mm) => change({ size: { mode: 'height', mm } })}
              />
              , or the scale it is drawn at: 1 :{' '}
              <NumberField
                label="Scale of the drawing"
                value={sized.mode === 'scale' ? Math.max(1, Math.round(sized.times)) : 1}
                min={1}
                max={10_000}
                onChange={(times) => handle.change({ surface: { size: { mode: 'scale', times } } })}
              />
              .
            </Said>
          )}
          {plan?.layers && <ToPrint isRound={isRound} />}
        </>
      }
    >
      {(isBent || isWorn) && (
        <Choice
          label="How it is shown"
          value={picture}
          options={[
            ['thing', isWorn ? 'on the garment' : 'on the thing'],
            ['flat', isWorn ? 'all prints' : kind === 'compound' ? 'flat' : 'rolled out flat'],
          ]}
          onChange={setPicture}
        />
      )}
      {isBent && placed && picture === 'thing' ? (
        <Part name="The picture on the thing" fallback={null}>
          <ThingPicture placed={placed} layers={plan?.layers ?? []} skin={surface.ground?.colour ?? '#f4f1ea'} />
        </Part>
      ) : isWorn && picture === 'thing' ? (
        <GarmentPicture plan={plan} surface={surface} skin={skin} unit={unit} />
      ) : (
        <LightTable
          label={kind === 'unmeasured' ? 'The design at its size' : 'The surface with the design on it'}
          box={flatBox(plan)}
          unit={unit}
          caption={kind === 'unmeasured' || kind === 'garment' ? '' : 'hatched: stays free'}
          lookAt={at}
        >
          <FlatPicture plan={plan} skin={skin} />
        </LightTable>
      )}
    </StationLayout>
  );
}
