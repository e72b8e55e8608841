import { cutProgram, type CutProgram, type Motion } from '../../engines/cutting/index.js';
import { settingsFor, type CutterProfile } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { SheetPlan } from '../../laying/index.js';
import type { SheetsOut } from '../sheets/index.js';
import type { Stage } from '../stage.js';
import { saySettings } from './say.js';

export interface CutOut {
  readonly programs: readonly CutProgram[];
  readonly seconds: number;
  readonly findings: readonly Finding<never>[];
  readonly rulings: readonly Ruling<never>[];
}

type CutterMotion = Motion & Pick<CutterProfile, 'bladeOffsetMm' | 'overcutMm'>;

interface CutRead {
  readonly sheets: SheetsOut;
  readonly cutter: CutterMotion;
}

/** What the cutter is told of a sheet: films that share a mat are cut with the same settings. Where a section ends is marked, too. */
export function programOf({ groups, films, endMarks }: SheetPlan, cutter: CutterMotion): CutProgram {
  return cutProgram({
    groups: endMarks.length > 0 ? [...groups, { contours: [], borders: endMarks }] : groups,
    settings: settingsFor(films[0]!, cutter),
    motion: cutter,
  });
}

/** The program of each sheet: what the cutter is told. */
export const cutStage: Stage<{ readonly sheets: SheetsOut; readonly cutter: CutterProfile }, CutRead, CutOut> = {
  name: 'cut',
  read({ sheets, cutter: { accelerationMmS2, travelSpeedMmS, liftSeconds, bladeOffsetMm, overcutMm } }) {
    return { sheets, cutter: { accelerationMmS2, travelSpeedMmS, liftSeconds, bladeOffsetMm, overcutMm } };
  },
  run({ sheets: { sheets }, cutter }) {
    const programs = sheets.map((sheet) => programOf(sheet, cutter));
    return {
      programs,
      seconds: programs.reduce((sum, program) => sum + program.seconds, 0),
      findings: [],
      rulings: [...new Map(sheets.flatMap(({ films }) => films.map((film) => [film.id, film]))).values()].map(
        saySettings,
      ),
    };
  },
};
