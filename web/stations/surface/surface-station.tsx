import styled from 'styled-components';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import { space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { designBox } from '../../light-table/design-box.js';
import { LayerPicture } from '../../light-table/layer-picture.js';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** A panel that is about to be measured begins as large as holds the design within its margins. */
function aroundDesign(design: { readonly widthMm: number; readonly heightMm: number } | undefined) {
  return design ? { widthMm: Math.ceil(design.widthMm / 10 + 2) * 10, heightMm: Math.ceil(design.heightMm / 10 + 2) * 10, marginMm: { top: 10, right: 10, bottom: 10, left: 10 } } : {};
}

/** The panel it goes on, once one is measured, and the size the design gets. */
export function SurfaceStation() {
  const { plan, recipe, handle, unit } = useJobContext();
  const { findings, rulings } = useSaid('surface');
  const { widthMm, heightMm, marginMm } = recipe.surface;
  const placed = plan?.surface;
  const sized = recipe.surface.size;
  const isMeasured = recipe.surface.kind === 'panel';
  return (
    <StationLayout
      title="Surface"
      lead="Measure the surface each time. You can type lengths like 42, 4 cm or 16 1/2&quot;."
      docket={
        <>
          {isMeasured ? (
            <>
              <Said>
                The panel is <FigureField label="Panel width" mm={widthMm} unit={unit} min={1} stepMm={5} onChange={(mm) => handle.change({ surface: { widthMm: mm } })} /> wide and{' '}
                <FigureField label="Panel height" mm={heightMm} unit={unit} min={1} stepMm={5} onChange={(mm) => handle.change({ surface: { heightMm: mm } })} /> high.{' '}
                <WordButton onPress={() => handle.change({ surface: { kind: 'unmeasured', ...(sized.mode === 'fit' ? { size: { mode: 'own' } } : {}) } })}>There is no panel</WordButton>
              </Said>
              <Said>
                Keep free:{' '}
                {SIDES.map((side, i) => (
                  <span key={side}>
                    {i > 0 && (i === 3 ? ' or ' : ', ')}
                    <FigureField label={`Margin ${side}`} mm={marginMm[side]} unit={unit} stepMm={1} onChange={(mm) => handle.change({ surface: { marginMm: { ...marginMm, [side]: mm } } })} /> at the {side}
                  </span>
                ))}
                .
              </Said>
            </>
          ) : (
            <Said>
              Nothing is measured yet, so the artwork keeps its own size. <WordButton onPress={() => handle.change({ surface: { kind: 'panel', ...aroundDesign(placed) } })}>Measure a panel</WordButton>
            </Said>
          )}
          <Findings findings={findings} />
          <Rulings
            rulings={rulings}
            editors={
              placed
                ? {
                    'surface.size': <FigureField label="Width of the design" mm={sized.mode === 'width' ? sized.mm : placed.widthMm} unit={unit} min={1} stepMm={1} onChange={(mm) => handle.change({ surface: { size: { mode: 'width', mm } } })} />,
                  }
                : {}
            }
            onReturn={{ 'surface.size': () => handle.change({ surface: { size: { mode: isMeasured && sized.mode !== 'own' ? 'fit' : 'own' }, sizeOf: 'cut' } }) }}
          />
          {placed && (
            <Said>
              Or give its height:{' '}
              <FigureField label="Height of the design" mm={sized.mode === 'height' ? sized.mm : placed.heightMm} unit={unit} min={1} stepMm={1} onChange={(mm) => handle.change({ surface: { size: { mode: 'height', mm } } })} />, or the scale it is drawn at: 1 :{' '}
              <NumberField label="Scale of the drawing" value={sized.mode === 'scale' ? Math.max(1, Math.round(sized.times)) : 1} min={1} max={10_000} onChange={(times) => handle.change({ surface: { size: { mode: 'scale', times } } })} />.
            </Said>
          )}
        </>
      }
    >
      <LightTable label={isMeasured ? 'The panel with the design on it' : 'The design at its size'} box={isMeasured ? { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm } : designBox(plan)} unit={unit} caption={isMeasured ? 'hatched: stays free' : ''}>
        {isMeasured && (
          <>
            <rect width={widthMm} height={heightMm} fill="#ffffff" stroke="#182325" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
            <path
              d={`M0 0H${widthMm}V${heightMm}H0ZM${marginMm.left} ${marginMm.top}V${heightMm - marginMm.bottom}H${widthMm - marginMm.right}V${marginMm.top}Z`}
              fill="url(#hatch-waste)"
              fillRule="evenodd"
            />
          </>
        )}
        {placed && (
          <g transform={`translate(${placed.xMm} ${placed.yMm})`}>
            <LayerPicture layers={plan.layers ?? []} />
            <rect width={placed.widthMm} height={placed.heightMm} fill="none" stroke="#4c5a5c" strokeDasharray="5 4" strokeWidth="1" vectorEffect="non-scaling-stroke" />
          </g>
        )}
      </LightTable>
    </StationLayout>
  );
}

const Said = styled.p`font-size: 1rem; line-height: 2; padding-bottom: ${space.hair}; font-size: ${type.body};`;
