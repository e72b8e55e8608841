import { thereAndBack } from '../engines/cutting/index.js';
import type { Rings } from '../geometry/index.js';
import type { Film } from '../shop/index.js';
import { sizeOf, type Group } from './group.js';
import type { Loaded } from './lay-film.js';
import { roomOn, type Loadable } from './loadable.js';

/** What decides how long a section of a roll is. */
export interface SectionWish {
  /** A roll that is fed farther than this may drift. */
  readonly longFeedMm: number;
  /** How far the longest of what is laid reaches along the roll, mm: what is one piece stays one piece. */
  readonly longestMm: number;
}

/**
 * A roll as it goes into the cutter: in sections that are fed no farther than a length, as what lies on it allows. Each begins behind the one before, without the leader, since the film stands out in front by then. Together
 * they are no longer than the roll.
 */
export function rollSections(roll: Loadable, { longFeedMm, longestMm }: SectionWish): Loaded[] {
  const { piece, edges, tailMm, bottomAgainMm } = roll;
  const mostMm = Math.max(longFeedMm, longestMm + edges.bottom + edges.top);
  const sections: Loaded[] = [];
  for (let from = 0; from < piece.lengthMm - 1e-6; from += mostMm) {
    const isLast = from + mostMm >= piece.lengthMm - 1e-6;
    const on: Loadable = from === 0 ? roll : { ...roll, edges: { ...edges, bottom: bottomAgainMm } };
    const lengthMm = isLast ? piece.lengthMm - from : mostMm;
    sections.push({
      ...on,
      key: from === 0 ? piece.id : `${piece.id}/${sections.length + 1}`,
      room: roomOn({ ...on, piece: { ...piece, lengthMm }, tailMm: isLast ? tailMm : 0 }),
    });
  }
  return sections;
}

/** How far the longest of some layers reaches along a roll, each turned as it is shortest, mm. */
export function longestOf(
  items: readonly {
    readonly film: Film;
    readonly group: Pick<Group, 'contours' | 'borders'>;
    readonly rotations: readonly number[];
  }[],
): number {
  return Math.max(
    0,
    ...items.map(({ group, rotations }) => {
      const { widthMm, lengthMm } = sizeOf(group);
      return Math.min(...rotations.map((turn) => (turn % 180 === 0 ? lengthMm : widthMm)));
    }),
  );
}

/** How long a line is that is cut at the end of a section, mm. */
const END_MARK_MM = 10;

/** Two short lines across a roll, one at either side, where a section ends and the next begins: with both on the cutter's zero line the roll is square again. */
export function endMarks({ piece: { widthMm }, edges: { sides } }: Loadable, atMm: number): Rings {
  const line = (fromMm: number) => thereAndBack([fromMm, atMm, fromMm + END_MARK_MM, atMm]);
  return [line(sides), line(widthMm - sides - END_MARK_MM)];
}
