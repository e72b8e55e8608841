import { cutProgram, type CutProgram, type Motion } from '../../engines/cutting/index.js';
import { settingsFor, type CutterProfile } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { SheetsOut } from '../sheets/index.js';
import type { Stage } from '../stage.js';
import { saySettings } from './say.js';

export interface CutOut {
  readonly programs: readonly CutProgram[];
  readonly seconds: number;
  readonly findings: readonly Finding<never>[];
  readonly rulings: readonly Ruling<never>[];
}

interface CutRead {
  readonly sheets: SheetsOut;
  readonly cutter: Motion & Pick<CutterProfile, 'bladeOffsetMm' | 'overcutMm'>;
}

/** The program of each sheet: what the cutter is told. */
export const cutStage: Stage<{ readonly sheets: SheetsOut; readonly cutter: CutterProfile }, CutRead, CutOut> = {
  name: 'cut',
  read({ sheets, cutter: { accelerationMmS2, travelSpeedMmS, liftSeconds, bladeOffsetMm, overcutMm } }) {
    return { sheets, cutter: { accelerationMmS2, travelSpeedMmS, liftSeconds, bladeOffsetMm, overcutMm } };
  },
  run({ sheets: { sheets }, cutter }) {
    const programs = sheets.map((sheet) => cutProgram({ groups: sheet.groups, settings: settingsFor(sheet.film, cutter), motion: cutter }));
    return {
      programs,
      seconds: programs.reduce((sum, program) => sum + program.seconds, 0),
      findings: [],
      rulings: [...new Set(sheets.map((sheet) => sheet.film))].map(saySettings),
    };
  },
};
