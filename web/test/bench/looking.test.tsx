// @vitest-environment happy-dom
/** The panel while the body is still looked for: what a coach can do meanwhile. */
import { cleanup, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { SidePanel } from '@/screens/bench/panel/SidePanel';
import { benchWith, jammedCross, onBench, strikeIn } from './kit';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: vi.fn() }) }));
vi.mock('@/screens/bench/document/actions', async () =>
  (await import('./doubles')).actionsThatKeep(),
);
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  ask: vi.fn(async () => ({ revision: 1 })),
}));

afterEach(cleanup);

type Start = NonNullable<NonNullable<Parameters<typeof benchWith>[0]>['start']>;
const LOOKING = { job: { state: 'wanted' } as Start['job'] };

const panelOf = (start: Start) =>
  onBench(benchWith({ strike: null, start }), () => (
    <SidePanel decisions={{}} cues={[]} setups={[]} others={[]} worn={{}} deeds={[]} />
  ));

it('a strike can be named while its film is looked at', async () => {
  const { user, store } = panelOf(LOOKING);
  expect(screen.getByRole('heading', { name: 'Still looking.' })).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Cross' }));
  expect(strikeIn(store)).toMatchObject({ technique: 'cross', side: 'right' });
  expect(screen.getByRole('status').textContent).toContain('keys 1 to 8');
});

it('points in space from elsewhere wait for no film', async () => {
  const { user } = panelOf({ ...LOOKING, series: jammedCross().series });
  expect(screen.queryByRole('heading', { name: 'Still looking.' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Cross' }));
  expect(await screen.findByRole('heading', { name: 'Jammed' })).toBeTruthy();
});
