import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { formatLength } from '../../../core/job/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useTrial } from '../../job/use-trial.js';
import { colour, space, type } from '../../tokens.js';
import { Draft } from '../../ui/draft.js';

const MOST_MM = 2;

/**
 * The trap under the hand: the picture follows while it moves. One drag is one step; so is a row of arrow keys, which is kept on Enter or when
 * the handle is left.
 */
export function TrapHandle({ trapMm, ruledMm }: { readonly trapMm: number; readonly ruledMm: number }) {
  const { handle, unit } = useJobContext();
  const tryOut = useTrial();
  const [tried, setTried] = useState<number | null>(null);
  const isDragged = useRef(false);
  const thumb = useRef<HTMLDivElement>(null);
  const options = {
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
    focus: () => thumb.current?.querySelector('input')?.focus(),
  };
  const [draft] = useState(() => new Draft<number>(options));
  useEffect(() => {
    draft.options = options;
  });
  useEffect(() => () => draft.close(), [draft]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') draft.keep();
    if (event.key === 'Escape') draft.giveUp();
  };
  return (
    <div onPointerDownCapture={() => (isDragged.current = true)} onBlur={() => draft.keep()} onKeyDownCapture={onKeyDown}>
      <Track
        aria-label="Trap width"
        value={tried ?? trapMm}
        minValue={0}
        maxValue={Math.max(MOST_MM, ruledMm * 1.5)}
        step={0.05}
        formatOptions={{ style: 'unit', unit: 'millimeter', maximumFractionDigits: 2 }}
        onChange={(mm) => draft.try(mm as number, String(mm))}
        onChangeEnd={() => {
          if (isDragged.current) draft.keep();
          isDragged.current = false;
        }}
      >
        <SliderTrack>
          {({ state }) => (
            <>
              <Rail />
              <Ruled style={{ left: `${(100 * ruledMm) / state.getThumbMaxValue(0)}%` }}>ruled {formatLength(ruledMm, unit)}</Ruled>
              <Thumb ref={thumb} />
            </>
          )}
        </SliderTrack>
      </Track>
    </div>
  );
}

const Track = styled(Slider)`padding: 4px 10px 20px; .react-aria-SliderTrack { position: relative; height: 24px; }`;

const Rail = styled.span`
  position: absolute; top: 11px; left: -8px; right: -8px; height: 2px;
  background: repeating-linear-gradient(90deg, ${colour.quiet} 0 6px, transparent 6px 9px);
`;

const Ruled = styled.span`
  position: absolute; top: 17px; padding-left: ${space.xs}; border-left: 2px solid ${colour.good}; font-size: 0.75rem; line-height: 1; padding-top: 8px; color: ${colour.quiet}; white-space: nowrap;
  font-family: ${type.text}; font-variant-numeric: tabular-nums;
`;

const Thumb = styled(SliderThumb)`
  top: 12px; width: 18px; height: 24px; background: ${colour.accent}; border: 2px solid ${colour.docket}; clip-path: polygon(0 0, 100% 0, 100% 62%, 50% 100%, 0 62%);
  @media (forced-colors: active) { forced-color-adjust: none; background: Highlight; border-color: Canvas; }
  &[data-focus-visible] { outline: none; clip-path: none; border-radius: 3px; box-shadow: 0 0 0 3px ${colour.docket}, 0 0 0 5.500px ${colour.accent}; }
`;
