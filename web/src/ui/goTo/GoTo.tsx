'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Key } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { ask } from '@/api/client';
import { STUDENTS } from '@/api/endpoints';
import { entriesFor, meant, type Findable } from './entries';

/** From anywhere to anywhere: a few letters of a student's name, and Enter. */
export function GoTo() {
  const router = useRouter();
  const [isOpen, setOpen] = useState(false);
  const [students, setStudents] = useState<readonly Findable[] | 'failed'>([]);
  const [typed, setTyped] = useState('');
  const found = meant(entriesFor(students === 'failed' ? [] : students), typed);

  const open = () => {
    setTyped('');
    setOpen(true);
    // Whatever is no list of students counts as none: the screens can still be gone to.
    ask(STUDENTS, []).then(setStudents, () => setStudents('failed'));
  };
  const go = (href: string) => {
    setOpen(false);
    router.push(href);
  };
  useHotkeys('mod+k', open, { preventDefault: true, enableOnFormTags: true });

  return (
    <>
      <button type="button" onClick={open} className="flex items-center gap-1.5 text-soft">
        Go to <Key>Ctrl K</Key>
      </button>
      <Dialog isOpen={isOpen} onClose={() => setOpen(false)} title="Go to">
        <Command shouldFilter={false} label="Go to">
          <Command.Input
            value={typed}
            onValueChange={setTyped}
            placeholder="a name, a screen"
            className="h-11 w-full border-b-2 border-ink bg-transparent px-1 text-lg outline-none"
          />
          <Command.List className="min-h-[22rem] pt-2">
            <Command.Empty className="px-1 py-2 text-soft">
              Nobody and nothing of that name.
            </Command.Empty>
            {found.map(({ label, href }) => (
              <Command.Item
                key={href}
                value={href}
                onSelect={() => go(href)}
                className="cursor-pointer border-l-4 border-transparent px-3 py-2 aria-selected:border-now aria-selected:bg-tint"
              >
                {label}
              </Command.Item>
            ))}
          </Command.List>
        </Command>
        {students === 'failed' && (
          <p role="alert" className="mt-2 text-sm">
            The students cannot be looked up now; the screens can.
          </p>
        )}
      </Dialog>
    </>
  );
}
