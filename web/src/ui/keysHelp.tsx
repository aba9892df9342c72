'use client';

import { Fragment, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Key } from './button';
import { Dialog } from './dialog';

/** Keys as they are named on the keyboard, and what each does. */
export type KeyList = readonly (readonly [key: string, does: string])[];

const EVERYWHERE: KeyList = [
  ['Ctrl K', 'go to a student or a screen'],
  ['?', 'these keys'],
];

/** What every key of the screen does, on "?" or a click. */
export function KeysHelp({ keys, note }: { keys: KeyList; note?: string }) {
  const [isOpen, setOpen] = useState(false);
  useHotkeys('shift+slash, ?', () => setOpen(true), {
    ...{ useKey: true, preventDefault: true, enableOnFormTags: ['slider'] },
  });
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex items-center gap-1.5 text-soft"
      >
        Keys <Key>?</Key>
      </button>
      <Dialog isOpen={isOpen} onClose={() => setOpen(false)} title="Keys">
        <dl className="grid grid-cols-[6.5rem_1fr] gap-x-4 gap-y-1.5">
          {[...keys, ...EVERYWHERE].map(([key, does]) => (
            <Fragment key={key}>
              <dt className="font-semibold">{key}</dt>
              <dd>{does}</dd>
            </Fragment>
          ))}
        </dl>
        {note && <p className="mt-4 text-sm text-soft">{note}</p>}
      </Dialog>
    </>
  );
}
