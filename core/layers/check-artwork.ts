import { areaOf, boundsOf, boxesTouch, perimeter, pointCount, simplifyRing, type Box, type Region, type Rings } from '../geometry/index.js';
import { atPlaces, formatLength, type Finding, type Recipe, type Remedy } from '../job/index.js';
import { BARE, isWhite, unseenAreas, type ColouredArea } from './put-right.js';
import { narrowGaps, thinParts } from './thin-parts.js';
import { cutBesides, pinholes, speckRegions } from './touch-up.js';

/** Colours nearer than this (CIEDE2000) are often meant as one. */
export const NEAR_COLOUR = 6;
/** Within this an outline keeps its look: a blade's own play is larger. */
export const SIMPLIFY_MM = 0.03;
/** More corners than this to a mm of outline are noise of a tracer, not drawing. */
const MOST_POINTS_PER_MM = 12;
export interface CheckedLayer {
  readonly filmName: string;
  readonly thinnestMm: number;
  /** What is cut of it. */
  readonly cut: Rings;
}

const boxOf = (region: Region) => boundsOf([region.outer])!;

/** What would spoil the cut in the artwork as it is painted, whatever films it is cut from. `frames` are those of its parts; `difference` is CIEDE2000. */
export function checkPaints(areas: readonly ColouredArea[], frames: readonly Box[], repair: Recipe['repair'], difference: (a: string, b: string) => number): Finding[] {
  return [...nearColours(areas, repair, difference), ...whiteMeaning(areas, frames, repair), ...unseen(areas), ...crowdedOutlines(areas)];
}

function nearColours(areas: readonly ColouredArea[], repair: Recipe['repair'], difference: (a: string, b: string) => number): Finding[] {
  const size = new Map<string, number>();
  for (const area of areas) if (area.colour !== BARE) size.set(area.colour, (size.get(area.colour) ?? 0) + areaOf(area.rings));
  const colours = [...size].sort((a, b) => b[1] - a[1]).map(([colour]) => colour);
  const findings: Finding[] = [];
  colours.forEach((large, i) => {
    for (const small of colours.slice(i + 1)) {
      const apart = difference(large, small);
      if (apart >= NEAR_COLOUR) continue;
      findings.push({
        code: 'near-colours',
        severity: 'note',
        stage: 'artwork',
        message: `${small} and ${large} differ by ${apart.toFixed(1)} only. As one colour they are a sheet and an alignment fewer.`,
        ...atPlaces(areas.filter((area) => area.colour === small).map((area) => boundsOf(area.rings)!)),
        remedies: [{ label: `Take ${large} for both`, patch: { repair: { recolour: { ...repair.recolour, [small]: large } } } }],
      });
    }
  });
  return findings;
}

/** White that is only paper, and white that may be: a ground under everything, and other white shapes. */
function whiteMeaning(areas: readonly ColouredArea[], frames: readonly Box[], repair: Recipe['repair']): Finding[] {
  const white = areas.filter(({ colour }) => isWhite(colour));
  if (white.length === 0) return [];
  const isGround = ({ rings }: ColouredArea) => frames.some((frame) => areaOf(rings) >= 0.95 * (frame.maxX - frame.minX) * (frame.maxY - frame.minY) && boxesTouch(boundsOf(rings)!, frame));
  const grounds = white.filter(isGround);
  const noFilm = [...new Set([...repair.noFilm, ...white.map((area) => area.colour)])];
  const remedies: Remedy[] = [{ label: 'It is no film', patch: { repair: { noFilm } }, acts: 'bare' }];
  if (grounds.length > 0) {
    const message = 'A white ground fills the artboard. Many drawings have one that is only paper; as film it is a whole sheet.';
    return [{ code: 'white-ground', severity: 'warning', stage: 'artwork', message, ...atPlaces(grounds.map((area) => boundsOf(area.rings)!)), remedies }];
  }
  const message = 'White shapes are cut from white film. If the surface is to show through them, they are no film.';
  return [{ code: 'white-shapes', severity: 'note', stage: 'artwork', message, ...atPlaces(white.map((area) => boundsOf(area.rings)!)), remedies }];
}

function unseen(areas: readonly ColouredArea[]): Finding[] {
  const all = unseenAreas(areas);
  const remedies: Remedy[] = [{ label: 'Leave them out', safe: true, patch: { repair: { tidy: true } }, acts: 'tidy' }];
  const about = (code: string, message: string, list: readonly { index: number }[]): Finding[] =>
    list.length === 0 ? [] : [{ code, severity: 'note', stage: 'artwork', message, ...atPlaces(list.map(({ index }) => boundsOf(areas[index]!.rings)!)), remedies }];
  return [
    ...about('painted-twice', 'Shapes are painted twice in one colour; a blade would cut them twice.', all.filter((a) => a.doubled)),
    ...about('hidden', 'Shapes lie wholly under others; nothing shows of them.', all.filter((a) => !a.doubled)),
  ];
}

function crowdedOutlines(areas: readonly ColouredArea[]): Finding[] {
  const crowded = areas.filter(({ rings }) => pointCount(rings) > 200 && pointCount(rings) > MOST_POINTS_PER_MM * rings.reduce((sum, ring) => sum + perimeter(ring), 0));
  if (crowded.length === 0) return [];
  const before = crowded.reduce((sum, area) => sum + pointCount(area.rings), 0);
  const after = crowded.reduce((sum, area) => sum + area.rings.reduce((n, ring) => n + simplifyRing(ring, SIMPLIFY_MM).length / 2, 0), 0);
  return [
    {
      code: 'crowded-outline',
      severity: 'note',
      stage: 'artwork',
      message: `Outlines have ${before} corners, closer than a blade can follow; ${after} keep them within ${SIMPLIFY_MM} mm.`,
      ...atPlaces(crowded.map((area) => boundsOf(area.rings)!)),
      remedies: [{ label: `Simplify within ${SIMPLIFY_MM} mm`, safe: true, patch: { repair: { simplifyMm: SIMPLIFY_MM } }, acts: 'simplify' }],
    },
  ];
}

interface Trouble {
  readonly filmName: string;
  readonly thinnestMm: number;
  readonly places: readonly Box[];
}

/** What would spoil the cut at this size in these films: parts too thin to weed, gaps too narrow, specks and pinholes. */
export function checkLayers(layers: readonly CheckedLayer[]): Finding[] {
  const troubles: Readonly<Record<'thin' | 'gaps' | 'specks' | 'pinholes', Trouble[]>> = { thin: [], gaps: [], specks: [], pinholes: [] };
  for (const { filmName, thinnestMm, cut } of layers) {
    const least = thinnestMm * thinnestMm;
    const specks = speckRegions(cut, least);
    const large = cutBesides(cut, specks);
    const note = (list: Trouble[], places: readonly Box[]) => places.length > 0 && list.push({ filmName, thinnestMm, places });
    note(troubles.thin, thinParts(large, thinnestMm).map(boxOf));
    note(troubles.gaps, narrowGaps(large, thinnestMm).map(boxOf));
    note(troubles.specks, specks.map(boxOf));
    note(troubles.pinholes, pinholes(large, least).map((hole) => boundsOf([hole])!));
  }
  const widest = (list: readonly Trouble[]) => Math.max(0, ...list.map((t) => t.thinnestMm));
  const speckMm2 = (list: readonly Trouble[]) => Number((widest(list) ** 2).toFixed(2));
  return [
    ...warnOf('thin-parts', troubles.thin, (films) => `Parts are thinner than the film can be weeded at: ${films}.`, (list) => ({ label: `Thicken to ${formatLength(widest(list))} mm`, patch: { repair: { thickenMm: widest(list) } }, acts: 'thicken' })),
    ...warnOf('narrow-gaps', troubles.gaps, (films) => `Gaps are so narrow that the waste between tears or takes an edge with it: ${films}.`, (list) => ({ label: `Fill gaps below ${formatLength(widest(list))} mm`, patch: { repair: { closeGapsMm: widest(list) } }, acts: 'gaps' })),
    ...warnOf('specks', troubles.specks, (films) => `Specks come off with the waste: ${films}.`, (list) => ({ label: `Drop below ${speckMm2(list)} mm²`, patch: { repair: { speckMm2: speckMm2(list) } }, acts: 'specks' })),
    ...warnOf('pinholes', troubles.pinholes, (films) => `Pinholes that nobody can weed: ${films}.`, (list) => ({ label: `Fill below ${speckMm2(list)} mm²`, patch: { repair: { speckMm2: speckMm2(list) } }, acts: 'specks' })),
  ];
}

function warnOf(code: string, list: readonly Trouble[], say: (films: string) => string, remedy: (list: readonly Trouble[]) => Remedy): Finding[] {
  if (list.length === 0) return [];
  const films = list.map((t) => `${t.filmName}, under ${formatLength(t.thinnestMm)} mm`).join('; ');
  return [{ code, severity: 'warning', stage: 'artwork', message: say(films), ...atPlaces(list.flatMap((t) => t.places)), remedies: [remedy(list)] }];
}
