import {
  boundsOf,
  compose,
  type CurvesBuilder,
  flatten,
  IDENTITY,
  joinBoxes,
  rotation,
  scaling,
  stretchOf,
  translation,
  widenBox,
  type Box,
  type Curves,
  type Matrix,
} from '../../../geometry/index.js';
import type { Artwork, Paint } from '../artwork.js';
import { JOIN_MM } from '../join-loops.js';
import { paintsOfLines, type ColouredLines } from '../line-paints.js';
import type { Noticed } from '../noticed.js';
import { Refusal } from '../refusal.js';
import { colourOf, isHidden, layerOf } from './colours.js';
import { hatchOutline } from './hatch.js';
import { outlineOf, widthOf } from './outlines.js';
import { numberOf, parseDxf, textOf, type DxfFile, type Entity } from './tags.js';

/** mm in one drawing unit, by the header's $INSUNITS. */
const MM_PER_UNIT: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 2.54e-5,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};
/** Curves are true to this share of the drawing's longer side: a name a metre long is then true to a fortieth of a millimetre. */
const CURVE_SHARE = 1 / 40_000;
const MAX_DRAWN = 300_000;
const MAX_DEPTH = 16;
/** Coordinates beyond this are rubbish: a kilometre, in mm. */
const FARTHEST_MM = 1e6;

interface Drawn {
  readonly colour: string;
  readonly curves: Curves;
  /** To mm, y up. */
  readonly matrix: Matrix;
  readonly type: string;
  /** Of a line that is drawn so wide, in its own units; 0 of a plain one. */
  readonly width: number;
}

/** What a block takes from where it is inserted, and the blocks round it. */
interface Inserted {
  readonly colour: string;
  readonly layer: string;
  readonly names: readonly string[];
}

/**
 * Reads an ASCII DXF into paints: per colour all closed outlines, nested by even-odd; the larger colour lies below. Open ends within
 * 0.1 mm, or `joinEndsMm` if that is more, are joined into loops; what stays open is noticed.
 *
 * @throws Refusal when it is no DXF, or nothing in it has an outline
 */
export function readDxf(bytes: Uint8Array, source: string, joinEndsMm = 0): Artwork {
  const file = parseDxf(bytes, source);
  const reader = new DxfReader(file, source, Math.max(JOIN_MM, joinEndsMm));
  return reader.read();
}

class DxfReader {
  readonly #noticed: Noticed[] = [];
  readonly #drawn: Drawn[] = [];

  constructor(
    private readonly file: DxfFile,
    private readonly source: string,
    private readonly joinMm: number,
  ) {}

  read(): Artwork {
    const { k, isStated } = this.#mmPerUnit();
    this.#draw(this.file.entities, scaling(k), { colour: '#000000', layer: '0', names: [] });
    const rough = this.#bounds(0.5);
    if (!rough) throw new Refusal('dxf-nothing-drawn', {}, { source: this.source });
    const tolerance = Math.max(rough.maxX - rough.minX, rough.maxY - rough.minY, 1e-3) * CURVE_SHARE;
    const box = this.#bounds(tolerance)!;
    const toPage: Matrix = [1, 0, 0, -1, -box.minX, box.maxY];
    const paints = this.#paints(tolerance, toPage);
    const lines = this.#drawn
      .filter(({ width }) => width === 0)
      .map(({ curves, matrix }) => ({ curves, matrix: compose(toPage, matrix) }));
    return {
      widthMm: Math.max(box.maxX - box.minX, 1e-3),
      heightMm: Math.max(box.maxY - box.minY, 1e-3),
      ...(isStated ? {} : { mmPerUnit: k }),
      paints,
      lines,
      noticed: this.#noticed,
    };
  }

  #mmPerUnit(): { readonly k: number; readonly isStated: boolean } {
    const stated = MM_PER_UNIT[Number(this.file.header.get('$INSUNITS') ?? 0)];
    return stated
      ? { k: stated, isStated: true }
      : { k: this.file.header.get('$MEASUREMENT') === '0' ? 25.4 : 1, isStated: false };
  }

  #draw(entities: readonly Entity[], matrix: Matrix, within: Inserted): void {
    for (let i = 0; i < entities.length; i += 1) {
      const entity = entities[i]!;
      const vertices: Entity[] = [];
      if (entity.type === 'POLYLINE') while (entities[i + 1]?.type === 'VERTEX') vertices.push(entities[(i += 1)]!);
      if (SILENT.has(entity.type) || isHidden(entity, this.file, within.layer)) continue;
      if (this.#drawn.length > MAX_DRAWN)
        throw new Refusal('too-many-shapes', { most: MAX_DRAWN }, { source: this.source });
      const colour = colourOf(entity, this.file, within.colour, within.layer);
      // Seen from behind (extrusion along -z), an entity's own x axis points the other way. Lines and ellipses are in world coordinates.
      const fromBehind =
        numberOf(entity, 230, 1) < 0 && entity.type !== 'LINE' && entity.type !== 'ELLIPSE' && entity.type !== 'SPLINE';
      const own = fromBehind ? compose(matrix, scaling(-1, 1)) : matrix;
      if (entity.type === 'INSERT')
        this.#insert(entity, own, { ...within, colour, layer: layerOf(entity, within.layer) });
      else if (entity.type === 'HATCH') {
        const { outline, lost } = hatchOutline(entity);
        if (lost > 0) this.#noticed.push({ code: 'hatch-damaged', count: lost });
        this.#add(colour, outline, own, entity.type);
      } else {
        const outline = outlineOf(entity, vertices);
        const width = widthOf(entity, vertices);
        if (width === null) this.#noticed.push({ code: 'dxf-left', type: 'WIDTH' });
        if (outline) this.#add(colour, outline, own, entity.type, width ?? 0);
        else this.#noticed.push({ code: 'dxf-left', type: entity.type });
      }
    }
  }

  #add(colour: string, outline: CurvesBuilder, matrix: Matrix, type: string, width = 0): void {
    const curves = outline.build();
    if (curves.coords.length === 0) return;
    if (curves.coords.every((v) => Number.isFinite(v) && Math.abs(v) < 1e12))
      this.#drawn.push({ colour, curves, matrix, type, width });
    else this.#noticed.push({ code: 'out-of-range', what: `A ${type}`, why: 'no-number' });
  }

  #insert(entity: Entity, matrix: Matrix, within: Inserted): void {
    const name = textOf(entity, 2);
    const block = this.file.blocks.get(name.toUpperCase());
    const names = within.names;
    if (!block || names.includes(name.toUpperCase()) || names.length >= MAX_DEPTH) {
      this.#noticed.push({ code: 'block-left', block: name.slice(0, 40), why: block ? 'contains-itself' : 'missing' });
      return;
    }
    const n = (code: number, otherwise: number) => numberOf(entity, code, otherwise);
    const [columns, rows] = [Math.min(Math.max(1, n(70, 1)), 1000), Math.min(Math.max(1, n(71, 1)), 1000)];
    for (let row = 0; row < rows; row += 1) {
      for (let column = 0; column < columns; column += 1) {
        const placed = [
          translation(n(10, 0), n(20, 0)),
          rotation(n(50, 0)),
          translation(column * n(44, 0), row * n(45, 0)),
          scaling(n(41, 1), n(42, 1)),
          translation(-block.base[0], -block.base[1]),
        ].reduce(compose, matrix);
        this.#draw(block.entities, placed, { ...within, names: [...names, name.toUpperCase()] });
      }
    }
  }

  #lines(drawn: Drawn, matrix: Matrix, tolerance: number) {
    return flatten(drawn.curves, compose(matrix, drawn.matrix), tolerance).filter((line) => line.points.length >= 4);
  }

  #bounds(tolerance: number): Box | null {
    let box: Box | null = null;
    for (const drawn of this.#drawn) {
      const lines = this.#lines(drawn, IDENTITY, tolerance)
        .map((line) => line.points)
        .filter((points) => points.every((v) => Math.abs(v) < FARTHEST_MM));
      const around = boundsOf(lines);
      box = joinBoxes(
        box,
        around && drawn.width > 0 ? widenBox(around, (drawn.width / 2) * stretchOf(drawn.matrix)) : around,
      );
    }
    return box;
  }

  #paints(tolerance: number, toPage: Matrix): Paint[] {
    const byColour = new Map<string, ColouredLines>();
    const wide: Drawn[] = [];
    for (const drawn of this.#drawn) {
      if (drawn.width > 0) {
        wide.push(drawn);
        continue;
      }
      const group = byColour.get(drawn.colour) ?? { loops: [], open: [] };
      byColour.set(drawn.colour, group);
      for (const { points, closed } of this.#lines(drawn, toPage, tolerance)) {
        if (!points.every((v) => Math.abs(v) < FARTHEST_MM))
          this.#noticed.push({ code: 'out-of-range', what: `A ${drawn.type}`, why: 'far' });
        else if (closed && points.length >= 6) group.loops.push(points);
        else group.open.push([...points]);
      }
    }
    const paints = paintsOfLines(byColour, this.joinMm, (noticed) => this.#noticed.push(noticed));
    // A line that is drawn wide is an area by itself.
    const strokes = wide.map(({ colour, curves, matrix, width, type }, i): Paint => ({
      colour,
      curves,
      matrix: compose(toPage, matrix),
      how: { kind: 'stroke', style: { width, join: 'miter', cap: 'butt', miterLimit: 4 }, dashes: [], dashOffset: 0 },
      clips: [],
      element: `a wide ${type} in ${colour}`,
      elementIndex: paints.length + i,
    }));
    return [...paints, ...strokes];
  }
}

/** Kinds that draw nothing by themselves. */
const SILENT: ReadonlySet<string> = new Set(['POINT', 'SEQEND', 'VERTEX', 'VIEWPORT', 'ATTDEF', 'ATTRIB', 'ENDBLK']);
