'use client';

import { useState } from 'react';
import { DEMAND_NAMES, DEMANDS, type Demand } from '@sinew/core/foundation/drill/demand';
import { INTENTS, type Intent } from '@sinew/core/foundation/drill/intent';
import type { Session } from '@sinew/core/train/work/session';
import { AskDialog } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/field';
import { resetSession, saveSession } from './actions';

/** A block as it is typed. */
interface Typed {
  readonly title: string;
  readonly parts: string;
  readonly work: string;
  readonly rest: string;
  readonly intent: Intent;
  readonly isCalled: boolean;
  readonly asks: readonly Demand[];
  readonly isGate: boolean;
}

const EMPTY: Typed = {
  title: '',
  parts: 'Round 1, Round 2',
  work: '180',
  rest: '60',
  intent: 'tempo',
  isCalled: false,
  asks: [],
  isGate: false,
};

/** What a session is made of, to be changed. */
export function SessionEditor({
  session,
  onDone,
}: {
  session: Session;
  /** @param kept the session's id, when it was kept */
  onDone: (kept: string | null) => void;
}) {
  const [name, setName] = useState(session.name);
  const [blocks, setBlocks] = useState<readonly Typed[]>(() =>
    session.blocks.map(({ title, parts, work, rest, intent, isCalled, asks, isGate }) => ({
      title,
      parts: parts.join(', '),
      work: work === null ? '' : String(work),
      rest: String(rest),
      intent,
      isCalled,
      asks,
      isGate,
    })),
  );
  const change = (index: number, part: Partial<Typed>) =>
    setBlocks((old) => old.map((block, i) => (i === index ? { ...block, ...part } : block)));
  const save = async () => {
    const changed: Session = {
      ...session,
      name,
      blocks: blocks.map(({ title, parts, work, rest, intent, isCalled, asks, isGate }) => ({
        title,
        parts: parts
          .split(',')
          .map((one) => one.trim())
          .filter(Boolean),
        work: work.trim() === '' ? null : Number(work),
        rest: Number(rest || 0),
        intent,
        isCalled,
        asks: [...asks],
        isGate,
      })),
    };
    const wrong = await saveSession(changed, session);
    if (wrong === null) onDone(session.id);
    return wrong;
  };
  const box = 'h-9 w-full border border-soft bg-field px-2';
  return (
    <AskDialog
      isWide
      title={name || 'A session of your own'}
      action="Keep the session"
      leave="Leave it"
      onSave={save}
      onDone={() => onDone(null)}
      other={{
        label: session.id.startsWith('own-') ? 'Take it away' : 'Reset to default',
        act: () => resetSession(session),
      }}
    >
      <div className="max-w-sm">
        <TextField
          label="Name"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
      </div>
      <table className="mt-4 w-full">
        <thead>
          <tr className="border-b border-ink text-left text-sm text-soft">
            <th className="py-1 font-semibold">Part</th>
            <th className="font-semibold">What is done, with commas</th>
            <th className="font-semibold">Work, s</th>
            <th className="font-semibold">Rest, s</th>
            <th className="font-semibold">Meant</th>
            <th className="font-semibold">Loads</th>
            <th className="font-semibold">Calls</th>
            <th className="font-semibold">Gate</th>
            <th>
              <span className="sr-only">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {blocks.map((block, i) => (
            <tr key={i} className="border-b border-rule align-top">
              <td className="w-44 py-1.5 pr-2">
                <input
                  aria-label={`Part ${i + 1}`}
                  value={block.title}
                  onChange={(event) => change(i, { title: event.target.value })}
                  className={box}
                />
              </td>
              <td className="py-1.5 pr-2">
                <input
                  aria-label={`What is done in part ${i + 1}`}
                  value={block.parts}
                  onChange={(event) => change(i, { parts: event.target.value })}
                  className={box}
                />
              </td>
              <td className="w-24 py-1.5 pr-2">
                <input
                  aria-label={`Work of part ${i + 1}, seconds`}
                  inputMode="numeric"
                  placeholder="counted"
                  value={block.work}
                  onChange={(event) => change(i, { work: event.target.value })}
                  className={box}
                />
              </td>
              <td className="w-16 py-1.5 pr-2">
                <input
                  aria-label={`Rest of part ${i + 1}, seconds`}
                  inputMode="numeric"
                  value={block.rest}
                  onChange={(event) => change(i, { rest: event.target.value })}
                  className={box}
                />
              </td>
              <td className="w-24 py-1.5 pr-2">
                <select
                  aria-label={`How part ${i + 1} is meant`}
                  value={block.intent}
                  onChange={(event) => change(i, { intent: event.target.value as Intent })}
                  className={box}
                >
                  {INTENTS.map((intent) => (
                    <option key={intent} value={intent}>
                      {intent}
                    </option>
                  ))}
                </select>
              </td>
              <td className="w-32 py-1.5 pr-2">
                <select
                  aria-label={`What part ${i + 1} loads`}
                  value={block.asks[0] ?? ''}
                  onChange={(event) =>
                    change(i, { asks: DEMANDS.filter((one) => one === event.target.value) })
                  }
                  className={box}
                >
                  <option value="">nothing more</option>
                  {DEMANDS.map((one) => (
                    <option key={one} value={one}>
                      {DEMAND_NAMES[one]}
                    </option>
                  ))}
                </select>
              </td>
              <td className="py-3">
                <input
                  type="checkbox"
                  aria-label={`Combinations are called in part ${i + 1}`}
                  checked={block.isCalled}
                  onChange={(event) => change(i, { isCalled: event.target.checked })}
                  className="size-5 accent-ink"
                />
              </td>
              <td className="py-3">
                <input
                  type="checkbox"
                  aria-label={`Part ${i + 1} is a gate: not clean, the rest is slow`}
                  checked={block.isGate}
                  onChange={(event) => change(i, { isGate: event.target.checked })}
                  className="size-5 accent-ink"
                />
              </td>
              <td className="text-right">
                <Button
                  weight="quiet"
                  className="text-sm"
                  disabled={blocks.length === 1}
                  onClick={() => setBlocks((old) => old.filter((_, k) => k !== i))}
                >
                  Out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button className="mt-3" onClick={() => setBlocks((old) => [...old, EMPTY])}>
        Another part
      </Button>
    </AskDialog>
  );
}
