import { ALL_HOLES_MM } from '../../../core/stations/layers/index.js';
import { useJobContext } from '../../job/job-context.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';

/** What is narrow enough to be filled when only some is, to begin with, mm. */
const SOME_MM = 5;

interface FillBelowProps {
  readonly label: string;
  readonly figureLabel: string;
  readonly belowMm: number;
  /** What is said when nothing, what is narrow, and all of it is filled. */
  readonly words: readonly [none: string, some: string, all: string];
  /** What stands between the choice and its figure. */
  readonly before: string;
  readonly onChange: (belowMm: number) => void;
}

/** Whether nothing, what is narrower than a figure, or all is filled. */
export function FillBelow({ label, figureLabel, belowMm, words, before, onChange }: FillBelowProps) {
  const { unit } = useJobContext();
  const choices = [0, SOME_MM, ALL_HOLES_MM];
  const isSome = belowMm > 0 && belowMm < ALL_HOLES_MM;
  return (
    <>
      <Picker
        label={label}
        value={String(belowMm === 0 ? 0 : isSome ? 1 : 2)}
        options={words.map((text, i) => ({ id: String(i), text }))}
        onChange={(i) => onChange(choices[Number(i)]!)}
      />
      {isSome && (
        <>
          {before}
          <FigureField label={figureLabel} mm={belowMm} unit={unit} min={0.1} stepMm={0.5} onChange={onChange} />
        </>
      )}
    </>
  );
}
