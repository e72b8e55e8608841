import { useEffect, useRef } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { carryAlternates, type ArtworkPart, type LetteringPart } from '../../../core/stations/artwork/index.js';
import type { Lettering } from '../../../core/engines/artwork/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useTrial } from '../../job/use-trial.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { PressableWordButton } from '../../ui/pressable.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Labelled, TextArea } from '../../ui/plain-fields.js';
import { WrongNote } from '../../ui/figure-style.js';
import type { Reading } from '../../ui/draft.js';
import { useDraft } from '../../ui/use-draft.js';
import { FontPicker } from './font-picker.js';
import { LetterColours } from './letter-colours.js';
import { LetterFormsPicker } from './letter-forms.js';
import { useFonts, type FontChoice } from './use-fonts.js';
import type { Arrangement, ArrangedPart } from './use-arrangement.js';

const ALIGN = [
  ['left', 'Left'],
  ['centre', 'Centred'],
  ['right', 'Right'],
] as const;
const ARCS = [
  ['none', 'Straight'],
  ['up', 'Curved up'],
  ['down', 'Curved down'],
] as const;

/** A lettering and all that is decided about it; it stays words, and can be changed at any time. */
export function LetteringEditor({
  arranged,
  arrangement,
}: {
  readonly arranged: ArrangedPart;
  readonly arrangement: Arrangement;
}) {
  const { decided, unit } = useJobContext();
  const { fonts, add } = useFonts();
  const part = arranged.part as LetteringPart;
  // Without what is being tried: that is laid over it anew each time.
  const kept = (decided.artworks.find((other) => other.id === part.id) ?? part) as LetteringPart;
  const { lettering } = part;
  const { scale } = arrangement;
  // The figure shown is what is cut, whatever the part and the design are scaled by.
  const factor = part.place.scale * scale;
  const wordsOf = (text: string): Partial<Lettering> => ({
    text,
    alternates: carryAlternates(kept.lettering.text, text, kept.lettering.alternates),
  });
  const laidIn = (next: LetteringPart) => (all: readonly ArtworkPart[]) =>
    all.map((other) => (other.id === part.id ? next : other));
  const replace = (next: LetteringPart) => arrangement.change(laidIn(next));
  const withWords = (next: Partial<Lettering>): LetteringPart => ({
    ...kept,
    lettering: { ...kept.lettering, ...next },
  });
  const set = (next: Partial<Lettering>) => replace(withWords(next));
  const show = useTrial();
  const tryOut = (next: Partial<Lettering> | null) => show(next && arrangement.asPatch(laidIn(withWords(next))));
  const take = (font: FontChoice) =>
    replace({ ...part, fontSource: font.source, lettering: { ...lettering, font: font.id, alternates: {} } });
  return (
    <Box aria-label="Lettering">
      <Words
        key={part.id}
        text={kept.lettering.text}
        onChange={(text) => set(wordsOf(text))}
        onTry={(text) => tryOut(text === null ? null : wordsOf(text))}
      />
      <FontPicker fonts={fonts} chosen={lettering.font} words={lettering.text} onChoose={take} />
      <p>
        <FileTrigger
          acceptedFileTypes={['.ttf', '.otf', '.woff', '.woff2']}
          onSelect={(files) => files?.[0] && void add(files[0]).then((font) => font && take(font))}
        >
          <PressableWordButton>Add a font of your own</PressableWordButton>
        </FileTrigger>
      </p>
      <p>
        A capital is{' '}
        <FigureField
          label="Cap height"
          mm={lettering.capHeightMm * factor}
          unit={unit}
          min={1}
          max={5000}
          stepMm={1}
          onChange={(mm) => set({ capHeightMm: mm / factor })}
        />{' '}
        high; letters stand{' '}
        <NumberField
          label="Tracking, % of the cap height"
          value={lettering.trackingPct}
          min={-50}
          max={500}
          onChange={(trackingPct) => set({ trackingPct })}
        />{' '}
        % of that further apart
        {lettering.text.includes('\n') && (
          <>
            , lines{' '}
            <NumberField
              label="Line spacing, % of the cap height"
              value={Math.round(lettering.lineSpacing * 100)}
              min={50}
              max={1000}
              onChange={(pct) => set({ lineSpacing: pct / 100 })}
            />{' '}
            % of it below each other
          </>
        )}
        .
      </p>
      {lettering.text.includes('\n') && (
        <Choice label="Alignment" value={lettering.align} options={ALIGN} onChange={(align) => set({ align })} />
      )}
      <div>
        <Choice
          label="Baseline"
          value={lettering.arc?.bend ?? 'none'}
          options={ARCS}
          onChange={(bend) =>
            set({ arc: bend === 'none' ? null : { bend, radiusMm: lettering.arc?.radiusMm ?? roundRadius(arranged) } })
          }
        />
        {lettering.arc && (
          <p>
            on a circle of radius{' '}
            <FigureField
              label="Radius of the arc"
              mm={lettering.arc.radiusMm * factor}
              unit={unit}
              min={1}
              stepMm={5}
              onChange={(mm) => set({ arc: { ...lettering.arc!, radiusMm: mm / factor } })}
            />
            .
          </p>
        )}
      </div>
      <LetterColours lettering={kept.lettering} onChange={set} onTry={tryOut} />
      <p>
        Kerning is{' '}
        <WordButton onPress={() => set({ kerning: !lettering.kerning })}>{lettering.kerning ? 'on' : 'off'}</WordButton>
        , ligatures are{' '}
        <WordButton onPress={() => set({ ligatures: !lettering.ligatures })}>
          {lettering.ligatures ? 'on' : 'off'}
        </WordButton>
        {lettering.ligatures && lettering.trackingPct !== 0 ? ', but not while the letters are spaced' : ''}. Words are{' '}
        <WordButton onPress={() => set({ joinWords: !lettering.joinWords })}>
          {lettering.joinWords ? 'joined, each in one piece' : 'as they are set'}
        </WordButton>
        .
      </p>
      <LetterFormsPicker part={part} onChoose={(alternates) => set({ alternates })} />
    </Box>
  );
}

/** A radius at which the words take up about a quarter of the circle. */
function roundRadius({ box, place }: ArrangedPart): number {
  return Math.round((box.maxX - box.minX) / place.scale / (Math.PI / 2));
}

/** After so long without another letter the words are shown as they will be cut. */
const PAUSE_MS = 300;

interface WordsProps {
  readonly text: string;
  readonly onChange: (text: string) => void;
  readonly onTry: (text: string | null) => void;
}

function Words({ text, onChange, onTry }: WordsProps) {
  const read = (typed: string): Reading<string> =>
    typed.trim() === '' ? { wrong: 'Type at least one letter.' } : { value: typed.slice(0, 500) };
  const { draft, props } = useDraft<string, HTMLTextAreaElement>({
    label: 'The words',
    shown: text,
    read,
    onKeep: onChange,
    isLong: true,
  });
  const typed = draft.text;
  const latest = useRef(onTry);
  useEffect(() => {
    latest.current = onTry;
  });
  useEffect(() => {
    if (typed === text || typed.trim() === '') {
      latest.current(null);
      return undefined;
    }
    const pause = setTimeout(() => latest.current(typed.slice(0, 500)), PAUSE_MS);
    return () => clearTimeout(pause);
  }, [typed, text]);
  return (
    <Labelled>
      The words
      <TextArea {...props} dir="auto" rows={Math.min(5, typed.split('\n').length + 1)} />
      <WrongNote draft={draft} />
    </Labelled>
  );
}

const Box = styled.section`
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  line-height: 1.8;
  padding-left: ${space.m};
  border-left: 2px solid ${colour.accent};
  textarea {
    font-size: 1.05rem;
    line-height: 1.3;
  }
`;
