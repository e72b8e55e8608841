import { useEffect } from 'react';

/** Listens for key combinations on the whole page. In a text field Ctrl+Z and its like belong to the text. */
export function useShortcuts(shortcuts: readonly { readonly keys: string; readonly run: () => void }[]): void {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const pressed = nameOf(event);
      const writing =
        event.target instanceof HTMLElement &&
        event.target.matches('input:not([type=radio]):not([type=checkbox]):not([type=range]), textarea, select');
      if (writing && /^Ctrl\+(Shift\+)?[ZY]$/.test(pressed)) return;
      const hit = shortcuts.find((shortcut) => shortcut.keys === pressed);
      if (!hit) return;
      event.preventDefault();
      hit.run();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  });
}

function nameOf(event: KeyboardEvent): string {
  // The digit itself, also where Alt makes another character of it.
  const key = /^Digit\d$/.test(event.code)
    ? event.code.slice(5)
    : event.key.length === 1
      ? event.key.toUpperCase()
      : event.key;
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${event.shiftKey ? 'Shift+' : ''}${key}`;
}
