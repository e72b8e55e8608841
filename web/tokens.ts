/*
 * Every size, colour and face of the interface. Colours are CSS variables so that light and dark are one switch; nothing else in web/
 * names a colour of its own, but for films, which have theirs.
 */

const LIGHT = {
  bench: '#e6ebea',
  docket: '#f6f8f6',
  raised: '#ffffff',
  table: '#fcfdfb',
  ink: '#182325',
  quiet: '#4c5a5c',
  line: '#c3cecd',
  faint: '#dbe2e1',
  accent: '#9c3d0c',
  accentInk: '#ffffff',
  accentWash: '#f7e7db',
  good: '#1f6145',
  warn: '#7d5300',
  warnWash: '#f8ecd0',
  bad: '#a01d2c',
  badWash: '#f8dfe0',
  shadow: 'rgba(24, 35, 37, 0.14)',
  waste: '#9fb0b0',
};

const DARK: typeof LIGHT = {
  bench: '#12181a',
  docket: '#1a2225',
  raised: '#222c2f',
  table: '#e9eeeb',
  ink: '#e7eeec',
  quiet: '#a7b6b7',
  line: '#3a484b',
  faint: '#2a3538',
  accent: '#f4a962',
  accentInk: '#22150a',
  accentWash: '#3a2a1c',
  good: '#7fceaa',
  warn: '#efc46a',
  warnWash: '#3a3018',
  bad: '#ff9a9d',
  badWash: '#42222a',
  shadow: 'rgba(0, 0, 0, 0.5)',
  waste: '#7d8f8f',
};

type ColourName = keyof typeof LIGHT;

const variables = (colours: typeof LIGHT) =>
  Object.entries(colours)
    .map(([name, value]) => `--${name}: ${value};`)
    .join('');

/** The two sets of colour variables, for the global style. */
export const COLOUR_VARIABLES = { light: variables(LIGHT), dark: variables(DARK) };

/** colour.ink and so on: what components write. */
export const colour = Object.fromEntries(Object.keys(LIGHT).map((name) => [name, `var(--${name})`])) as Readonly<
  Record<ColourName, string>
>;

export const space = { hair: '2px', xs: '4px', s: '8px', m: '12px', l: '18px', xl: '28px', xxl: '44px' } as const;

export const type = {
  display: "'Bricolage Grotesque', 'Public Sans Variable', sans-serif",
  text: "'Public Sans Variable', system-ui, sans-serif",
  small: '0.8125rem',
  body: '0.9375rem',
  large: '1.125rem',
  title: '1.625rem',
} as const;

export const radius = { s: '3px', m: '6px', l: '10px' } as const;

export const motion = { quick: '120ms ease-out' } as const;

/** Below these the layout changes. */
export const width = { phone: '640px', narrow: '1100px' } as const;
