import { useRef, useState, type KeyboardEvent } from 'react';
import styled, { css } from 'styled-components';
import { formatLength } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useTrial } from '../../job/use-trial.js';
import { colour, space, type } from '../../tokens.js';
import { useDraftOf } from '../../ui/use-draft.js';

const MOST_MM = 2;

/**
 * The trap under the hand: the picture follows while it moves. One drag is one step; so is a row of arrow keys, which is kept on Enter or when
 * the handle is left.
 */
export function TrapHandle({ trapMm, ruledMm }: { readonly trapMm: number; readonly ruledMm: number }) {
  const { handle, unit } = useJobContext();
  const tryOut = useTrial();
  const [tried, setTried] = useState<number | null>(null);
  const range = useRef<HTMLInputElement>(null);
  const draft = useDraftOf<number>({
    label: 'Trap width',
    shown: String(trapMm),
    read: (text: string) => ({ value: Number(text) }),
    onKeep: (mm: number) => handle.change({ build: { trapMm: mm } }),
    onTry: (mm: number | null) => {
      setTried(mm);
      tryOut(mm === null ? null : { build: { trapMm: mm } });
    },
    // A place on the slider can always be read.
    onLost: () => {},
    focus: () => range.current?.focus(),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') draft.keep();
    if (event.key === 'Escape') draft.giveUp();
  };
  const mostMm = Math.max(MOST_MM, ruledMm * 1.5);
  const value = tried ?? trapMm;
  return (
    <Track>
      <Range
        ref={range}
        type="range"
        aria-label="Trap width"
        aria-valuetext={`${formatLength(value, unit)} ${unit}`}
        min={0}
        max={mostMm}
        step={0.05}
        value={value}
        onChange={(event) => draft.try(event.target.valueAsNumber, String(event.target.valueAsNumber))}
        onPointerUp={() => draft.keep()}
        onBlur={() => draft.keep()}
        onKeyDown={onKeyDown}
      />
      <Ruled style={{ left: `calc(${THUMB_PX / 2}px + (100% - ${THUMB_PX}px) * ${Math.min(1, ruledMm / mostMm)})` }}>
        ruled {formatLength(ruledMm, unit)}
      </Ruled>
    </Track>
  );
}

const THUMB_PX = 18;

const Track = styled.div`
  position: relative;
  padding: 4px 2px 20px;
`;

const thumb = css`
  width: ${THUMB_PX}px;
  height: 24px;
  border: 0;
  border-radius: 0;
  background: ${colour.accent};
  clip-path: polygon(0 0, 100% 0, 100% 62%, 50% 100%, 0 62%);
  cursor: grab;
  @media (forced-colors: active) {
    forced-color-adjust: none;
    background: Highlight;
  }
`;

const line = css`
  height: 24px;
  background: repeating-linear-gradient(90deg, ${colour.quiet} 0 6px, transparent 6px 9px) center / 100% 2px no-repeat;
`;

const Range = styled.input`
  appearance: none;
  width: 100%;
  height: 24px;
  margin: 0;
  background: none;
  cursor: pointer;
  &::-webkit-slider-runnable-track {
    ${line}
  }
  &::-moz-range-track {
    ${line}
  }
  &::-webkit-slider-thumb {
    appearance: none;
    ${thumb}
  }
  &::-moz-range-thumb {
    ${thumb}
  }
  &:focus-visible {
    outline: 2.5px solid ${colour.accent};
    outline-offset: 1px;
    border-radius: 3px;
  }
`;

const Ruled = styled.span`
  position: absolute;
  top: 21px;
  padding: 8px 0 0 ${space.xs};
  border-left: 2px solid ${colour.good};
  font-size: 0.75rem;
  line-height: 1;
  color: ${colour.quiet};
  white-space: nowrap;
  pointer-events: none;
  font-family: ${type.text};
  font-variant-numeric: tabular-nums;
`;
