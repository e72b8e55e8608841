import type { Film } from '../../../core/shop/index.js';
import type { KnockOut } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { WordButton } from '../../ui/button.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { FillBelow } from './fill-below.js';
import { FilmChoice, Said } from './film-choice.js';

/** One cut-out: what is taken out of what, with how much room, and what becomes of the bits between. */
export function KnockOutEditor({ at, films }: { readonly at: number; readonly films: readonly Film[] }) {
  const { recipe, handle, unit } = useJobContext();
  const { knockOuts } = recipe.build;
  const one = knockOuts[at]!;
  const set = (next: Partial<KnockOut>) =>
    handle.change({ build: { knockOuts: knockOuts.map((other, i) => (i === at ? { ...other, ...next } : other)) } });
  return (
    <Said>
      <FilmChoice
        label={`Shapes cut out, ${at + 1}`}
        films={films}
        value={one.shapeFilmId}
        onChange={(shapeFilmId) => set({ shapeFilmId })}
      />{' '}
      is cut out of{' '}
      <FilmChoice
        label={`Cut out of, ${at + 1}`}
        films={films}
        value={one.baseFilmId}
        onChange={(baseFilmId) => set({ baseFilmId })}
      />{' '}
      with{' '}
      <FigureField
        label={`Clearance, ${at + 1}`}
        mm={one.clearanceMm}
        unit={unit}
        max={50}
        stepMm={0.5}
        onChange={(clearanceMm) => set({ clearanceMm })}
      />{' '}
      free all around.{' '}
      <Picker
        label={`Letters of a word, ${at + 1}`}
        value={one.joinWords ? 'join' : 'stay'}
        options={[
          { id: 'stay', text: 'Its pieces stay where they are' },
          { id: 'join', text: 'Its letters move together, each word one piece' },
        ]}
        onChange={(way) => set({ joinWords: way === 'join' })}
      />
      . What lies inside its shapes and between them{' '}
      <FillBelow
        label={`Inside and between, ${at + 1}`}
        figureLabel={`Narrower than this goes, ${at + 1}`}
        belowMm={one.fillBelowMm}
        words={['stays', 'goes where it is narrow', 'goes too, all of it']}
        before=", below "
        onChange={(fillBelowMm) => set({ fillBelowMm })}
      />
      ; pieces that come off are dropped{' '}
      <Picker
        label={`Pieces that come off, ${at + 1}`}
        value={one.dropBelowMm2 === null ? 'weed' : 'size'}
        options={[
          { id: 'weed', text: 'where they cannot be weeded' },
          { id: 'size', text: 'where they are small' },
        ]}
        onChange={(where) => set({ dropBelowMm2: where === 'weed' ? null : 25 })}
      />
      {one.dropBelowMm2 !== null && (
        <>
          , below a square of{' '}
          <FigureField
            label={`Side of the square below which pieces are dropped, ${at + 1}`}
            mm={Math.sqrt(one.dropBelowMm2)}
            unit={unit}
            min={0.1}
            max={1000}
            stepMm={0.5}
            onChange={(side) => set({ dropBelowMm2: Number((side * side).toFixed(4)) })}
          />
        </>
      )}
      .{' '}
      <WordButton
        aria-label={`Remove: knock-out ${at + 1}`}
        onPress={() => handle.change({ build: { knockOuts: knockOuts.filter((other) => other !== one) } })}
      >
        Remove
      </WordButton>
    </Said>
  );
}
