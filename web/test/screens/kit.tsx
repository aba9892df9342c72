/** Screens on their own: with the one listener for keys, and a coach at the keyboard. */
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { CommandKeys } from '@/ui/commands/CommandKeys';

export function onScreen(screen: ReactElement) {
  const user = userEvent.setup();
  const drawn = render(
    <>
      <CommandKeys />
      {screen}
    </>,
  );
  return { user, ...drawn };
}
