import { describe, expect, it } from 'vitest';
import { Changes } from './changes.js';

const job = (revision: number) => ({ of: 'job', jobId: 'a', revision }) as const;

describe('changes that pages are told', () => {
  it('goes on from where a page was, and says when it cannot', () => {
    const changes = new Changes();
    const start = changes.newest;
    const heard: string[] = [];
    changes.listen(({ id }) => heard.push(id));
    for (let i = 1; i <= 5; i += 1) changes.tell(job(i));
    expect(changes.since(start)!.map(({ change }) => (change.of === 'job' ? change.revision : null))).toEqual([
      1, 2, 3, 4, 5,
    ]);
    expect(changes.since(heard[2]!)!.map(({ change }) => (change.of === 'job' ? change.revision : null))).toEqual([
      4, 5,
    ]);
    expect(changes.since(changes.newest)).toEqual([]);
    expect(changes.since('another.3')).toBeNull();
    expect(changes.since(`${start.split('.')[0]!}.99`)).toBeNull();
    expect(changes.since('nonsense')).toBeNull();
    expect(new Changes().since(start)).toBeNull();
  });

  it('forgets the oldest and says so', () => {
    const changes = new Changes();
    const start = changes.newest;
    for (let i = 1; i <= 1500; i += 1) changes.tell(job(i));
    expect(changes.since(start)).toBeNull();
    const boot = start.slice(0, start.lastIndexOf('.'));
    expect(changes.since(`${boot}.500`)!.map(({ change }) => (change.of === 'job' ? change.revision : null))).toEqual(
      Array.from({ length: 1000 }, (_, i) => 501 + i),
    );
    expect(changes.since(`${boot}.499`)).toBeNull();
  });
});
