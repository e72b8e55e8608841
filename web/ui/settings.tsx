import { createContext, useContext, useLayoutEffect, useMemo, useState, type ReactNode } from 'react';
import type { LengthUnit } from '../../core/words/index.js';

type Theme = 'system' | 'light' | 'dark';

interface Settings {
  readonly unit: LengthUnit;
  readonly theme: Theme;
  readonly setUnit: (unit: LengthUnit) => void;
  readonly setTheme: (theme: Theme) => void;
}

const Context = createContext<Settings | null>(null);

/** This browser's own taste: unit and light. Kept here and not in the job, which is in mm whoever looks at it. */
export function SettingsProvider({ children }: { readonly children: ReactNode }) {
  const [unit, setUnit] = useStored<LengthUnit>('unit', ['mm', 'cm', 'in']);
  const [theme, setTheme] = useStored<Theme>('theme', ['system', 'light', 'dark']);
  // Before anything is painted, or a dark page would begin with a flash of light.
  useLayoutEffect(() => {
    if (theme === 'system') delete document.documentElement.dataset['theme'];
    else document.documentElement.dataset['theme'] = theme;
  }, [theme]);
  const value = useMemo(() => ({ unit, theme, setUnit, setTheme }), [unit, theme, setUnit, setTheme]);
  return <Context value={value}>{children}</Context>;
}

export function useSettings(): Settings {
  return useContext(Context)!;
}

function useStored<T extends string>(name: string, allowed: readonly T[]): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    const stored = localStorage.getItem(`lantern.${name}`) as T | null;
    return stored && allowed.includes(stored) ? stored : allowed[0]!;
  });
  return [
    value,
    (next) => {
      localStorage.setItem(`lantern.${name}`, next);
      setValue(next);
    },
  ];
}
