'use client';

import { group } from 'd3-array';
import { Fragment, useState } from 'react';
import { Key } from '../button';
import { Dialog } from '../dialog';
import { keyName, type Command } from './command';
import { commandsNow, useCommands } from './registry';

/** What every key of the screen does, under heads, on "?" or a click. */
export function KeysHelp() {
  const [listed, setListed] = useState<readonly Command[] | null>(null);
  const open = () => setListed(commandsNow());
  useCommands(() => [
    { id: 'keys', keys: ['?'], words: 'these keys', group: 'Everywhere', run: open },
  ]);
  return (
    <>
      <button type="button" onClick={open} className="flex items-center gap-1.5 text-soft">
        Keys <Key>?</Key>
      </button>
      <Dialog isOpen={listed !== null} onClose={() => setListed(null)} title="Keys" isWide>
        <div className="gap-x-10 sm:columns-2">
          {[
            ...group(
              (listed ?? []).filter(({ keys }) => keys.length > 0),
              (one) => one.group,
            ),
          ].map(([head, commands]) => (
            <section key={head} className="mb-4 break-inside-avoid">
              <h3 className="mb-1 border-b border-rule pb-0.5 text-sm font-semibold text-soft">
                {head}
              </h3>
              <dl className="grid grid-cols-[7rem_1fr] gap-x-4 gap-y-1">
                {commands.map(({ id, keys, words }) => (
                  <Fragment key={id}>
                    <dt className="font-semibold">{keys.map(keyName).join(', ')}</dt>
                    <dd>{words}</dd>
                  </Fragment>
                ))}
              </dl>
            </section>
          ))}
        </div>
      </Dialog>
    </>
  );
}
