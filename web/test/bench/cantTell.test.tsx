// @vitest-environment happy-dom
/** What cannot be told: what is likely there stands apart, and who goes first can be marked. */
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, it, vi } from 'vitest';
import type { Finding, Open } from '@sinew/core/judge/fault/finding';
import { BenchContext } from '@/screens/bench/document/benchStore';
import { CantTell } from '@/screens/bench/panel/faults/CantTell';
import { benchWith } from './kit';

afterEach(cleanup);

const open = (name: string, likely: Open['likely'], reading: string) =>
  ({
    fault: name.toLowerCase().replaceAll(' ', '-'),
    name,
    status: 'cant-tell',
    evidence: '',
    judgedBy: [{ limit: { reading, is: 'below', value: 0.02 }, measured: null }],
    open: { settle: 'More strikes would settle it.', short: '12 ± 20 ms, limit 20 ms', likely },
  }) as unknown as Finding;

function shown(findings: readonly Finding[]) {
  const store = benchWith();
  const onSay = vi.fn();
  render(
    <BenchContext value={store}>
      <CantTell findings={findings} onSay={onSay} />
    </BenchContext>,
  );
  return { store, onSay };
}

it('what is likely there stands first, with the eye to decide; all else by what would settle it', async () => {
  const { onSay } = shown([
    open('Wide', 'not-there', 'flare'),
    open('Jammed', 'there', 'reach'),
    open('Braking', null, 'braking'),
  ]);
  const likely = within(screen.getByRole('region', { name: 'Likely there' }));
  expect(likely.getByText('Jammed (12 ± 20 ms, limit 20 ms)')).toBeTruthy();
  const rest = within(screen.getByRole('region', { name: 'Can’t tell' }));
  expect(rest.getByText('Wide (12 ± 20 ms, limit 20 ms, likely not there)')).toBeTruthy();
  expect(rest.queryByText(/Jammed/)).toBeNull();
  await userEvent.click(likely.getByRole('button', { name: 'Jammed: I see it' }));
  expect(onSay).toHaveBeenCalledWith('jammed', true);
});

it('nothing likely, nothing said of it', () => {
  shown([open('Braking', null, 'braking')]);
  expect(screen.queryByRole('region', { name: 'Likely there' })).toBeNull();
});

it('who goes first can be marked, where that is what is asked', async () => {
  const { store } = shown([
    open('All at once', null, 'lead.hipsTrunk'),
    open('Braking', null, 'braking'),
  ]);
  const buttons = screen.getAllByRole('button', { name: /Mark the turn/ });
  expect(buttons).toHaveLength(1);
  await userEvent.click(buttons[0]!);
  expect(store.getState().tool).toEqual({ kind: 'turn' });
});
