import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { buttonLook, mainLook, wordLook } from './button-look.js';

/* Buttons that work together with the component library: inside its lists, and to open its file dialogs. */

export const PressableButton = styled(Button)`
  ${buttonLook}
`;
export const PressableMainButton = styled(Button)`
  ${mainLook}
`;
export const PressableWordButton = styled(Button)`
  ${wordLook}
`;
