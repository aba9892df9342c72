'use client';

import { Command as Cmdk } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { Key } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { ask } from '@/api/client';
import { STUDENTS } from '@/api/endpoints';
import { keyName, type Command } from '../commands/command';
import { commandsNow, useCommands } from '../commands/registry';
import { entriesFor, entriesOf, filmsOf, keyOf, meant, type Entry, type Findable } from './entries';

/** From anywhere to anywhere: a few letters of a student's name, and Enter. */
export function GoTo() {
  const router = useRouter();
  const [isOpen, setOpen] = useState(false);
  const [students, setStudents] = useState<readonly Findable[] | 'failed'>([]);
  const [typed, setTyped] = useState('');
  const [commands, setCommands] = useState<readonly Command[]>([]);
  const entries = [...entriesFor(students === 'failed' ? [] : students), ...entriesOf(commands)];
  const found = [...meant(entries, typed), ...filmsOf(typed)];
  /** What arrows or the mouse have chosen; else the first of what is found, also of what comes late. */
  const [chosen, setChosen] = useState<string | null>(null);
  const isByHand = useRef(false);
  const isThere = found.some((entry) => keyOf(entry) === chosen);
  const inHand = isThere ? chosen! : found[0] ? keyOf(found[0]) : '';
  const type = (text: string) => {
    isByHand.current = false;
    setChosen(null);
    setTyped(text);
  };

  const open = () => {
    type('');
    setCommands(commandsNow());
    setOpen(true);
    // Whatever is no list of students counts as none: the screens can still be gone to.
    ask(STUDENTS, []).then(setStudents, () => setStudents('failed'));
  };
  const choose = (entry: Entry) => {
    setOpen(false);
    if (entry.kind === 'command') entry.command.run(null);
    else router.push(entry.href);
  };
  useCommands(() => [
    {
      id: 'go-to',
      keys: ['Mod+k'],
      words: 'go to a student or a screen, or do anything by its name',
      group: 'Everywhere',
      isInFields: true,
      run: open,
    },
  ]);

  return (
    <>
      <button type="button" onClick={open} className="flex items-center gap-1.5 text-soft">
        Go to <Key>Ctrl K</Key>
      </button>
      <Dialog isOpen={isOpen} onClose={() => setOpen(false)} title="Go to">
        <Cmdk
          shouldFilter={false}
          label="Go to"
          value={inHand}
          onValueChange={(value) => isByHand.current && setChosen(value)}
          onKeyDown={(event) => {
            if (event.ctrlKey || /^(Arrow|Home|End)/.test(event.key)) isByHand.current = true;
          }}
          onPointerMove={() => {
            isByHand.current = true;
          }}
        >
          <Cmdk.Input
            value={typed}
            onValueChange={type}
            placeholder="a name, a screen, what to do"
            className="h-11 w-full border-b-2 border-ink bg-transparent px-1 text-lg outline-none"
          />
          <Cmdk.List className="min-h-[22rem] pt-2">
            {found.map((entry) => (
              <Cmdk.Item
                key={keyOf(entry)}
                value={keyOf(entry)}
                onSelect={() => choose(entry)}
                className="flex cursor-pointer items-center justify-between gap-4 border-l-4 border-transparent px-3 py-2 aria-selected:border-now aria-selected:bg-tint"
              >
                {entry.label}
                {entry.kind === 'command' && (
                  <Key>{entry.command.keys.map(keyName).join(', ')}</Key>
                )}
              </Cmdk.Item>
            ))}
          </Cmdk.List>
        </Cmdk>
        {students === 'failed' && (
          <p role="alert" className="mt-2 text-sm">
            The students cannot be looked up now; the screens can.
          </p>
        )}
      </Dialog>
    </>
  );
}
