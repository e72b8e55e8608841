import { MATTERS } from '../../../core/shop/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useTrial } from '../../job/use-trial.js';
import { WordButton } from '../../ui/button.js';
import { ColourField } from '../../ui/colour-field.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { Said, useSurface } from './surface-fields.js';

const PAINT = [
  ['none', 'not freshly painted'],
  ['wall', 'a freshly painted wall'],
  ['vehicle', 'a freshly painted vehicle'],
] as const;

/** What the surface is made of, its colour, and from how far it is read. */
export function Ground() {
  const { unit } = useJobContext();
  const tryIt = useTrial();
  const { surface, change } = useSurface();
  const { ground, freshPaint, readFromMm } = surface;
  const asked = ground ?? { matter: 'gloss paint' as const, colour: '#ffffff' };
  return (
    <>
      <Said>
        It is made of{' '}
        <Picker
          label="Made of"
          value={ground?.matter ?? ''}
          placeholder="not said"
          options={MATTERS.map((matter) => ({ id: matter, text: matter }))}
          onChange={(id) => change({ ground: { ...asked, matter: MATTERS.find((matter) => matter === id)! } })}
        />
        {ground && (
          <>
            {' '}
            and is{' '}
            <ColourField
              label="Colour of the surface"
              value={ground.colour}
              onChange={(colour) => change({ ground: { ...ground, colour } })}
              onTry={(colour) => tryIt(colour === null ? null : { surface: { ground: { ...ground, colour } } })}
            />{' '}
            in colour
          </>
        )}
        {/* Cloth is not painted; what was said before still shows, so that it can be taken back. */}
        {(surface.kind !== 'garment' || freshPaint !== null) && (
          <>
            ,{' '}
            <Picker
              label="Fresh paint"
              value={freshPaint ?? 'none'}
              options={PAINT.map(([id, text]) => ({ id, text }))}
              onChange={(id) => change({ freshPaint: id === 'wall' || id === 'vehicle' ? id : null })}
            />
          </>
        )}
        .
      </Said>
      {readFromMm === null ? (
        <div>
          <WordButton onPress={() => change({ readFromMm: 10_000 })}>Say from how far it is read</WordButton>
        </div>
      ) : (
        <Said>
          It is read from{' '}
          <FigureField
            label="Read from"
            mm={readFromMm}
            unit={unit}
            min={1}
            max={1_000_000}
            stepMm={500}
            onChange={(mm) => change({ readFromMm: mm })}
          />
          . <WordButton onPress={() => change({ readFromMm: null })}>Leave that out</WordButton>
        </Said>
      )}
    </>
  );
}
