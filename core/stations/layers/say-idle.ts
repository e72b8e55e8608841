import type { Film } from '../../shop/index.js';
import type { Finding } from '../../words/index.js';
import type { BuildDecisions, BuildPatch } from './decisions.js';
import type { Idle } from './idle.js';
import { pairKey } from './pairs.js';

/** What is decided that a remedy may take back. */
type Decided = Pick<BuildDecisions['build'], 'knockOuts' | 'outlines' | 'pairs' | 'filmPairs'>;
type DecidedPairs = Pick<Decided, 'pairs' | 'filmPairs'>;

/** A film that runs completely under all above it, whatever was decided pair by pair before; other films stay as they are. */
export function runsWholeUnder(filmId: string, { pairs, filmPairs }: DecidedPairs): DecidedPairs {
  return {
    filmPairs: { ...filmPairs, [filmId]: { school: 'overlay', trapMm: null } },
    pairs: Object.fromEntries(Object.entries(pairs).filter(([key]) => !key.startsWith(pairKey(filmId, '')))),
  };
}

/** A decision that does nothing, said with what can be done instead. */
export function sayIdle(idle: Idle, decided: Decided, filmOf: (id: string) => Film | undefined): Finding<BuildPatch> {
  const name = (id: string) => filmOf(id)?.name ?? 'a film that is not in this job any more';
  const finding = (code: string, message: string, label: string, patch: BuildPatch): Finding<BuildPatch> => ({
    code,
    severity: 'warning',
    stage: 'build',
    message,
    remedies: [{ label, patch }],
  });
  switch (idle.kind) {
    case 'knock-out': {
      const { shapeFilmId, baseFilmId } = idle.knockOut;
      const why = {
        itself: `${name(shapeFilmId)} cannot be cut out of itself, so nothing is cut out.`,
        gone: `Nothing is cut out: ${[shapeFilmId, baseFilmId].filter((id) => !filmOf(id)).length > 1 ? 'both films are' : 'one of the two films is'} not in this job any more.`,
        apart: `Nothing is cut out: ${name(shapeFilmId)} and ${name(baseFilmId)} lie apart.`,
      }[idle.why];
      return finding('knock-out-idle', why, 'Take this cut-out away', {
        build: { knockOuts: decided.knockOuts.filter((one) => one !== idle.knockOut) },
      });
    }
    case 'block-out':
      return finding(
        'block-out-idle',
        idle.why === 'itself'
          ? 'The backing is the film that it should lie under, so it does nothing. Choose another film for one of them.'
          : 'The backing does nothing: the film that it should lie under is not in this job any more.',
        'Remove the backing',
        { build: { blockOut: null } },
      );
    case 'outline-gone':
      return finding(
        'outline-idle',
        idle.what === 'film'
          ? 'An outline has no film: the one that was chosen is not in stock any more.'
          : 'An outline goes around nothing: the films or parts that were chosen for it are not in this job any more, or nothing of them shows.',
        'Remove this outline',
        { build: { outlines: decided.outlines.filter((one) => one !== idle.outline) } },
      );
    case 'base':
      return finding(
        'base-idle',
        idle.film
          ? `${idle.film.name} cannot lie under everything: nothing sticks on it.`
          : 'The film that should lie under everything is not in stock any more.',
        'Build without a base',
        { build: { base: null } },
      );
    case 'film-pairs': {
      const { [idle.filmId]: _own, ...others } = decided.filmPairs;
      return finding(
        'film-pairs-idle',
        `How ${name(idle.filmId)} meets all others was decided, but it does nothing: it meets no other film, or each pair has a decision of its own.`,
        'Take this decision back',
        { build: { filmPairs: others } },
      );
    }
    case 'pair': {
      const { lower, upper, why } = idle.pair;
      return finding(
        'pair-idle',
        `${lower.name} does not run under ${upper.name}, whatever is chosen: ${why === 'dyes-mix' ? 'dyes mix where they overlap' : `nothing sticks on ${lower.name}`}. Their edges only touch.`,
        `Let ${lower.name} and ${upper.name} only touch`,
        { build: { pairs: { ...decided.pairs, [pairKey(lower.id, upper.id)]: { school: 'inlay', trapMm: null } } } },
      );
    }
    case 'outline-islands': {
      const { film, pieces } = idle;
      return {
        code: 'outline-islands',
        severity: 'warning',
        stage: 'build',
        message: `The outline in ${film.name} is cut as ${pieces} separate pieces: it lies flush around the work, and parts of it lie in counters and between letters.${film.takesOnTop ? '' : ` Nothing sticks on ${film.name}, so it cannot run under. A film that takes others on top would stay in one piece.`}`,
        ...(film.takesOnTop
          ? { remedies: [{ label: 'Let it run completely under', patch: { build: runsWholeUnder(film.id, decided) } }] }
          : {}),
      };
    }
  }
}
