import type { JobFinding } from '../../../core/recipe/index.js';

/** More signs than these would cover the map. */
const MOST = 300;

/** Where the checks have found what is hard to weed, each with a sign of its own: a triangle that points at the place. */
export function WatchedPlaces({ findings, size }: { readonly findings: readonly JobFinding[]; readonly size: number }) {
  const boxes = findings.flatMap(({ places, where }) => places ?? (where ? [where] : [])).slice(0, MOST);
  return boxes.map(({ minX, minY, maxX }, i) => {
    const [x, y] = [(minX + maxX) / 2, minY];
    return (
      <path
        key={i}
        d={`M${x} ${y}l${-size * 0.5} ${-size}h${size}z`}
        fill="#f2b632"
        stroke="#182325"
        strokeWidth="1.25"
        vectorEffect="non-scaling-stroke"
      />
    );
  });
}
