import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { SurfaceDecisions } from '../../../core/stations/surface/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { FigureField } from '../../ui/figure-field.js';

/** A sentence with fields in it. */
export const Said = styled.p`
  line-height: 1.9;
  font-size: ${type.body};
`;

/** The figures of a surface, close together. */
export const Measures = styled.div`
  display: grid;
  gap: ${space.s};
`;

/** What is wrong with the figures above it. */
export function Trouble({ children }: { readonly children: string | undefined }) {
  return children ? <Wrong role="status">{children}</Wrong> : null;
}

const Wrong = styled.p`
  color: ${colour.bad};
  font-size: ${type.small};
  font-weight: 550;
`;

/** Changes the surface, all but what is named. */
export function useSurface() {
  const { recipe, handle } = useJobContext();
  return {
    surface: recipe.surface,
    change: (surface: Partial<SurfaceDecisions['surface']>) => handle.change({ surface }),
  };
}

/** Fields for the figures of one kind of surface. */
export function useMeasures<K extends 'cylinder' | 'taper' | 'compound' | 'flat' | 'garment'>(kind: K) {
  const { unit } = useJobContext();
  const { surface, change } = useSurface();
  const measures = surface[kind];
  const set = (part: Partial<SurfaceDecisions['surface'][K]>) =>
    change({ [kind]: { ...measures, ...part } } as Partial<SurfaceDecisions['surface']>);
  const field = (
    label: string,
    key: keyof SurfaceDecisions['surface'][K] & string,
    { min = 1, stepMm = 1 } = {},
  ): ReactNode => (
    <FigureField
      label={label}
      mm={measures[key as keyof typeof measures] as number}
      unit={unit}
      min={min}
      stepMm={stepMm}
      onChange={(mm) => set({ [key]: mm } as Partial<SurfaceDecisions['surface'][K]>)}
    />
  );
  return { measures, set, field };
}
