import { createContext, useContext, type SVGProps } from 'react';
import type { DrawnPath } from '../../core/plan/page/drawn-path.js';

/** For how many px per mm the picture is drawn. */
export const DrawnZoom = createContext(1);

/** An area on the light table, drawn as fine as it is looked at. */
export function Shape({
  path,
  ...look
}: { readonly path: DrawnPath } & Omit<SVGProps<SVGPathElement>, 'path' | 'd' | 'ref'>) {
  const zoom = useContext(DrawnZoom);
  if (path.coarse !== null && zoom <= path.coarseUpTo) return <path d={path.coarse} fillRule="evenodd" {...look} />;
  return path.fine.map((d, i) => <path key={i} d={d} fillRule="evenodd" {...look} />);
}
