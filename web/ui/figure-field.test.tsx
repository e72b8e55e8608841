// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { FigureField } from './figure-field.js';
import { NoticesProvider } from './notices.js';
import { NumberField } from './number-field.js';

afterEach(cleanup);

interface Log {
  readonly kept: number[];
  readonly tried: (number | null)[];
}

function Page({ log }: { readonly log: Log }) {
  const [mm, setMm] = useState(10);
  const [isHere, setHere] = useState(true);
  const keep = (next: number) => {
    log.kept.push(next);
    setMm(next);
  };
  return (
    <NoticesProvider>
      {isHere && (
        <FigureField
          label="Width"
          mm={mm}
          unit="mm"
          stepMm={1}
          max={5000}
          onChange={keep}
          onTry={(next) => log.tried.push(next)}
        />
      )}
      {isHere && <NumberField label="Copies" value={mm} min={1} max={500} onChange={keep} />}
      {/* A press that does not take the focus first, as an undo by keys. */}
      <button onMouseDown={(event) => event.preventDefault()} onClick={() => setHere(false)}>
        leave
      </button>
    </NoticesProvider>
  );
}

function open() {
  const log: Log = { kept: [], tried: [] };
  render(<Page log={log} />);
  return { log, width: screen.getByLabelText<HTMLInputElement>('Width'), user: userEvent.setup() };
}

describe('a figure in its sentence', () => {
  it('is one step with Enter and then Tab', async () => {
    const { log, width, user } = open();
    await user.clear(width);
    await user.type(width, '12 cm{Enter}');
    await user.tab();
    expect([log.kept, width.value]).toEqual([[120], '120']);
  });

  it('is one step when the field is left, and for ten arrow keys', async () => {
    const { log, width, user } = open();
    await user.click(width);
    await user.keyboard('{ArrowUp}'.repeat(10));
    expect(log.kept).toEqual([]);
    await user.tab();
    expect(log).toEqual({ kept: [20], tried: [11, 12, 13, 14, 15, 16, 17, 18, 19, 20, null] });
  });

  it('is taken when its field goes away in the middle', async () => {
    const { log, width, user } = open();
    await user.clear(width);
    await user.type(width, '33');
    await user.click(screen.getByText('leave'));
    expect(log.kept).toEqual([33]);
  });

  it('is told when it cannot be read and its field goes away', async () => {
    const { log, width, user } = open();
    await user.clear(width);
    await user.type(width, 'ells');
    await user.click(screen.getByText('leave'));
    expect(log.kept).toEqual([]);
    expect(screen.getByRole('status').textContent).toContain('“ells” is not a length');
  });

  it('of a place may lie before nothing, however the sign is typed; a length may not', async () => {
    const kept: number[] = [];
    render(
      <NoticesProvider>
        <FigureField label="Place" mm={-8} unit="mm" min={-100} stepMm={1} onChange={(mm) => kept.push(mm)} />
        <FigureField label="Length" mm={8} unit="mm" onChange={(mm) => kept.push(mm)} />
      </NoticesProvider>,
    );
    const user = userEvent.setup();
    const place = screen.getByLabelText<HTMLInputElement>('Place');
    expect(place.value).toBe('−8');
    for (const typed of ['-12', '−1.5 cm', '7']) {
      await user.clear(place);
      await user.type(place, `${typed}{Enter}`);
    }
    await user.clear(place);
    await user.type(place, '-200{Enter}');
    expect(screen.getByRole('alert').textContent).toContain('from −100 to');
    await user.keyboard('{Escape}');
    const length = screen.getByLabelText('Length');
    await user.clear(length);
    await user.type(length, '-3{Enter}');
    expect(kept).toEqual([-12, -15, 7]);
  });

  it('asks what 1,200 is, and takes neither in silence', async () => {
    const { log, width, user } = open();
    await user.clear(width);
    await user.type(width, '1,200{Enter}');
    expect(log.kept).toEqual([]);
    expect(screen.getByRole('alert').textContent).toContain('write 1.200 or 1200');
    await user.clear(width);
    await user.type(width, '1200{Enter}');
    expect(log.kept).toEqual([1200]);
  });

  it('is given up by Escape', async () => {
    const { log, width, user } = open();
    await user.click(width);
    await user.keyboard('{ArrowUp}{Escape}');
    await user.tab();
    expect([log.kept, log.tried, width.value]).toEqual([[], [11, null], '10']);
  });

  it('of copies is one step for many arrow keys', async () => {
    const { log, user } = open();
    await user.click(screen.getByLabelText('Copies'));
    await user.keyboard('{ArrowUp}{ArrowUp}{ArrowUp}{Enter}');
    await user.tab();
    expect(log.kept).toEqual([13]);
  });
});
