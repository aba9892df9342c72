/** A command of a screen: what the coach can do there, by key, by button, or by name. */

export interface Command {
  /** The same for the same thing on every screen. */
  readonly id: string;
  /**
   * Keys as a keyboard event names them, with `Mod` for Ctrl or ⌘ and `Shift`: "ArrowRight",
   * "Shift+ArrowRight", "Mod+z", "/", "?". A sign is what is written, wherever the keyboard has it.
   */
  readonly keys: readonly string[];
  /** What it does, to follow its key: "one frame on". */
  readonly words: string;
  /** Under which head it stands in the list of keys. */
  readonly group: string;
  /** False: neither by key nor by name, for now. */
  readonly isOn?: boolean;
  /** Also while something is being typed. */
  readonly isInFields?: boolean;
  run(event: KeyboardEvent | null): void;
}

const NAMES: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Escape: 'Esc',
  Mod: 'Ctrl',
  ' ': 'Space',
};

/** "Mod+z" in its parts; the sign + is a key of its own. */
const partsOf = (key: string) => (key === '+' ? ['+'] : key.split('+'));

/** A key as it is named on the keyboard: "Shift →", "Ctrl Z". */
export function keyName(key: string): string {
  return partsOf(key)
    .map((part) => NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' ');
}

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;

/** Whether a key of a command is the one that was pressed. */
export function isPressed(key: string, event: Pressed): boolean {
  const parts = partsOf(key);
  const wanted = parts[parts.length - 1]!;
  const isMod = event.ctrlKey || event.metaKey;
  if (event.altKey || isMod !== parts.includes('Mod')) return false;
  if (event.key.toLowerCase() !== wanted.toLowerCase()) return false;
  // A sign such as "?" needs Shift on some keyboards and none on others.
  const isSign = wanted.length === 1 && wanted.toLowerCase() === wanted.toUpperCase();
  return isSign && wanted !== ' ' ? true : event.shiftKey === parts.includes('Shift');
}

/** Where letters are text: fields, and whatever else takes words. */
const FIELDS =
  'input:not([type=checkbox]):not([type=radio]):not([type=button]):not([type=submit]), ' +
  'textarea, select, [contenteditable=true]';

/** What is pressed on these belongs to them. */
const OWN_KEYS: readonly (readonly [selector: string, keys: RegExp])[] = [
  ['button, a, summary, [role=tab], [role=option], [role=menuitem]', /^(Enter| )$/],
  ['[role=tablist], [role=radiogroup], [role=listbox], input[type=radio]', /^Arrow/],
];

/** Whether the command may take a key that was pressed on an element. */
export function isFreeFor(
  { isInFields = false }: Pick<Command, 'isInFields'>,
  key: string,
  target: Element | null,
): boolean {
  if (!target) return true;
  if (target.closest(FIELDS)) return isInFields;
  return !OWN_KEYS.some(([selector, keys]) => keys.test(key) && target.closest(selector));
}
