import styled from 'styled-components';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import { space, type } from '../../tokens.js';
import { FigureField } from '../../ui/figure-field.js';
import { LayerPicture } from '../../light-table/layer-picture.js';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** The panel it goes on, and the size the design gets there. */
export function SurfaceStation() {
  const { plan, recipe, handle, unit } = useJobContext();
  const { findings, rulings } = useSaid('surface');
  const { widthMm, heightMm, marginMm } = recipe.surface;
  const placed = plan?.surface;
  const sized = recipe.surface.size;
  return (
    <StationLayout
      title="Surface"
      lead="Measure the surface each time. You can type lengths like 42, 4 cm or 16 1/2&quot;."
      docket={
        <>
          <Said>
            The panel is{' '}
            <FigureField label="Panel width" mm={widthMm} unit={unit} min={1} stepMm={5} onChange={(mm) => handle.change({ surface: { widthMm: mm } })} /> wide and{' '}
            <FigureField label="Panel height" mm={heightMm} unit={unit} min={1} stepMm={5} onChange={(mm) => handle.change({ surface: { heightMm: mm } })} /> high.
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
            onReturn={{ 'surface.size': () => handle.change({ surface: { size: { mode: 'fit' } } }) }}
          />
          {placed && (
            <Said>
              Or give its height:{' '}
              <FigureField label="Height of the design" mm={sized.mode === 'height' ? sized.mm : placed.heightMm} unit={unit} min={1} stepMm={1} onChange={(mm) => handle.change({ surface: { size: { mode: 'height', mm } } })} />.
            </Said>
          )}
        </>
      }
    >
      <LightTable label="The panel with the design on it" box={{ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }} unit={unit} caption="hatched: stays free">
        <rect width={widthMm} height={heightMm} fill="#ffffff" stroke="#182325" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
        <path
          d={`M0 0H${widthMm}V${heightMm}H0ZM${marginMm.left} ${marginMm.top}V${heightMm - marginMm.bottom}H${widthMm - marginMm.right}V${marginMm.top}Z`}
          fill="url(#hatch-waste)"
          fillRule="evenodd"
        />
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
