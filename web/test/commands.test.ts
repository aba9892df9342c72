/** Keys and the commands they stand for. */
import { describe, expect, it } from 'vitest';
import { isPressed, keyName } from '@/ui/commands/command';
import { entriesOf, meant } from '@/ui/goTo/entries';

const pressed = (key: string, with_: Partial<KeyboardEvent> = {}) => ({
  key,
  ctrlKey: false,
  metaKey: false,
  shiftKey: false,
  altKey: false,
  ...with_,
});

describe('a key', () => {
  it.each([
    ['w', pressed('w'), true],
    ['w', pressed('W', { shiftKey: true }), false],
    ['Shift+w', pressed('W', { shiftKey: true }), true],
    ['Mod+z', pressed('z', { ctrlKey: true }), true],
    ['Mod+z', pressed('z', { metaKey: true }), true],
    ['Mod+z', pressed('Z', { ctrlKey: true, shiftKey: true }), false],
    ['Mod+Shift+z', pressed('Z', { ctrlKey: true, shiftKey: true }), true],
    ['z', pressed('z', { ctrlKey: true }), false],
    ['z', pressed('z', { altKey: true }), false],
    ['ArrowRight', pressed('ArrowRight', { shiftKey: true }), false],
    ['Shift+ArrowRight', pressed('ArrowRight', { shiftKey: true }), true],
    // Signs are what is written, with or without Shift, wherever the keyboard has them.
    ['?', pressed('?', { shiftKey: true }), true],
    ['?', pressed('?'), true],
    ['/', pressed('/', { shiftKey: true }), true],
    ['/', pressed('/'), true],
    ['1', pressed('1', { shiftKey: true }), true],
    [' ', pressed(' ', { shiftKey: true }), false],
  ] as const)('%s and what is pressed: %j → %s', (key, event, is) => {
    expect(isPressed(key, event)).toBe(is);
  });

  it.each([
    ['Shift+ArrowLeft', 'Shift ←'],
    ['Mod+z', 'Ctrl Z'],
    [' ', 'Space'],
    ['Escape', 'Esc'],
    ['?', '?'],
  ])('%s is named %s', (key, name) => {
    expect(keyName(key)).toBe(name);
  });
});

describe('what a screen can do', () => {
  const commands = [
    { id: 'undo', keys: ['Mod+z'], words: 'undo', group: 'Change', run: () => undefined },
    { id: 'go /plan', keys: ['p'], words: 'plan', group: 'Go', run: () => undefined },
  ];

  it('is found by its words; going somewhere is found by the place’s own name', () => {
    const entries = entriesOf(commands);
    expect(entries.map(({ label }) => label)).toEqual(['Undo']);
    expect(meant(entries, 'un')).toEqual(entries);
    expect(meant(entries, 'change')).toEqual(entries);
    expect(meant(entries, '')).toEqual([]);
  });
});
