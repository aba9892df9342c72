// @vitest-environment happy-dom
/** Ctrl K typed faster than the students can be looked up. */
import { act, cleanup, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ask } from '@/api/client';
import { GoTo } from '@/ui/goTo/GoTo';
import { onScreen } from './kit';

const push = vi.fn();
vi.mock('next/navigation', () => ({ useRouter: () => ({ push }), usePathname: () => '/' }));
vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), ask: vi.fn() }));

let found: (students: unknown) => void;
beforeEach(() => {
  push.mockClear();
  vi.mocked(ask).mockReturnValue(
    new Promise((resolve) => {
      found = resolve as typeof found;
    }) as never,
  );
  // What the list needs of a browser, and happy-dom has not.
  Element.prototype.scrollIntoView = vi.fn();
});
afterEach(cleanup);
const MAREN = [{ id: 'a', name: 'Maren Voss', classGroup: 'Tuesday' }];
const options = () => screen.getAllByRole('option').map((one) => one.textContent);

it('Enter goes to the student, who came after the words were typed', async () => {
  const { user } = onScreen(<GoTo />);
  await user.keyboard('{Control>}k{/Control}');
  await user.keyboard('voss le');
  expect(options()).toEqual(['Films: “voss le”']);
  await act(async () => found(MAREN));
  expect(options()).toEqual(['Maren Voss, ledger', 'Films: “voss le”']);
  await user.keyboard('{Enter}');
  expect(push).toHaveBeenLastCalledWith('/students/a/ledger');
});

it('what the arrows have chosen stays chosen; other words begin anew', async () => {
  const { user } = onScreen(<GoTo />);
  await user.keyboard('{Control>}k{/Control}');
  await act(async () => found(MAREN));
  await user.keyboard('voss le{ArrowDown}{Enter}');
  expect(push).toHaveBeenLastCalledWith('/films?words=voss%20le');
  await user.keyboard('{Control>}k{/Control}');
  await act(async () => found(MAREN));
  await user.keyboard('voss l{ArrowDown}e{Enter}');
  expect(push).toHaveBeenLastCalledWith('/students/a/ledger');
});
