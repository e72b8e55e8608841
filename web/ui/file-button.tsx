import { useRef, type ComponentType, type ReactNode } from 'react';
import { Button } from './button.js';

interface FileButtonProps {
  /** What is asked for; how the field behind the button is called. */
  readonly label: string;
  /** Kinds of files, as a browser’s own dialogue takes them. */
  readonly accept: string;
  readonly isDisabled?: boolean;
  /** Another look of the button. */
  readonly as?: ComponentType<{
    readonly onPress: () => void;
    readonly isDisabled?: boolean;
    readonly children: ReactNode;
  }>;
  readonly onFile: (file: File) => void;
  readonly children: ReactNode;
}

/** A button that asks for a file. The same one can be given again: it may have been put right meanwhile. */
export function FileButton({
  label,
  accept,
  isDisabled = false,
  as: Pressed = Button,
  onFile,
  children,
}: FileButtonProps) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <Pressed onPress={() => field.current!.click()} isDisabled={isDisabled}>
        {children}
      </Pressed>
      <input
        ref={field}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
