import { createGlobalStyle } from 'styled-components';
import { colour, COLOUR_VARIABLES, radius, type } from './tokens.js';

export const GlobalStyle = createGlobalStyle`
  :root { ${COLOUR_VARIABLES.light} color-scheme: light; }
  :root[data-theme='dark'] { ${COLOUR_VARIABLES.dark} color-scheme: dark; }
  @media (prefers-color-scheme: dark) {
    :root:not([data-theme='light']) { ${COLOUR_VARIABLES.dark} color-scheme: dark; }
  }
  *, *::before, *::after { box-sizing: border-box; }
  * { scrollbar-width: thin; scrollbar-color: ${colour.line} transparent; }
  html { font-size: 16px; }
  body {
    margin: 0; background: ${colour.bench}; color: ${colour.ink};
    font: 400 ${type.body}/1.45 ${type.text}; font-feature-settings: 'tnum';
  }
  h1, h2, h3 { font-family: ${type.display}; font-weight: 700; line-height: 1.15; margin: 0; }
  p, ul, ol, dl, dd { margin: 0; padding: 0; }
  button, input, select, textarea { font: inherit; color: inherit; }
  a { color: ${colour.accent}; }
  :focus-visible, [data-focus-visible] { outline: 2.5px solid ${colour.accent}; outline-offset: 2px; border-radius: ${radius.s}; }
  .unseen { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
  @media print { body { background: white; color: black; } .screen-only { display: none !important; } body:has(> .paper-only) > :not(.paper-only) { display: none !important; } }
`;
