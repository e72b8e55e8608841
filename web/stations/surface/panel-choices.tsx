import { HANGS } from '../../../core/stations/surface/index.js';
import { Choice } from '../../ui/choice.js';
import { useSurface } from './surface-fields.js';

const ON_WHAT = { wall: 'on a wall', vehicle: 'on a vehicle', boat: 'on a boat' } as const;

/** Where a sign in panels hangs, which rules how they lap. */
export function PanelChoices({ along }: { readonly along: 'across' | 'down' }) {
  const { surface, change } = useSurface();
  const { panels } = surface;
  return (
    <>
      <p>
        <Choice
          label="Where it hangs"
          value={panels.hangs}
          options={HANGS.map((hangs) => [hangs, ON_WHAT[hangs]] as const)}
          onChange={(hangs) => change({ panels: { ...panels, hangs } })}
        />
      </p>
      {along === 'across' && (
        <p>
          <Choice
            label="Which end"
            value={panels.weather}
            options={
              panels.hangs === 'wall'
                ? [
                    ['left', 'weather from the left'],
                    ['right', 'from the right'],
                  ]
                : [
                    ['left', 'front on the left'],
                    ['right', 'on the right'],
                  ]
            }
            onChange={(weather) => change({ panels: { ...panels, weather } })}
          />
        </p>
      )}
    </>
  );
}
