import styled from 'styled-components';
import type { Recipe } from '../../../core/recipe/index.js';
import { count } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { Picker } from '../../ui/picker.js';
import { Swatch } from '../../ui/swatch.js';
import { NearColours } from './near-colours.js';

/** The colours of the design, each of which can be taken for another or for bare surface. */
export function ColoursFound() {
  const { recipe, plan, handle } = useJobContext();
  if (!plan?.colours || recipe.artworks.length === 0) return null;
  const { recolour, noFilm } = recipe.repair;
  const shown = plan.colours.map((use) => use.colour);
  const all = [...new Set([...shown, ...Object.keys(recolour), ...noFilm])];
  const nameOf = (hex: string) => `${plan.colourNames?.[hex] ?? ''} ${hex}`.trim();
  const decide = (from: string, to: string) => {
    const rest = Object.fromEntries(Object.entries(recolour).filter(([key]) => key !== from));
    const others = noFilm.filter((hex) => hex !== from);
    const next: Pick<Recipe['repair'], 'recolour' | 'noFilm'> = {
      recolour: to.startsWith('#') && to !== from ? { ...rest, [from]: to } : rest,
      noFilm: to === 'none' ? [...others, from] : others,
    };
    handle.change({ repair: next });
  };
  return (
    <details>
      <summary>{`${count(shown.length, 'colour')}${all.length > shown.length ? `, made of ${all.length} in the artwork` : ' found'}`}</summary>
      <List aria-label="Colours found">
        {all.map((hex) => (
          <li key={hex}>
            <Swatch film={{ colour: hex, finish: 'matt' }} size={18} />{' '}
            <span>
              {plan.colourNames?.[hex]} <small>{hex}</small>
            </span>
            <Picker
              label={`How ${nameOf(hex)} is cut`}
              value={noFilm.includes(hex) ? 'none' : (recolour[hex] ?? hex)}
              options={[
                { id: hex, text: 'from its own film' },
                { id: 'none', text: 'not at all: bare surface' },
                ...all
                  .filter((other) => other !== hex)
                  .map((other) => ({ id: other, text: `together with ${nameOf(other)}` })),
              ]}
              onChange={(way) => decide(hex, way)}
            />
          </li>
        ))}
      </List>
      {shown.length > 2 && <NearColours />}
    </details>
  );
}

const List = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.xs};
  font-size: ${type.small};
  font-variant-numeric: tabular-nums;
  padding-top: ${space.s};
  li {
    display: flex;
    align-items: center;
    gap: ${space.s};
  }
  > li > span:not([aria-hidden]) {
    flex: 1 1 8em;
  }
  small {
    color: ${colour.quiet};
  }
  button[aria-haspopup] {
    flex: 1 1 9em;
    min-width: 0;
  }
`;
