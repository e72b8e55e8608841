import type { ButtonHTMLAttributes } from 'react';
import styled from 'styled-components';
import { buttonLook, mainLook, wordLook } from './button-look.js';

interface PressProps extends Omit<ButtonHTMLAttributes<HTMLButtonElement>, 'onClick' | 'disabled'> {
  readonly onPress?: () => void;
  readonly isDisabled?: boolean;
  /** Told when it is looked at, by pointer or keyboard, and when it is not any more. */
  readonly onLook?: (isLooked: boolean) => void;
}

/** The browser's own button: the component library's weighs as much as a screen, and every first screen has buttons. */
function Press({ onPress, isDisabled, onLook, type = 'button', ...rest }: PressProps) {
  const look = onLook && {
    onPointerEnter: () => onLook(true),
    onPointerLeave: () => onLook(false),
    onFocus: () => onLook(true),
    onBlur: () => onLook(false),
  };
  return <button {...rest} {...look} type={type} disabled={isDisabled} onClick={() => onPress?.()} />;
}

export const Button = styled(Press)`
  ${buttonLook}
`;
export const MainButton = styled(Press)`
  ${mainLook}
`;
export const WordButton = styled(Press)`
  ${wordLook}
`;
export const LinkButton = styled.a`
  ${buttonLook}
`;
