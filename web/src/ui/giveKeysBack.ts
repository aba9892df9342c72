import type { MouseEvent } from 'react';

/**
 * What was clicked by hand lets go of the keys again, so that the screen's own keys work; what was
 * reached by the keyboard keeps them.
 */
export function giveKeysBack(event: MouseEvent): void {
  const isByHand = event.detail > 0;
  const clicked = (event.target as HTMLElement).closest<HTMLElement>(
    'button, [role=tab], input[type=radio]',
  );
  if (isByHand) clicked?.blur();
}
