import { colour } from '../tokens.js';
import { useJobContext } from './job-context.js';

/** The places of the finding being looked at, ringed on the light table so that they are found without colour too; the one that is looked at alone with a whole line. */
export function FindingPlaces() {
  const { looked } = useJobContext();
  const finding = looked?.finding;
  const places = finding?.places ?? (finding?.where ? [finding.where] : []);
  return places.map((box, i) => {
    const spare = Math.max(0.6, 0.15 * Math.max(box.maxX - box.minX, box.maxY - box.minY));
    const shape = {
      x: box.minX - spare,
      y: box.minY - spare,
      width: box.maxX - box.minX + 2 * spare,
      height: box.maxY - box.minY + 2 * spare,
      rx: spare,
    };
    return (
      <g key={i} fill="none">
        <rect {...shape} stroke="#ffffff" strokeWidth="5" vectorEffect="non-scaling-stroke" />
        <rect
          {...shape}
          stroke={colour.bad}
          strokeWidth={i === looked?.index ? 4.5 : 2.5}
          strokeDasharray={i === looked?.index ? 'none' : '5 3'}
          vectorEffect="non-scaling-stroke"
        />
      </g>
    );
  });
}
