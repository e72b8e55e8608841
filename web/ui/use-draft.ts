import {
  useEffect,
  useId,
  useRef,
  useState,
  useSyncExternalStore,
  type ChangeEvent,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { Draft, type DraftOptions, type Reading } from './draft.js';
import { useNotify } from './notices.js';

type Field = HTMLInputElement | HTMLTextAreaElement;

interface DraftFieldOptions<T> {
  readonly label: string;
  readonly shown: string;
  readonly read: (text: string) => Reading<T>;
  readonly onKeep: (value: T) => void;
  readonly onTry?: ((value: T | null) => void) | undefined;
  /** What an arrow key makes of the text; absent where arrows do nothing of their own. */
  readonly nudge?: ((text: string, way: 1 | -1) => { readonly value: T; readonly text: string } | null) | undefined;
  /** Enter is a letter like others. */
  readonly isLong?: boolean;
}

interface DraftField<E extends Field> {
  readonly draft: { readonly text: string; readonly wrong: string | null; readonly wrongId: string };
  readonly props: {
    readonly ref: RefObject<E | null>;
    readonly value: string;
    readonly 'aria-label': string;
    readonly 'aria-invalid': boolean;
    readonly 'aria-describedby': string | undefined;
    readonly onChange: (event: ChangeEvent<E>) => void;
    readonly onBlur: () => void;
    readonly onKeyDown: (event: KeyboardEvent<E>) => void;
  };
}

/** The draft of a control for as long as that is there, with the options of its last drawing; it is closed when the control goes away. */
export function useDraftOf<T>(options: DraftOptions<T>): Draft<T> {
  const [draft] = useState(() => new Draft<T>(options));
  useEffect(() => {
    draft.options = options;
  });
  useEffect(() => () => draft.close(), [draft]);
  return draft;
}

/** A field whose text is kept as one step when it is left, on Enter, or when it goes away; Escape gives it up. */
export function useDraft<T, E extends Field = HTMLInputElement>({
  nudge,
  isLong = false,
  ...options
}: DraftFieldOptions<T>): DraftField<E> {
  const notify = useNotify();
  const ref = useRef<E>(null);
  const wrongId = useId();
  const draft = useDraftOf<T>({
    ...options,
    onLost: (text, wrong) =>
      notify(`What was typed for “${options.label}” was not taken: ${text.slice(0, 60)}. ${wrong}`),
    focus: () => ref.current?.focus(),
  });
  const { text, wrong } = useSyncExternalStore(draft.listen, () => draft.state);
  const value = text ?? options.shown;
  return {
    draft: { text: value, wrong, wrongId },
    props: {
      ref,
      value,
      'aria-label': options.label,
      'aria-invalid': wrong !== null,
      'aria-describedby': wrong === null ? undefined : wrongId,
      onChange: (event) => draft.type(event.target.value),
      onBlur: () => void draft.keep(),
      onKeyDown: (event) => {
        if (event.key === 'Enter' && !isLong) draft.keep();
        if (event.key === 'Escape') draft.giveUp();
        if (nudge && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
          event.preventDefault();
          const next = nudge(draft.text, event.key === 'ArrowUp' ? 1 : -1);
          if (next) draft.try(next.value, next.text);
        }
      },
    },
  };
}
