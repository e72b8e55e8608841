import { css } from 'styled-components';
import { colour, motion, radius, space, type } from '../tokens.js';

/** How buttons look, and links that are pressed like them. */
export const buttonLook = css`
  display: inline-flex;
  align-items: center;
  gap: ${space.s};
  min-height: 32px;
  padding: 4px ${space.m};
  cursor: pointer;
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  background: ${colour.raised};
  color: ${colour.ink};
  font: 550 ${type.small} / 1.2 ${type.text};
  text-decoration: none;
  transition:
    background ${motion.quick},
    border-color ${motion.quick};
  &:hover:not(:disabled) {
    border-color: ${colour.accent};
  }
  &:disabled {
    color: ${colour.quiet};
    background: transparent;
    border-style: dashed;
    border-color: ${colour.line};
    cursor: default;
  }
`;

/** The one thing to do next on a screen. */
export const mainLook = css`
  ${buttonLook}
  background: ${colour.accent};
  border-color: ${colour.accent};
  color: ${colour.accentInk};
  &:hover:not(:disabled) {
    filter: brightness(1.08);
  }
`;

/** What reads as words in a sentence's company. */
export const wordLook = css`
  border: 0;
  background: none;
  padding: 3px 4px;
  min-height: 24px;
  min-width: 24px;
  cursor: pointer;
  color: ${colour.accent};
  font: 550 ${type.small} / 1.3 ${type.text};
  text-decoration: underline;
  text-underline-offset: 3px;
  text-decoration-thickness: 1px;
  border-radius: ${radius.s};
  &:hover {
    text-decoration-thickness: 2px;
  }
  &:disabled {
    color: ${colour.quiet};
    text-decoration: none;
    cursor: default;
  }
`;
