import { useCallback, useEffect, useState } from 'react';
import type { RecipePatch } from '../../core/recipe/index.js';
import { useJobContext } from './job-context.js';

/**
 * Shows a change while one control is trying it; null ends that. It belongs to the control: when that goes away, so does what it tried.
 */
export function useTrial(): (patch: RecipePatch | null) => void {
  const { preview } = useJobContext().handle;
  const [owner] = useState(() => ({}));
  useEffect(() => () => preview(owner, null), [preview, owner]);
  return useCallback((patch: RecipePatch | null) => preview(owner, patch), [preview, owner]);
}
