import { useState } from 'react';
import styled from 'styled-components';
import { colourDifference } from '../../../core/engines/artwork/index.js';
import { colourFamilies, NEAR_COLOUR, withFamilies } from '../../../core/engines/layers/index.js';
import { count } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { useTrial } from '../../job/use-trial.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Swatch } from '../../ui/swatch.js';

/** From here on colours have nothing to do with each other. */
const MOST = 25;

/** Near colours taken as families: how much they may differ, which go together, and what that saves; shown on the light table while it is chosen. */
export function NearColours() {
  const { plan, decided, handle } = useJobContext();
  const show = useTrial();
  const [within, setWithin] = useState<number>(NEAR_COLOUR);
  // While it is tried, and until that is planned back, the plan has the colours as they would be: what there is to choose from is what there was before.
  const [before, setBefore] = useState<{
    readonly decided: typeof decided;
    readonly colours: NonNullable<NonNullable<typeof plan>['colours']>;
  } | null>(null);
  const colours = before?.decided === decided ? before.colours : (plan?.colours ?? []);
  const families = colourFamilies(colours, within, colourDifference);
  const patchOf = (chosen: typeof families) => ({
    repair: { recolour: withFamilies(decided.repair.recolour, chosen) },
  });
  const left = colours.length - families.reduce((sum, { others }) => sum + others.length, 0);
  const saved = colours.length - left;
  const move = (next: number) => {
    setWithin(next);
    setBefore({ decided, colours });
    show(patchOf(colourFamilies(colours, next, colourDifference)));
  };
  const take = () => {
    show(null);
    void handle.change(patchOf(families));
  };
  return (
    <Box>
      <label>
        Taken as one colour: up to a difference of {within}
        <input
          type="range"
          min={1}
          max={MOST}
          step={1}
          value={within}
          aria-valuetext={`${within}: ${count(colours.length, 'colour')} become ${left}`}
          onChange={(event) => move(Number(event.target.value))}
          onBlur={() => show(null)}
        />
      </label>
      <Families aria-label="Colours that become one">
        {families.map(({ keep, others }) => (
          <li key={keep}>
            <Swatch film={{ colour: keep, finish: 'matt' }} size={20} />{' '}
            <span className="unseen">{plan?.colourNames?.[keep] ?? keep} stands for</span> ←{' '}
            {others.map((other) => (
              <span key={other} title={`${plan?.colourNames?.[other] ?? ''} ${other}`.trim()}>
                <Swatch film={{ colour: other, finish: 'matt' }} size={16} />{' '}
                <span className="unseen">{plan?.colourNames?.[other] ?? other}</span>
              </span>
            ))}
          </li>
        ))}
      </Families>
      <p>
        {saved === 0
          ? 'No two colours are that near.'
          : `${count(colours.length, 'colour')} become ${left}: up to ${count(saved, 'sheet')} and ${count(saved, 'alignment')} fewer. `}
        {saved > 0 && <WordButton onPress={take}>{`Make them ${left}`}</WordButton>}
      </p>
    </Box>
  );
}

const Box = styled.div`
  display: grid;
  gap: ${space.xs};
  padding-top: ${space.s};
  font-size: ${type.small};
  input {
    width: 100%;
    accent-color: ${colour.accent};
  }
`;
const Families = styled.ul`
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s} ${space.m};
`;
