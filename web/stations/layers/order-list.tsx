import { GridList, GridListItem, useDragAndDrop, Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import type { JobFinding } from '../../../core/recipe/index.js';
import { useJobContext } from '../../job/job-context.js';
import type { PlanWorkerApi } from '../../plan/worker-api.js';
import { useAsked } from '../../job/use-asked.js';
import { colour, space, type } from '../../tokens.js';
import { PressableWordButton } from '../../ui/pressable.js';
import { count, sayArea } from '../../../core/words/index.js';
import { Swatch } from '../../ui/swatch.js';
import { useLayerOrder } from './use-layer-order.js';

interface OrderListProps {
  /** Film ids of layers that are not shown. */
  readonly hidden: ReadonlySet<string>;
  readonly onHide: (hidden: ReadonlySet<string>) => void;
}

/** The layers like strata, the uppermost first: dragged, or moved by keys, into another order. */
export function OrderList({ hidden, onHide }: OrderListProps) {
  const { plan, look } = useJobContext();
  const order = useLayerOrder();
  const thinnest = useThinnest();
  const layers = plan?.layers ?? [];
  // As decided, also while the build with it is still being made.
  const ids = [...order.ids].reverse();
  const shown = ids.map((id) => layers.find((layer) => layer.film.id === id)!);
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const moved = [...keys].map(String);
      const rest = ids.filter((id) => !moved.includes(id));
      const at = rest.indexOf(String(target.key)) + (target.dropPosition === 'after' ? 1 : 0);
      order.save([...rest.slice(0, at), ...moved, ...rest.slice(at)].reverse());
    },
  });
  return (
    <section aria-label="Order of the layers">
      <Strata aria-label="Layers, the uppermost first" dragAndDropHooks={dragAndDropHooks}>
        {shown.map((layer) => (
          <Stratum key={layer.film.id} id={layer.film.id} textValue={layer.film.name}>
            <Grip slot="drag" aria-label={`Drag ${layer.film.name}`}>
              ⠿
            </Grip>
            <label>
              <input
                type="checkbox"
                checked={!hidden.has(layer.film.id)}
                onChange={(event) =>
                  onHide(
                    event.target.checked
                      ? new Set([...hidden].filter((id) => id !== layer.film.id))
                      : new Set([...hidden, layer.film.id]),
                  )
                }
                aria-label={`Show ${layer.film.name}`}
              />{' '}
              <Swatch film={layer.film} size={18} /> {layer.film.name}
              <Figures>
                {sayArea(layer.areaMm2)}, {count(layer.pieces, 'piece')}, {count(layer.holes, 'counter')}
                {thinnest[layer.film.id] && `, ${thinnest[layer.film.id]!.mm} mm at its thinnest`}
              </Figures>
            </label>
            <span>
              {thinnest[layer.film.id] && (
                <PressableWordButton
                  aria-label={`where ${layer.film.name} is thinnest`}
                  onPress={() => look(thinnestFinding(layer.film.name, thinnest[layer.film.id]!))}
                >
                  where
                </PressableWordButton>
              )}
              <PressableWordButton
                isDisabled={ids[0] === layer.film.id}
                onPress={() => order.move(layer.film.id, 1)}
                aria-label={`Move ${layer.film.name} up`}
              >
                up
              </PressableWordButton>
              <PressableWordButton
                isDisabled={ids.at(-1) === layer.film.id}
                onPress={() => order.move(layer.film.id, -1)}
                aria-label={`Move ${layer.film.name} down`}
              >
                down
              </PressableWordButton>
            </span>
          </Stratum>
        ))}
      </Strata>
    </section>
  );
}

type Thinnest = NonNullable<Awaited<ReturnType<PlanWorkerApi['thinnest']>>>['value'];

const NOWHERE: Thinnest = {};
/** Not while a hand is still moving something: it takes longer than a build, and the worker would be busy with it. */
const PAUSE_MS = 900;

function useThinnest(): Thinnest {
  return useAsked<Thinnest>((api, plan) => api.thinnest(plan), NOWHERE, '', PAUSE_MS);
}

function thinnestFinding(film: string, { mm, where }: Thinnest[string]): JobFinding {
  return { code: 'thinnest', severity: 'note', stage: 'build', message: `${film} is ${mm} mm at its thinnest.`, where };
}

const Strata = styled(GridList)`
  display: block;
  border-bottom: 6px solid ${colour.line};
  .react-aria-DropIndicator[data-drop-target] {
    outline: 2px solid ${colour.accent};
  }
`;

const Stratum = styled(GridListItem)`
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: ${space.s};
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid ${colour.faint};
  font-size: ${type.small};
  outline-offset: -2px;
  > div {
    display: contents;
  }
  label {
    cursor: pointer;
  }
  &[data-dragging] {
    opacity: 0.5;
  }
`;

const Grip = styled(AriaButton)`
  border: 0;
  background: none;
  color: ${colour.quiet};
  cursor: grab;
  font-size: 1rem;
  line-height: 1;
  padding: 4px 2px;
  min-width: 24px;
  min-height: 24px;
`;

const Figures = styled.span`
  display: block;
  padding-left: 44px;
  color: ${colour.quiet};
  font-variant-numeric: tabular-nums;
`;
