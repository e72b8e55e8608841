import styled from 'styled-components';
import { bandHeights, coloursOf, MOST_BANDS, type Lettering } from '../../../core/engines/artwork/index.js';
import { filmsBetween, newColour } from '../../../core/stations/films/index.js';
import { count } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { ColourField } from '../../ui/colour-field.js';
import { NumberField } from '../../ui/number-field.js';
import { Swatch } from '../../ui/swatch.js';

const COLOUR_BY = [
  ['all', 'All alike'],
  ['line', 'By line'],
  ['word', 'By word'],
  ['letter', 'By letter'],
  ['band', 'In bands'],
] as const;
const SHARES = [
  ['turn', 'One after the other'],
  ['runs', 'In equal runs'],
  ['fade', 'Fading'],
] as const;
const SHARES_OF_BANDS = [
  ['turn', 'One each'],
  ['fade', 'Fading'],
] as const;
const ALONG = [
  ['line', 'Straight across'],
  ['letter', 'By each letter’s height'],
] as const;
const MOST_STEPS = 12;
const MOST_COLOURS = 8;
/** Bands are no nearer to each other, in hundredths of the height. */
const LEAST_BAND = 2;

interface LetterColoursProps {
  readonly lettering: Lettering;
  readonly onChange: (next: Partial<Lettering>) => void;
  readonly onTry: (next: Partial<Lettering> | null) => void;
}

/** The colours of a lettering: what has one of its own, how they are shared out, and the films that they come to. */
export function LetterColours({ lettering, onChange, onTry }: LetterColoursProps) {
  const stock = useJobContext().shop.films.filter((film) => !film.retired);
  const { colourBy, share, bands } = lettering;
  const isBand = colourBy === 'band';
  const isFade = colourBy !== 'all' && share.kind === 'fade';
  const most = isBand ? MOST_BANDS : MOST_COLOURS;
  const mostSteps = isBand ? MOST_BANDS : MOST_STEPS;
  const colours = lettering.colours.slice(0, most);
  const made = coloursOf(lettering);
  const heights = bandHeights(lettering, made.length);
  const withMore = (chosen: readonly string[]) => (chosen.length < 2 ? [...chosen, newColour(chosen, stock)] : chosen);
  const colourBying = (by: Lettering['colourBy']): Partial<Lettering> => ({
    colourBy: by,
    ...(by === 'all' ? {} : { colours: withMore(colours) }),
    ...(by === 'band' && share.kind !== 'fade' ? { share: { kind: 'turn' } } : {}),
  });
  // A fade begins with one step between any two colours, or two between only two: few enough films to lay.
  const sharing = (kind: 'turn' | 'runs' | 'fade'): Partial<Lettering> => ({
    share: kind === 'fade' ? { kind, steps: Math.min(mostSteps, Math.max(4, 2 * colours.length - 1)) } : { kind },
    colours: withMore(colours),
  });
  const field = (at: number) => {
    const withColour = (next: string) => colours.map((other, i) => (i === at ? next : other));
    return (
      <ColourField
        key={at}
        label={`Colour ${at + 1}`}
        value={colours[at]!}
        onChange={(next) => onChange({ colours: withColour(next) })}
        onTry={(next) => onTry(next === null ? null : { colours: withColour(next) })}
      />
    );
  };
  const throughFilms = () => {
    const films = Math.floor((most - 1) / (colours.length - 1)) + 1;
    const between = colours
      .slice(1)
      .flatMap((to, i) => filmsBetween(colours[i]!, to, stock, films).slice(i === 0 ? 0 : 1));
    onChange({ colours: between.map((film) => film.colour), share: { kind: isBand ? 'turn' : 'runs' } });
  };
  return (
    <Box>
      <Choice label="Colour by" value={colourBy} options={COLOUR_BY} onChange={(by) => onChange(colourBying(by))} />
      {colourBy !== 'all' && (
        <Choice
          label="How the colours are shared out"
          value={isBand && share.kind === 'runs' ? 'turn' : share.kind}
          options={isBand ? SHARES_OF_BANDS : SHARES}
          onChange={(kind) => onChange(sharing(kind))}
        />
      )}
      <p>
        {colourBy === 'all' ? (
          <>The colour is {field(0)}</>
        ) : isFade ? (
          <>
            In{' '}
            <NumberField
              label="Steps of the fade"
              value={share.steps}
              min={colours.length}
              max={mostSteps}
              onChange={(steps) => onChange({ share: { kind: 'fade', steps } })}
            />{' '}
            steps from {colours.map((_, i) => field(i))}
          </>
        ) : (
          <>
            {isBand ? 'From below: ' : 'The colours: '}
            {colours.map((_, i) => field(i))}
          </>
        )}{' '}
        {colourBy !== 'all' && colours.length < most && (
          <WordButton onPress={() => onChange({ colours: [...colours, newColour(colours, stock)] })}>
            add one
          </WordButton>
        )}{' '}
        {colourBy !== 'all' && colours.length > 2 && (
          <WordButton onPress={() => onChange({ colours: colours.slice(0, -1) })}>remove one</WordButton>
        )}{' '}
        {isFade && <WordButton onPress={throughFilms}>go through films in stock</WordButton>}
      </p>
      {isBand && (
        <Bands heights={heights} along={bands.along} onChange={(next) => onChange({ bands: { ...bands, ...next } })} />
      )}
      <ComesTo colours={made} />
    </Box>
  );
}

interface BandsProps {
  readonly heights: readonly number[];
  readonly along: Lettering['bands']['along'];
  readonly onChange: (next: Partial<Lettering['bands']>) => void;
}

function Bands({ heights, along, onChange }: BandsProps) {
  const pct = heights.map((height) => Math.round(height * 100));
  return (
    <>
      <Choice label="How the bands run" value={along} options={ALONG} onChange={(next) => onChange({ along: next })} />
      <p>
        The bands change at{' '}
        {pct.map((value, i) => (
          <span key={i}>
            {i > 0 && ', '}
            <NumberField
              label={`Height of change ${i + 1}, %`}
              value={value}
              min={(pct[i - 1] ?? 0) + LEAST_BAND}
              max={(pct[i + 1] ?? 100) - LEAST_BAND}
              onChange={(next) => onChange({ heights: heights.map((height, k) => (k === i ? next / 100 : height)) })}
            />
          </span>
        ))}{' '}
        % of {along === 'line' ? 'a capital’s height' : 'each letter’s height'}, from below.
      </p>
    </>
  );
}

/** The films that colours are cut from, as far as they are planned. */
function ComesTo({ colours }: { readonly colours: readonly string[] }) {
  const { plan, recipe } = useJobContext();
  const filmOf = (hex: string) =>
    plan?.colours?.find((use) => use.colour === (recipe.repair.recolour[hex] ?? hex))?.film;
  const films = [...new Map(colours.flatMap((hex) => filmOf(hex) ?? []).map((film) => [film.id, film])).values()];
  if (films.length === 0) return null;
  const shades = new Set(colours).size;
  return (
    <p>
      {shades > films.length
        ? `${count(shades, 'colour')} come to ${count(films.length, 'film')}: `
        : `Cut from ${count(films.length, 'film')}: `}
      <List aria-label="Films of the lettering">
        {films.map((film) => (
          <li key={film.id}>
            <Swatch film={film} size={16} /> {film.name}
          </li>
        ))}
      </List>
    </p>
  );
}

const Box = styled.div`
  display: grid;
  gap: ${space.s};
`;

const List = styled.ul`
  display: inline;
  list-style: none;
  font-size: ${type.small};
  color: ${colour.ink};
  li {
    display: inline-block;
    margin-right: ${space.s};
    white-space: nowrap;
  }
`;
