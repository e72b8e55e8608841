import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { formatLength } from '../../../core/job/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';

const MOST_MM = 2;

/** The trap under the hand: the picture follows while it moves, and the last place is kept as one step. */
export function TrapHandle({ trapMm, ruledMm }: { readonly trapMm: number; readonly ruledMm: number }) {
  const { handle, unit } = useJobContext();
  return (
    <Track
      aria-label="Trap width"
      value={trapMm}
      minValue={0}
      maxValue={Math.max(MOST_MM, ruledMm * 1.5)}
      step={0.05}
      onChange={(mm) => handle.preview({ build: { trapMm: mm as number } })}
      onChangeEnd={(mm) => handle.change({ build: { trapMm: mm as number } })}
    >
      <SliderTrack>
        {({ state }) => (
          <>
            <Rail />
            <Ruled style={{ left: `${(100 * ruledMm) / state.getThumbMaxValue(0)}%` }}>ruled {formatLength(ruledMm, unit)}</Ruled>
            <Thumb />
          </>
        )}
      </SliderTrack>
    </Track>
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
  &[data-focus-visible] { outline: none; clip-path: none; border-radius: 3px; box-shadow: 0 0 0 3px ${colour.docket}, 0 0 0 5.500px ${colour.accent}; }
`;
