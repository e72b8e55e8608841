import type { Recipe } from '../recipe/index.js';
import { STATIONS, type Finding } from '../words/index.js';
import type { Plan } from './plan.js';

/** Findings and rulings of all stages, in the order of the job card; those that are let be apart. */
export function collected(plan: Plan, letBe: Recipe['repair']['letBe']): Plan {
  const stages = [
    plan.artwork,
    plan.films,
    plan.surface,
    plan.build,
    plan.prepare,
    plan.sheets,
    plan.cut,
    plan.assemble,
  ];
  const findings = stages.flatMap((stage): Plan['findings'] => stage?.findings ?? []);
  // What stops a job cannot be let be.
  const isLetBe = (finding: Finding) => finding.severity !== 'blocker' && Object.hasOwn(letBe, finding.code);
  return {
    ...plan,
    findings: findings
      .filter((finding) => !isLetBe(finding))
      .sort((a, b) => STATIONS.indexOf(a.stage) - STATIONS.indexOf(b.stage)),
    letBe: findings.filter(isLetBe),
    rulings: stages.flatMap((stage): Plan['rulings'] => stage?.rulings ?? []),
  };
}
