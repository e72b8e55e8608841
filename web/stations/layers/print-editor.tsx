import type { Film } from '../../../core/shop/index.js';
import type { Contour } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { FilmChoice, Said } from './film-choice.js';

/** The cut line of artwork that is printed: on which side of its edge, and how far from it. */
export function PrintEditor({ contour, plain }: { readonly contour: Contour; readonly plain: readonly Film[] }) {
  const { plan, handle, unit } = useJobContext();
  const set = (next: Contour | null) => handle.change({ build: { contour: next } });
  const ruled = Number(plan?.rulings.find((ruling) => ruling.id === 'build.contour')?.value ?? 0);
  const figure = (
    <FigureField
      label="Cut line moved by"
      mm={contour.byMm ?? ruled}
      unit={unit}
      max={50}
      stepMm={0.1}
      onChange={(byMm) => set({ ...contour, byMm })}
    />
  );
  return (
    <Said>
      The artwork is printed on{' '}
      <FilmChoice
        label="Film that is printed on"
        films={plain}
        value={contour.filmId}
        onChange={(filmId) => set({ ...contour, filmId })}
      />{' '}
      and cut {/* Another side is another judgement: the figure is the app's again. */}
      <Picker
        label="Side of the cut line"
        value={contour.side}
        options={[
          { id: 'inside', text: 'inside its edge' },
          { id: 'outside', text: 'outside its edge' },
          { id: 'bleed', text: 'on its edge, with a bleed' },
        ]}
        onChange={(side) => set({ ...contour, side: side as Contour['side'], byMm: null })}
      />
      , {contour.side === 'bleed' ? <>printed {figure} beyond it</> : <>{figure} from it</>}
      {contour.byMm !== null && (
        <>
          {' ('}
          <WordButton onPress={() => set({ ...contour, byMm: null })}>let the app decide how far</WordButton>)
        </>
      )}
      . <WordButton onPress={() => set(null)}>Cut it from film instead</WordButton>
    </Said>
  );
}
