import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { Box } from '../../../core/geometry/index.js';
import { recordedCuts } from '../../../core/stations/record/index.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { Shape } from '../../light-table/shape.js';
import { fillOf } from '../../light-table/film-fill.js';
import { LightTable } from '../../light-table/light-table.js';
import type { LayerView } from '../../../core/plan/page/plan-view.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { useCutCopies, useWeeded } from '../../job/cut-copies.js';
import { designBox } from '../../light-table/design-box.js';

/** The steps at the bench, in words and pictures. */
export function AssembleStation() {
  const { plan, recipe, unit, cuts, job } = useJobContext();
  const { findings, rulings } = useSaid('assemble');
  const unweeded = useMemo(() => recordedCuts(cuts, job.id).unweeded, [cuts, job.id]);
  const copies = useCutCopies();
  const weeded = useWeeded();
  const [chosen, setChosen] = useState(0);
  const steps = plan?.steps ?? [];
  const at = Math.min(chosen, Math.max(0, steps.length - 1));
  const step = steps[at];
  // A strip of a gang is laid as one, with all its copies.
  const layers = (plan?.layers ?? []).map((layer): LayerView => ({
    ...layer,
    cut: plan?.prepare?.weed.find(({ filmId }) => filmId === layer.film.id)?.cut ?? layer.cut,
  }));
  const lying = (step?.done ?? [])
    .map((id) => layers.find((layer) => layer.film.id === id))
    .filter((layer) => layer !== undefined);
  const panels = plan?.prepare?.panels ?? [];
  // Panels are shown as they come to lie, their marks taken off.
  const [only] = panels.length === 1 ? panels : [];
  const box = only?.box ?? designBox(plan);
  const onTape = recipe.assembly.way === 'tape';
  const inLayers = step && (step.laying !== null || step.done.length > 0);
  // On tape the work is built face down: what is seen while building is its back, turned over.
  const turnedOver = onTape !== (plan?.surface?.surface.kind === 'glass') && step?.laying !== null && inLayers;
  return (
    <StationLayout
      title="Assemble"
      docket={
        <>
          {unweeded.length > 0 && (
            <NotOut role="status">
              <strong>Not all is out yet.</strong>{' '}
              {unweeded
                .map(({ film, left, copies }) => `${film}: ${left} left${copies > 1 ? ` on ${copies} pieces` : ''}`)
                .join('; ')}
              . <Link to={`/jobs/${job.id}/prepare`}>To the weed map</Link>{' '}
              <WordButton onPress={() => weeded(copies, 'The whole job')}>The whole job is weeded</WordButton>
            </NotOut>
          )}
          <Findings findings={findings} />
          <Rulings rulings={rulings} />
          <Steps>
            {steps.map((s, i) => (
              <li key={`${i}${s.title}`}>
                <Step type="button" aria-pressed={i === at} onClick={() => setChosen(i)}>
                  <strong>
                    {i + 1}. {s.title}
                  </strong>
                  <span>{s.text}</span>
                </Step>
              </li>
            ))}
          </Steps>
        </>
      }
    >
      <LightTable
        label={step ? `Step ${at + 1}: ${step.title}` : 'Assembly'}
        box={box}
        unit={unit}
        caption={
          turnedOver
            ? onTape
              ? 'seen from behind, as it lies on the tape'
              : 'seen from inside, where it is laid'
            : inLayers
              ? 'seen from the front'
              : 'every layer, weeded and lying apart'
        }
      >
        <g transform={turnedOver ? `translate(${box.minX + box.maxX} 0) scale(-1 1)` : undefined}>
          {inLayers ? (
            (turnedOver ? [...lying].reverse() : lying).map((layer) => (
              <g key={layer.film.id}>
                <Shape
                  path={layer.cut}
                  fill={fillOf(layer.film)}
                  fillOpacity={step.laying === null || layer.film.id === step.laying ? 1 : 0.55}
                  stroke="#182325"
                  strokeWidth={layer.film.id === step.laying ? 2 : 0.6}
                  strokeOpacity={layer.film.id === step.laying ? 1 : 0.4}
                  vectorEffect="non-scaling-stroke"
                />
                {step.hasMarks && only && (
                  <path
                    d={only.marks}
                    fill={layer.film.colour}
                    stroke="#182325"
                    strokeWidth="1"
                    vectorEffect="non-scaling-stroke"
                  />
                )}
              </g>
            ))
          ) : (
            <Apart layers={layers} box={box} />
          )}
        </g>
      </LightTable>
      <Row>
        <Button isDisabled={at === 0} onPress={() => setChosen(at - 1)}>
          Step before
        </Button>
        <Button isDisabled={at >= steps.length - 1} onPress={() => setChosen(at + 1)}>
          Next step
        </Button>
      </Row>
    </StationLayout>
  );
}

/** The layers side by side in a grid, before any is laid. */
function Apart({ layers, box }: { readonly layers: readonly LayerView[]; readonly box: Box }) {
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const rowsOf = (columns: number) => Math.ceil(layers.length / columns);
  const columns = layers.reduce(
    (best, _, i) => (Math.max(i + 1, rowsOf(i + 1)) < Math.max(best, rowsOf(best)) ? i + 1 : best),
    1,
  );
  const rows = rowsOf(columns);
  const scale = 0.94 / Math.max(columns, rows);
  return layers.map((layer, i) => (
    <g
      key={layer.film.id}
      transform={`translate(${box.minX + ((i % columns) * w) / columns} ${box.minY + (Math.floor(i / columns) * h) / rows}) scale(${scale}) translate(${-box.minX} ${-box.minY})`}
    >
      <rect
        x={box.minX}
        y={box.minY}
        width={w}
        height={h}
        fill="#ffffff"
        stroke="#9fb0b0"
        strokeWidth="1"
        vectorEffect="non-scaling-stroke"
      />
      <Shape
        path={layer.cut}
        fill={fillOf(layer.film)}
        stroke="#182325"
        strokeOpacity="0.4"
        strokeWidth="0.6"
        vectorEffect="non-scaling-stroke"
      />
    </g>
  ));
}

const NotOut = styled.p`
  padding: ${space.s} ${space.m};
  background: ${colour.warnWash};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
  font-size: ${type.small};
`;

const Steps = styled.ol`
  list-style: none;
  display: grid;
  gap: ${space.xs};
`;

const Step = styled.button`
  display: grid;
  gap: 3px;
  width: 100%;
  text-align: left;
  padding: ${space.s} ${space.m};
  border: 0;
  border-left: 3px solid ${colour.line};
  background: none;
  cursor: pointer;
  font-size: ${type.small};
  border-radius: 0 ${radius.m} ${radius.m} 0;
  span {
    color: ${colour.quiet};
  }
  &:hover {
    background: ${colour.faint};
  }
  &[aria-pressed='true'] {
    border-left-color: ${colour.accent};
    background: ${colour.accentWash};
    span {
      color: ${colour.ink};
    }
  }
`;

const Row = styled.div`
  display: flex;
  gap: ${space.s};
  justify-content: flex-end;
`;
