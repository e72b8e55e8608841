import type { Knex } from 'knex';

/* Cutters say how they hold a roll: how much stands out in front, and how much of its end is out of reach. Nothing, as long as nobody has said. */

interface Step {
  readonly kind: string;
  readonly before: object | null;
  readonly after: object | null;
}

const completed = (cutter: object) => ({ leaderMm: 0, tailMm: 0, ...cutter });

export const rolls: Knex.Migration = {
  async up(db) {
    for (const { id, data } of await db<{ kind: string; id: string; data: string }>('shop_records').where({
      kind: 'cutters',
    })) {
      await db('shop_records')
        .where({ kind: 'cutters', id })
        .update({ data: JSON.stringify(completed(JSON.parse(data) as object)) });
    }
    // What is undone or done again comes back complete.
    for (const { position, changes } of await db<{ position: number; changes: string }>('shop_history').select(
      'position',
      'changes',
    )) {
      const steps = (JSON.parse(changes) as Step[]).map((step) =>
        step.kind === 'cutters'
          ? { ...step, before: step.before && completed(step.before), after: step.after && completed(step.after) }
          : step,
      );
      await db('shop_history')
        .where({ position })
        .update({ changes: JSON.stringify(steps) });
    }
  },
  async down() {
    throw new Error('Versions before this one do not know how a cutter holds a roll; restore a backup instead.');
  },
};
