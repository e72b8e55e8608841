import { useEffect, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { carryAlternates, type Lettering, type LetteringPart } from '../../../core/job/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Labelled, TextArea } from '../../ui/plain-fields.js';
import { FontPicker } from './font-picker.js';
import { LetterFormsPicker } from './letter-forms.js';
import { useFonts, type FontChoice } from './use-fonts.js';
import type { Arrangement, ArrangedPart } from './use-arrangement.js';

const ALIGN = [['left', 'Left'], ['centre', 'Centred'], ['right', 'Right']] as const;
const COLOUR_BY = [['all', 'All alike'], ['line', 'By line'], ['word', 'By word'], ['letter', 'By letter']] as const;
const ARCS = [['none', 'Straight'], ['up', 'Over a hill'], ['down', 'Through a valley']] as const;

/** A lettering and all that is decided about it; it stays words, and can be changed at any time. */
export function LetteringEditor({ arranged, arrangement }: { readonly arranged: ArrangedPart; readonly arrangement: Arrangement }) {
  const { unit } = useJobContext();
  const { fonts, add } = useFonts();
  const part = arranged.part as LetteringPart;
  const { lettering } = part;
  const { scale, change } = arrangement;
  // The figure shown is what is cut, whatever the part and the design are scaled by.
  const factor = part.place.scale * scale;
  const replace = (next: LetteringPart) => change((all) => all.map((other) => (other.id === part.id ? next : other)));
  const set = (next: Partial<Lettering>) => replace({ ...part, lettering: { ...lettering, ...next } });
  const take = (font: FontChoice) => replace({ ...part, fontSource: font.source, lettering: { ...lettering, font: font.id, alternates: {} } });
  return (
    <Box aria-label="Lettering">
      <Words key={part.id} text={lettering.text} onChange={(text) => set({ text, alternates: carryAlternates(lettering.text, text, lettering.alternates) })} />
      <FontPicker fonts={fonts} chosen={lettering.font} words={lettering.text} onChoose={take} />
      <p>
        <FileTrigger acceptedFileTypes={['.ttf', '.otf', '.woff', '.woff2']} onSelect={(files) => files?.[0] && void add(files[0]).then((font) => font && take(font))}>
          <WordButton>Add a font of your own</WordButton>
        </FileTrigger>
      </p>
      <p>
        A capital is <FigureField label="Cap height" mm={lettering.capHeightMm * factor} unit={unit} min={1} max={5000} stepMm={1} onChange={(mm) => set({ capHeightMm: mm / factor })} /> high; letters stand{' '}
        <NumberField label="Tracking, % of the cap height" value={lettering.trackingPct} min={-50} max={500} onChange={(trackingPct) => set({ trackingPct })} /> % of that further apart
        {lettering.text.includes('\n') && (
          <>
            , lines <NumberField label="Line spacing, % of the cap height" value={Math.round(lettering.lineSpacing * 100)} min={50} max={1000} onChange={(pct) => set({ lineSpacing: pct / 100 })} /> % of it below each other
          </>
        )}
        .
      </p>
      {lettering.text.includes('\n') && <Choice label="Lines stand" value={lettering.align} options={ALIGN} onChange={(align) => set({ align })} />}
      <div>
        <Choice label="The baseline runs" value={lettering.arc?.bend ?? 'none'} options={ARCS} onChange={(bend) => set({ arc: bend === 'none' ? null : { bend, radiusMm: lettering.arc?.radiusMm ?? roundRadius(arranged) } })} />
        {lettering.arc && (
          <p>
            on a circle of radius <FigureField label="Radius of the arc" mm={lettering.arc.radiusMm * factor} unit={unit} min={1} stepMm={5} onChange={(mm) => set({ arc: { ...lettering.arc!, radiusMm: mm / factor } })} />.
          </p>
        )}
      </div>
      <Colours lettering={lettering} onChange={set} />
      <p>
        Kerning is <WordButton onPress={() => set({ kerning: !lettering.kerning })}>{lettering.kerning ? 'on' : 'off'}</WordButton>, ligatures are{' '}
        <WordButton onPress={() => set({ ligatures: !lettering.ligatures })}>{lettering.ligatures ? 'on' : 'off'}</WordButton>
        {lettering.ligatures && lettering.trackingPct !== 0 ? ', but letters set apart take none' : ''}.
      </p>
      <LetterFormsPicker part={part} onChoose={(alternates) => set({ alternates })} />
    </Box>
  );
}

/** A radius at which the words take up about a quarter of the circle. */
function roundRadius({ box, place }: ArrangedPart): number {
  return Math.round((box.maxX - box.minX) / place.scale / (Math.PI / 2));
}

function Words({ text, onChange }: { readonly text: string; readonly onChange: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  useEffect(() => setTyped(text), [text]);
  const commit = () => {
    const next = typed.slice(0, 500);
    if (next.trim() === '') setTyped(text);
    else if (next !== text) onChange(next);
  };
  // Typing goes on while the picture follows; a pause makes it one step that can be undone.
  useEffect(() => {
    if (typed === text || typed.trim() === '') return undefined;
    const pause = setTimeout(() => onChange(typed.slice(0, 500)), 450);
    return () => clearTimeout(pause);
  }, [typed, text, onChange]);
  return (
    <Labelled>
      The words
      <TextArea aria-label="The words" value={typed} rows={Math.min(5, typed.split('\n').length + 1)} onChange={(event) => setTyped(event.target.value)} onBlur={commit} />
    </Labelled>
  );
}

function Colours({ lettering, onChange }: { readonly lettering: Lettering; readonly onChange: (next: Partial<Lettering>) => void }) {
  const { colourBy, colours } = lettering;
  const shown = colourBy === 'all' ? colours.slice(0, 1) : colours;
  return (
    <div>
      <Choice label="Colour by" value={colourBy} options={COLOUR_BY} onChange={(by) => onChange({ colourBy: by, colours: by !== 'all' && colours.length < 2 ? [colours[0]!, '#b3262b'] : colours })} />
      <p>
        {colourBy === 'all' ? 'It is ' : 'In turn they are '}
        {shown.map((hex, i) => (
          <ColourWell key={i} type="color" aria-label={`Colour ${i + 1}`} value={hex} onChange={(event) => onChange({ colours: colours.map((other, k) => (k === i ? event.target.value : other)) })} />
        ))}{' '}
        {colourBy !== 'all' && colours.length < 8 && <WordButton onPress={() => onChange({ colours: [...colours, '#1d4e89'] })}>one more</WordButton>}{' '}
        {colourBy !== 'all' && colours.length > 1 && <WordButton onPress={() => onChange({ colours: colours.slice(0, -1) })}>one fewer</WordButton>}
      </p>
    </div>
  );
}

const Box = styled.section`
  display: grid; gap: ${space.s}; font-size: ${type.small}; line-height: 1.8; padding-left: ${space.m}; border-left: 2px solid ${colour.accent};
  textarea { font-size: 1.05rem; line-height: 1.3; }
`;

const ColourWell = styled.input`width: 34px; height: 26px; padding: 1px; border: 1px solid ${colour.quiet}; border-radius: 4px; background: ${colour.raised}; vertical-align: middle; margin-right: 4px; cursor: pointer;`;
