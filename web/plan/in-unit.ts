import type { JobFinding } from '../../core/recipe/index.js';
import { formatLength, type LengthUnit } from '../../core/words/index.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';

/** A length in a sentence, or two or three of them that are said together: "14 mm", "30 × 40 mm", "1 : 2.5 mm". Areas and speeds are none. */
const SAID_MM = /(\d+(?:\.\d+)?(?:(?: × | and | or | to )\d+(?:\.\d+)?)*) mm(?![\w²/])/g;

/**
 * A sentence as it is said in the shop's unit. Sentences are made in millimetres, in one place for the page, the API and the command line;
 * only a reader who thinks in inches needs them otherwise.
 */
export function inUnit(sentence: string, unit: LengthUnit): string {
  if (unit === 'mm') return sentence;
  return sentence.replace(
    SAID_MM,
    (_, lengths: string) => `${lengths.replace(/\d+(?:\.\d+)?/g, (mm) => converted(Number(mm), unit))} ${unit}`,
  );
}

/** A sentence has its lengths from 10 mm on in tenths of a millimetre: thousandths of an inch would be made up. */
function converted(mm: number, unit: LengthUnit): string {
  return unit === 'in' && mm >= 10 ? String(Number((mm / 25.4).toFixed(2))) : formatLength(mm, unit);
}

/** All that a plan says, in the shop's unit; the plan itself where that is millimetres. */
export function planInUnit(view: PlanView | null, unit: LengthUnit): PlanView | null {
  if (!view || unit === 'mm') return view;
  const say = (sentence: string) => inUnit(sentence, unit);
  const labelled = <T extends { readonly label: string }>(list: readonly T[]) =>
    list.map((one) => ({ ...one, label: say(one.label) }));
  const found = (finding: JobFinding): JobFinding => ({
    ...finding,
    message: say(finding.message),
    ...(finding.remedies ? { remedies: labelled(finding.remedies) } : {}),
  });
  return {
    ...view,
    findings: view.findings.map(found),
    letBe: view.letBe.map(found),
    rulings: view.rulings.map((ruling) => ({
      ...ruling,
      sentence: say(ruling.sentence),
      because: ruling.because.map(say),
      ...(ruling.alternatives ? { alternatives: labelled(ruling.alternatives) } : {}),
    })),
    ...(view.pairs ? { pairs: view.pairs.map((pair) => ({ ...pair, because: pair.because.map(say) })) } : {}),
    ...(view.steps
      ? { steps: view.steps.map((step) => ({ ...step, title: say(step.title), text: say(step.text) })) }
      : {}),
  };
}
