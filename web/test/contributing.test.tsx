// @vitest-environment happy-dom
/** The worked example of a screen in CONTRIBUTING.md, done just as it stands there. */
import { readFileSync } from 'node:fs';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, it } from 'vitest';
import { Button } from '@/ui/button';
import { CommandKeys } from '@/ui/commands/CommandKeys';
import { commandsNow, useCommands } from '@/ui/commands/registry';

afterEach(cleanup);

// #region screen
function Bell() {
  const [rung, setRung] = useState(0);
  const ring = () => setRung((times) => times + 1);
  useCommands(() => [
    { id: 'ring', keys: ['r'], words: 'ring the bell', group: 'Bell', run: ring },
  ]);
  return (
    <main>
      <h1>Rung {rung} times.</h1>
      <Button hint="R" onClick={ring}>
        Ring
      </Button>
    </main>
  );
}
// #endregion

it('a command is known while its part is on the screen, by key and by button', async () => {
  const user = userEvent.setup();
  const { unmount } = render(
    <>
      <CommandKeys />
      <input aria-label="Name" />
      <Bell />
    </>,
  );
  expect(commandsNow().map(({ id }) => id)).toEqual(['ring']);
  await user.keyboard('r');
  expect(screen.getByRole('heading').textContent).toBe('Rung 1 times.');
  await user.click(screen.getByRole('button', { name: 'Ring' }));
  expect(screen.getByRole('heading').textContent).toBe('Rung 2 times.');
  // Letters in a field are text, and Enter on a button is the button's.
  await user.click(screen.getByLabelText('Name'));
  await user.keyboard('rr');
  expect(screen.getByRole('heading').textContent).toBe('Rung 2 times.');
  unmount();
  expect(commandsNow()).toEqual([]);
});

it('CONTRIBUTING.md shows these very lines', () => {
  const guide = readFileSync('CONTRIBUTING.md', 'utf8');
  const here = readFileSync('web/test/contributing.test.tsx', 'utf8');
  const flat = (text: string) => text.replace(/\s+/g, ' ').trim();
  const code = /\/\/ #region screen\n([\s\S]*?)\n\/\/ #endregion/.exec(here)![1]!;
  expect(flat(guide)).toContain(flat(code));
});
