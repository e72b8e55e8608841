import { sayFilmsOfSheet, type FrozenSheet } from '../../../core/stations/cut/index.js';
import { LeftoversQuestion, withLeftovers } from '../../batch/leftovers-question.js';
import { OffcutNumbers, withNumbersToWrite } from '../../batch/offcut-numbers.js';
import { CutterBusy } from './cutter-busy.js';
import { FailedSheet } from './failed-sheet.js';
import { RunPanel } from './run-panel.js';
import type { Cuts } from './use-cuts.js';

interface AtCutterProps {
  readonly cuts: Cuts;
  readonly own: readonly FrozenSheet[];
  readonly cutsKey: readonly string[];
  /** Nothing more can be sent now. */
  readonly isBusy: boolean;
}

/** What the cutter is at, and what of the sheets that were sent to it waits for a word. */
export function AtCutter({
  cuts: { how, inCutter, active, progress, elsewhere, undecided, act },
  own,
  cutsKey,
  isBusy,
}: AtCutterProps) {
  return (
    <>
      {elsewhere && <CutterBusy busy={elsewhere} />}
      {inCutter && active && (
        <RunPanel
          filmName={sayFilmsOfSheet(inCutter)}
          run={active}
          progress={progress}
          onAct={(name) => act.mutate({ path: `/api/runs/${active.id}/${name}` })}
        />
      )}
      {undecided.map((sheet) => (
        <FailedSheet
          key={sheet.id}
          sheet={sheet}
          busy={isBusy}
          onCut={(which, loadedFilmIds) =>
            act.mutate({ path: `/api/sheets/${sheet.id}/${which}`, json: { loadedFilmIds } })
          }
          onDecide={(decided) => act.mutate({ path: `/api/sheets/${sheet.id}/decide`, json: { decided } })}
        />
      ))}
      {withLeftovers(own, how).map((sheet) => (
        <LeftoversQuestion key={sheet.id} sheet={sheet} cutsKey={cutsKey} />
      ))}
      {withNumbersToWrite(own).map((sheet) => (
        <OffcutNumbers key={sheet.id} sheet={sheet} cutsKey={cutsKey} />
      ))}
    </>
  );
}
