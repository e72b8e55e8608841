import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { colour, radius, space } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { canSet, useSample, type FontChoice } from './use-fonts.js';

interface FontPickerProps {
  readonly fonts: readonly FontChoice[];
  readonly chosen: string;
  readonly words: string;
  readonly onChoose: (font: FontChoice) => void;
}

/** The fonts, each showing the words themselves as they would be set in it. */
export function FontPicker({ fonts, chosen, words, onChoose }: FontPickerProps) {
  const [open, setOpen] = useState(false);
  const list = useRef<HTMLFieldSetElement>(null);
  const sample = words.replace(/\s+/g, ' ').trim().slice(0, 22);
  const current = fonts.find((font) => font.id === chosen);
  const offered = fonts.filter((font) => font.id === chosen || canSet(font, words));
  useEffect(() => {
    const at = open ? list.current?.querySelector('input:checked')?.parentElement : null;
    if (at && list.current) list.current.scrollTop = at.offsetTop - 60;
  }, [open]);
  return (
    <div>
      <p>
        It is set in <strong>{current?.name ?? 'a font that is no longer here'}</strong>.{' '}
        <WordButton aria-expanded={open} onPress={() => setOpen(!open)}>
          {open ? 'Close the fonts' : 'Another font'}
        </WordButton>
      </p>
      {open && (
        <List ref={list}>
          <legend className="unseen">Fonts</legend>
          {offered.length < fonts.length && <Note>Only fonts that have these letters are shown.</Note>}
          {offered.map((font) => (
            <Row
              key={font.id}
              font={font}
              sample={sample}
              isChosen={font.id === chosen}
              onChoose={() => onChoose(font)}
            />
          ))}
        </List>
      )}
    </div>
  );
}

function Row({
  font,
  sample,
  isChosen,
  onChoose,
}: {
  readonly font: FontChoice;
  readonly sample: string;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}) {
  const ready = useSample(font, sample);
  return (
    <Line>
      <input
        type="radio"
        name="font"
        checked={isChosen}
        onChange={onChoose}
        aria-label={`${font.name}, ${font.style}`}
      />
      <Words
        aria-hidden
        dir="auto"
        style={{ fontFamily: ready ? `"${font.face}"` : undefined, opacity: ready ? 1 : 0.4 }}
      >
        {sample}
      </Words>
      <small aria-hidden>
        {font.name} · {font.style}
      </small>
    </Line>
  );
}

const List = styled.fieldset`
  position: relative;
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  margin: 0;
  padding: ${space.xs};
  max-height: 236px;
  overflow-y: auto;
  background: ${colour.raised};
`;

const Note = styled.p`
  margin: 0;
  padding: 4px ${space.s};
  color: ${colour.quiet};
  font-size: 0.8rem;
`;

const Line = styled.label`
  position: relative;
  display: block;
  padding: 4px ${space.s};
  cursor: pointer;
  border-radius: ${radius.s};
  line-height: 1.2;
  input {
    position: absolute;
    opacity: 0;
    inset: 0;
    margin: 0;
    cursor: pointer;
  }
  small {
    color: ${colour.quiet};
    font-size: 0.76rem;
  }
  &:hover {
    background: ${colour.faint};
  }
  &:has(input:checked) {
    background: ${colour.accentWash};
    box-shadow: inset 3px 0 0 ${colour.accent};
  }
  &:has(input:focus-visible) {
    outline: 2.5px solid ${colour.accent};
    outline-offset: -2px;
  }
`;

const Words = styled.span`
  display: block;
  text-align: left;
  font-size: 1.35rem;
  line-height: 1.35;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
`;
