// @vitest-environment happy-dom
/** Keys pressed at the first sight of what they are for. */
import { useEffect, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { expect, it } from 'vitest';
import { CommandKeys } from '@/ui/commands/CommandKeys';
import { useCommands } from '@/ui/commands/registry';

/** Told once it stands on the screen; called, it shows its button. */
let standing: (show: () => void) => void;
let filmed = 0;

function Take() {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    standing(() => setReady(true));
  }, []);
  useCommands(() => [
    { id: 'film', keys: [' '], words: 'film', group: 'Film', isOn: isReady, run: () => filmed++ },
  ]);
  return isReady && <button type="button">Film</button>;
}

it('a key pressed as soon as its button is there is not lost', async () => {
  // As in a browser: React draws in its own time, and effects may come after the picture.
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = false;
  const place = document.body.appendChild(document.createElement('div'));
  const seen = new Promise<void>((resolve) => {
    new MutationObserver(() => {
      if (!place.querySelector('button')) return;
      document.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
      resolve();
    }).observe(place, { childList: true, subtree: true });
  });
  const drawn = new Promise<() => void>((resolve) => {
    standing = resolve;
  });
  const root = createRoot(place);
  root.render(
    <>
      <CommandKeys />
      <Take />
    </>,
  );
  const show = await drawn;
  show();
  await seen;
  expect(filmed).toBe(1);
  root.unmount();
});
