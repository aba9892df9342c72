'use client';

import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { isDay, plusDays, WEEKDAYS } from '@sinew/core/foundation/calendar/day';
import { blockOf } from '@sinew/core/train/work/plan';
import { AskDialog } from '@/ui/askDialog';
import { TextField } from '@/ui/field';
import { planWeeks } from './actions';

const WEEKS = 6;

/** A block of weeks toward a date, with what will be on it before it is planned. */
export function BlockDialog({ today, onDone }: { today: string; onDone: () => void }) {
  const [name, setName] = useState('');
  const [from, setFrom] = useState(today);
  const [target, setTarget] = useState(plusDays(today, 7 * WEEKS));
  const [weekdays, setWeekdays] = useState<readonly number[]>([1, 3]);
  const preview = useMemo(() => {
    if (!isDay(from) || !isDay(target)) return 'Write both days.';
    try {
      const planned = blockOf({ from, target, weekdays });
      const count = (of: (one: (typeof planned)[number]) => boolean) => planned.filter(of).length;
      return `${count(({ session }) => session === 'slow-day')} slow days, ${count(({ session }) => session === 'speed-day')} speed days, ${count(({ session }) => session === 'power-day')} power days, filmed ${count(({ kind }) => kind === 'retest')} times.`;
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  }, [from, target, weekdays]);
  const save = async () => {
    const outcome = await planWeeks({ name, from, target, weekdays: [...weekdays] });
    if (typeof outcome === 'string') return outcome;
    toast(`${outcome} things planned.`);
    return null;
  };
  return (
    <AskDialog
      title="A block of weeks toward a date."
      action="Plan the block"
      onSave={save}
      onDone={onDone}
    >
      <TextField
        label="What for"
        value={name}
        maxLength={60}
        autoFocus
        onChange={(event) => setName(event.target.value)}
      />
      <div className="grid grid-cols-2 gap-4">
        <TextField
          label="From"
          type="date"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        <TextField
          label="The day it is for"
          type="date"
          value={target}
          onChange={(event) => setTarget(event.target.value)}
        />
      </div>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">The class meets on</legend>
        <div className="flex flex-wrap gap-4">
          {WEEKDAYS.map((day, i) => (
            <label key={day} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={weekdays.includes(i)}
                onChange={(event) =>
                  setWeekdays((now) =>
                    event.target.checked ? [...now, i] : now.filter((one) => one !== i),
                  )
                }
                className="size-5 accent-ink"
              />
              {day}
            </label>
          ))}
        </div>
      </fieldset>
      <p>{preview}</p>
      <p className="text-sm text-soft">
        Slow first; from the second week on every week ends with power, none in the last three days;
        everybody is filmed at the end of each week. Sinew’s own, yours to change by dragging.
      </p>
    </AskDialog>
  );
}
