import styled from 'styled-components';
import { joinBoxes, widenBox, type Box } from '../../../core/geometry/index.js';
import type { JobFinding } from '../../../core/recipe/index.js';
import { Shape } from '../../light-table/shape.js';
import type { PaintView } from '../../../core/plan/page/plan-view.js';
import { colour, radius, space, type } from '../../tokens.js';

/** Path data longer than this is not drawn twice more: small pictures of very large artwork would stall the page. */
const MOST_LETTERS = 600_000;

interface MergePictureProps {
  readonly finding: JobFinding;
  readonly paints: readonly PaintView[];
}

/** What taking one colour for another would look like, beside what it is now, round where the smaller colour lies. */
export function MergePicture({ finding, paints }: MergePictureProps) {
  const recolour = finding.remedies?.[0]?.patch.repair?.recolour;
  const box = (finding.places ?? []).reduce<Box | null>(joinBoxes, null);
  if (
    !recolour ||
    !box ||
    paints.reduce((sum, paint) => sum + paint.path.fine.reduce((letters, d) => letters + d.length, 0), 0) > MOST_LETTERS
  )
    return null;
  const view = widenBox(box, 0.15 * Math.max(box.maxX - box.minX, box.maxY - box.minY));
  const picture = (said: string, shown: (hex: string) => string) => (
    <figure>
      <svg
        viewBox={`${view.minX} ${view.minY} ${view.maxX - view.minX} ${view.maxY - view.minY}`}
        role="img"
        aria-label={`${said}: ${finding.message}`}
      >
        {paints.map((paint, i) => (
          <Shape key={i} path={paint.path} fill={shown(paint.colour)} />
        ))}
      </svg>
      <figcaption>{said}</figcaption>
    </figure>
  );
  return (
    <Pair>
      {picture('as it is', (hex) => hex)}
      {picture('as one colour', (hex) => recolour[hex] ?? hex)}
    </Pair>
  );
}

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: ${space.s};
  padding-top: ${space.s};
  figure {
    margin: 0;
  }
  svg {
    display: block;
    width: 100%;
    height: 84px;
    background: #ffffff;
    border: 1px solid ${colour.line};
    border-radius: ${radius.s};
  }
  figcaption {
    font-size: ${type.small};
    color: ${colour.quiet};
  }
`;
