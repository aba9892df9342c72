/** The commands of what is on the screen now: registered by its parts, run by one listener. */
import { useLayoutEffect, useRef } from 'react';
import { isFreeFor, isPressed, type Command } from './command';

const registered = new Map<symbol, readonly Command[]>();

/** The part that came last is asked first: a dialog before the page under it. */
function inOrder(): Command[] {
  return [...registered.values()].reverse().flat();
}

/** What can be done now, in the order in which the screen's parts came. */
export function commandsNow(): Command[] {
  return [...registered.values()].flat().filter(({ isOn = true }) => isOn);
}

/**
 * Makes commands of a part of the screen known for as long as it is there.
 *
 * Registered before the drawing can be seen: a key pressed at the first sight of a button would
 * otherwise still meet the commands of the drawing before, and be lost.
 *
 * @param make is asked with each drawing, so that the commands are those of what is shown
 */
export function useCommands(make: () => readonly Command[]): void {
  const owner = useRef<symbol>(undefined);
  useLayoutEffect(() => {
    owner.current ??= Symbol('part');
    registered.set(owner.current, make());
  });
  useLayoutEffect(
    () => () => {
      if (owner.current) registered.delete(owner.current);
      owner.current = undefined;
    },
    [],
  );
}

/** @returns whether a command took the key */
export function press(event: KeyboardEvent): boolean {
  if (event.defaultPrevented || event.isComposing) return false;
  const target = event.target instanceof Element ? event.target : null;
  // A question on top of the screen has the keys to itself, but for its own commands.
  const dialog = target?.closest('[role=dialog], [role=alertdialog]');
  const taken = inOrder().find(
    (command) =>
      (command.isOn ?? true) &&
      command.keys.some((key) => isPressed(key, event)) &&
      isFreeFor(command, event.key, target) &&
      (!dialog || command.isInFields === true),
  );
  if (!taken) return false;
  event.preventDefault();
  taken.run(event);
  return true;
}
