import type { Knex } from 'knex';
import type { Ring, Rings } from '../../core/geometry/index.js';
import { packLists, unpackLists } from '../../core/stations/cut/index.js';

/** Outlines are kept in thousandths of a millimetre. */
const PER_MM = 1000;

/** What the cutter is told of a sheet, and the outlines that it was made from: group by group, in each its contours, marks and borders. */
export interface StoredProgram {
  readonly forceG: number;
  readonly speedMmS: number;
  /** Null for what was cut before they were kept. */
  readonly bladeOffsetMm: number | null;
  readonly overcutMm: number | null;
  /** Holder positions in plotter units. */
  readonly runs: readonly Int32Array[];
  /** For each outline, the coordinate pairs driven to once it is whole. */
  readonly wholeAt: Int32Array;
  /** For each outline, the part of its group that it belongs to; -1 for marks and borders. */
  readonly partOf: Int32Array;
  /** mm on the sheet, y up. */
  readonly outlines: Rings;
}

interface ProgramRow {
  readonly sheet_id: string;
  readonly force_g: number;
  readonly speed_mm_s: number;
  readonly blade_offset_mm: number | null;
  readonly overcut_mm: number | null;
  readonly runs: Buffer;
  readonly whole_at: Buffer;
  readonly part_of: Buffer;
  readonly outlines: Buffer;
}

/** Programs of frozen sheets. They are large and lie apart, so that nothing that is asked often reads them. */
export class ProgramStore {
  constructor(private readonly db: Knex) {}

  async add(sheetId: string, program: StoredProgram, tx: Knex): Promise<void> {
    const { forceG, speedMmS, bladeOffsetMm, overcutMm, runs, wholeAt, partOf, outlines } = program;
    await tx('programs').insert({
      sheet_id: sheetId,
      force_g: forceG,
      speed_mm_s: speedMmS,
      blade_offset_mm: bladeOffsetMm,
      overcut_mm: overcutMm,
      runs: bytesOf(runs),
      whole_at: bytesOf([wholeAt]),
      part_of: bytesOf([partOf]),
      outlines: bytesOf(outlines.map((ring) => Int32Array.from(ring, (v) => Math.round(v * PER_MM)))),
    });
  }

  /** Outlines (thousandths of a mm) or runs (plotter units) as they lie in the store: packed lists, which a page unpacks. */
  async packed(sheetId: string, what: 'outlines' | 'runs'): Promise<Buffer> {
    return (
      (await this.db('programs').where({ sheet_id: sheetId }).select(what).first()) as Record<typeof what, Buffer>
    )[what];
  }

  /** The program of a sheet that is kept. */
  async get(sheetId: string): Promise<StoredProgram> {
    const row = (await this.db<ProgramRow>('programs').where({ sheet_id: sheetId }).first())!;
    return {
      forceG: row.force_g,
      speedMmS: row.speed_mm_s,
      bladeOffsetMm: row.blade_offset_mm,
      overcutMm: row.overcut_mm,
      runs: unpackLists(row.runs),
      wholeAt: unpackLists(row.whole_at)[0]!,
      partOf: unpackLists(row.part_of)[0]!,
      outlines: unpackLists(row.outlines).map((list): Ring => Float64Array.from(list, (v) => v / PER_MM)),
    };
  }
}

function bytesOf(lists: readonly ArrayLike<number>[]): Buffer {
  return Buffer.from(packLists(lists).buffer);
}
