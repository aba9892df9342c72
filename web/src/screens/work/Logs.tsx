'use client';

import { toast } from 'sonner';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { pastDay } from '@/data/database/today';
import type { Log } from '@/data/work/drillLog';
import { Button } from '@/ui/button';
import { setLogGone } from './actions';

/** The last sets, each of which can be taken out. */
export function Logs({ logs }: { logs: readonly Log[] }) {
  if (logs.length === 0) return null;
  const remove = async (log: Log) => {
    try {
      await setLogGone(log.id, true);
      toast('The set is taken out.', {
        action: { label: 'Bring it back', onClick: () => void setLogGone(log.id, false) },
      });
    } catch {
      toast('Not taken out: the server does not answer. Try again.');
    }
  };
  return (
    <section aria-label="Sets logged" className="mt-10">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        Sets logged, the last {logs.length}
      </h2>
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th>Day</th>
            <th>Work</th>
            <th>Meant</th>
            <th>Done</th>
            <th>Clean</th>
            <th>Take out</th>
          </tr>
        </thead>
        <tbody>
          {logs.map((one) => (
            <tr key={one.id} className="border-b border-rule">
              <td className="py-1.5 pr-4 text-soft">{pastDay(one.day)}</td>
              <td className="pr-4">{one.name}</td>
              <td className="pr-4 text-soft">{INTENT_NAMES[one.intent]}</td>
              <td className="pr-4 text-right">{doneInWords(one)}</td>
              <td className="pr-4 text-right text-soft">
                {one.clean === null ? '' : `${one.clean} clean`}
              </td>
              <td className="text-right">
                <Button
                  weight="quiet"
                  className="!min-h-6 text-sm"
                  onClick={() => void remove(one)}
                >
                  Take out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function doneInWords({ strikes, seconds, countedBy }: Log): string {
  if (countedBy === 'home') return 'ticked at home';
  return strikes > 0 ? `${strikes} strikes` : `${seconds} s`;
}
