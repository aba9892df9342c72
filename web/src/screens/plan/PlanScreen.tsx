'use client';

import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  rectIntersection,
  useSensor,
  useSensors,
  type Announcements,
  type CollisionDetection,
  type DragEndEvent,
} from '@dnd-kit/core';
import Link from 'next/link';
import { useOptimistic, useState, useTransition } from 'react';
import { toast } from 'sonner';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { powerTooSoon } from '@sinew/core/train/work/plan';
import { shortDay } from '@/manner/manner';
import type { PlanItem } from '@/data/work/plan';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { KeyLink } from '@/ui/keyLink';
import { MainBar } from '@/ui/mainBar';
import { move } from './actions';
import { AddItem } from './AddItem';
import { BlockDialog } from './BlockDialog';
import { DayColumn } from './DayColumn';
import { useCommands } from '@/ui/commands/registry';

interface Walk {
  readonly id: string;
  readonly name: string;
  readonly next: { readonly text: string; readonly note: string; readonly href: string };
}

/** A session that can be planned, and who leaves out its power. */
export interface PlannedSession {
  readonly id: string;
  readonly name: string;
  readonly hasPower: boolean;
  readonly leavingOut: readonly string[];
}

/** Where the pointer is, not where most of the dragged box is; the keyboard has no pointer. */
const underPointer: CollisionDetection = (drag) =>
  drag.pointerCoordinates ? pointerWithin(drag) : rectIntersection(drag);

/** What a screen reader says while something is dragged: names and days, not ids. */
function announcementsOf(items: readonly PlanItem[]): Announcements {
  const nameOf = (id: string | number) => items.find((one) => one.id === id)?.title;
  const placeOf = (id: string | number) => {
    const item = items.find((one) => one.id === id);
    return item ? `${shortDay(item.day)}, before ${item.title}` : shortDay(String(id));
  };
  return {
    onDragStart: ({ active }) => `${nameOf(active.id)} is lifted.`,
    onDragOver: ({ active, over }) =>
      over ? `${nameOf(active.id)}: over ${placeOf(over.id)}.` : 'Over no day.',
    onDragEnd: ({ active, over }) =>
      over ? `${nameOf(active.id)}: put on ${placeOf(over.id)}.` : 'Put back.',
    onDragCancel: () => 'Put back.',
  };
}

/** Three weeks of the plan, day by day, and today's walk across the floor. */
export function PlanScreen({
  monday,
  today,
  items,
  students,
  sessions,
  walk,
}: {
  /** The first day shown. */
  monday: string;
  today: string;
  items: readonly PlanItem[];
  students: readonly { readonly id: string; readonly name: string }[];
  sessions: readonly PlannedSession[];
  /** Who waits today, in the order in which the coach walks. */
  walk: readonly Walk[];
}) {
  const [adding, setAdding] = useState<string | null>(null);
  const [isBlock, setBlock] = useState(false);
  const [, startMoving] = useTransition();
  const [shown, moveShown] = useOptimistic(
    items,
    (now, { id, day, before }: { id: string; day: string; before: string | null }) => {
      const moved = now.find((one) => one.id === id);
      if (!moved) return now;
      const rest = now.filter((one) => one.id !== id);
      const at = before === null ? rest.length : rest.findIndex((one) => one.id === before);
      return [...rest.slice(0, at), { ...moved, day }, ...rest.slice(at)];
    },
  );
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const id = String(active.id);
    const item = items.find((one) => one.id === id);
    if (!over || !item || over.id === active.id) return;
    const target = items.find((one) => one.id === over.id);
    const [day, before] = target ? [target.day, target.id] : [String(over.id), null];
    startMoving(async () => {
      moveShown({ id, day, before });
      try {
        await move(id, day, before);
        if (day !== item.day) {
          toast(`${item.title}: ${shortDay(day)}.`, {
            action: { label: 'Take it back', onClick: () => void move(id, item.day, null) },
          });
        }
      } catch {
        toast(LOST);
      }
    });
  };
  useCommands(() => [
    {
      id: 'add',
      keys: ['a'],
      words: 'add to today',
      group: 'Plan',
      run: () => setAdding(today),
    },
    {
      id: 'block',
      keys: ['n'],
      words: 'plan a block of weeks',
      group: 'Plan',
      run: () => setBlock(true),
    },
  ]);
  const isPower = (item: PlanItem) =>
    sessions.some(({ id, hasPower }) => id === item.session && hasPower);
  const tooSoon = powerTooSoon(shown.filter(isPower).map(({ day }) => day));
  /** What is to be heeded about a power day. */
  const heedOf = (item: PlanItem): readonly string[] => {
    if (!isPower(item)) return [];
    const names = sessions.find(({ id }) => id === item.session)!.leavingOut;
    return [
      ...(tooSoon.has(item.day)
        ? ['Power again too soon: once a week, never two days running.']
        : []),
      ...(names.length > 0 ? [`No power: ${names.join(', ')}.`] : []),
    ];
  };
  const weeks = [0, 1, 2].map((week) =>
    Array.from({ length: 7 }, (_, day) => plusDays(monday, 7 * week + day)),
  );
  return (
    <>
      <MainBar here="Plan" />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-7 pb-16">
        <div className="flex flex-wrap items-end justify-between gap-4">
          <h1 className="font-serif text-[2.6rem] leading-none">{headline(shown, today)}</h1>
          <div className="flex flex-wrap gap-3">
            <Button weight="main" hint="A" onClick={() => setAdding(today)}>
              Plan something
            </Button>
            <Button hint="N" onClick={() => setBlock(true)}>
              A block of weeks
            </Button>
            <a
              href="/api/plan"
              className="inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
            >
              Calendar file
            </a>
          </div>
        </div>
        {walk.length > 0 && (
          <section aria-label="Today’s walk" className="mt-6">
            <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
              Today, in the order you walk
            </h2>
            <ol className="columns-1 gap-x-12 md:columns-2">
              {walk.map((one, i) => (
                <li
                  key={one.id}
                  className="flex break-inside-avoid items-baseline gap-3 border-b border-rule py-2"
                >
                  <span className="w-5 text-right text-soft">{i + 1}</span>
                  <Link href={`/students/${one.id}`} className="font-semibold hover:underline">
                    {one.name}
                  </Link>
                  <Link href={one.next.href} className="ml-auto text-right hover:underline">
                    {one.next.text}
                    <span className="text-sm text-soft"> {one.next.note}</span>
                  </Link>
                </li>
              ))}
            </ol>
          </section>
        )}
        <div className="mt-7 flex items-center gap-4">
          <KeyLink href={`/plan?from=${plusDays(monday, -7)}`} hotkey="J" words="a week back">
            Earlier
          </KeyLink>
          <KeyLink href="/plan" hotkey="T" words="this week">
            Today
          </KeyLink>
          <KeyLink href={`/plan?from=${plusDays(monday, 7)}`} hotkey="K" words="a week on">
            Later
          </KeyLink>
          <span className="text-sm text-soft">
            Drag to another day, or Space on its handle, arrow keys, Space.
          </span>
        </div>
        <DndContext
          id="plan"
          sensors={sensors}
          collisionDetection={underPointer}
          accessibility={{ announcements: announcementsOf(shown) }}
          onDragEnd={drop}
        >
          {weeks.map((days) => (
            <section
              key={days[0]}
              aria-label={`Week of ${shortDay(days[0]!)}`}
              className="mt-4 grid grid-cols-2 border-t-2 border-ink sm:grid-cols-4 lg:grid-cols-7"
            >
              {days.map((day) => (
                <DayColumn
                  key={day}
                  day={day}
                  isToday={day === today}
                  items={shown.filter((item) => item.day === day)}
                  heedOf={heedOf}
                  onAdd={() => setAdding(day)}
                />
              ))}
            </section>
          ))}
        </DndContext>
      </main>
      {adding !== null && (
        <AddItem
          day={adding}
          students={students}
          sessions={sessions}
          onDone={() => setAdding(null)}
        />
      )}
      {isBlock && <BlockDialog today={today} onDone={() => setBlock(false)} />}
    </>
  );
}

function headline(items: readonly PlanItem[], today: string): string {
  const own = items.filter(({ day, isDone }) => day === today && !isDone);
  if (own.length === 0) return 'Nothing planned for today.';
  return `Today: ${own[0]!.title}${own.length > 1 ? `, and ${own.length - 1} more` : ''}.`;
}
