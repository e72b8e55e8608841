import { useState } from 'react';
import type { Picture } from '../../core/shop/index.js';
import { ApiProblem, ask } from '../api/client.js';

/** As much as the server takes; said before it is sent. */
const LARGEST_MB = 20;

export interface HandedIn {
  readonly picture: Picture;
  readonly ratio: number;
}

/** Hands a picture in; what is wrong with it is said, and nothing else is lost. */
export function usePicture(onHandedIn: (handed: HandedIn) => void): {
  readonly handIn: (file: File) => void;
  readonly problem: string | null;
  readonly isBusy: boolean;
} {
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const handIn = (file: File) => {
    if (file.size > LARGEST_MB * 1e6) {
      setProblem(
        `${file.name} has ${Math.round(file.size / 1e6)} MB. At most ${LARGEST_MB} MB are taken: save it smaller, then choose it again.`,
      );
      return;
    }
    setProblem(null);
    setBusy(true);
    ask<HandedIn>(`/api/shop/pictures?fileName=${encodeURIComponent(file.name.slice(0, 200))}`, {
      method: 'POST',
      bytes: file,
    })
      .then(onHandedIn, (error: unknown) =>
        setProblem(error instanceof ApiProblem ? `${file.name}: ${error.message}` : 'The picture could not be taken.'),
      )
      .finally(() => setBusy(false));
  };
  return { handIn, problem, isBusy };
}
