import { useEffect, useState } from 'react';

/** Ticks of a list at the bench, kept by this browser: they are about the film in the hand, not about the job's recipe. */
export function useTicks(name: string): { ticked: ReadonlySet<number>; toggle: (i: number) => void } {
  const key = `lantern.ticks.${name}`;
  const [ticked, setTicked] = useState<ReadonlySet<number>>(() => readTicks(key));
  useEffect(() => setTicked(readTicks(key)), [key]);
  return {
    ticked,
    toggle: (i) => {
      const next = new Set(ticked);
      if (!next.delete(i)) next.add(i);
      localStorage.setItem(key, JSON.stringify([...next]));
      setTicked(next);
    },
  };
}

function readTicks(key: string): ReadonlySet<number> {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return new Set(Array.isArray(stored) ? stored.filter((v): v is number => Number.isInteger(v)) : []);
  } catch {
    return new Set();
  }
}
