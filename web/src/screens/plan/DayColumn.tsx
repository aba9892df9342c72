'use client';

import { shortDay } from '@/manner/manner';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import Link from 'next/link';
import { toast } from 'sonner';
import type { PlanItem } from '@/data/work/plan';
import { LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { plan, tick, unplan, unplanBlock } from './actions';

/** One day, onto which things can be dropped. */
export function DayColumn({
  day,
  isToday,
  items,
  heedOf,
  onAdd,
}: {
  day: string;
  isToday: boolean;
  items: readonly PlanItem[];
  /** Sentences that stand under a thing. */
  heedOf: (item: PlanItem) => readonly string[];
  onAdd: () => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: day });
  return (
    <div
      ref={setNodeRef}
      data-day={day}
      className={`min-h-28 border-r border-b border-rule px-2 pb-2 ${isOver ? 'bg-shade' : isToday ? 'bg-tint' : ''}`}
    >
      <div className="flex items-baseline justify-between py-1.5 text-sm">
        <span className={isToday ? 'font-semibold' : 'text-soft'}>
          {shortDay(day)}
          {isToday && ', today'}
        </span>
        <Button
          weight="quiet"
          className="!min-h-6"
          aria-label={`Plan on ${shortDay(day)}`}
          onClick={onAdd}
        >
          +
        </Button>
      </div>
      <ul className="space-y-1.5">
        {items.map((item) => (
          <Item key={item.id} item={item} heed={heedOf(item)} />
        ))}
      </ul>
    </div>
  );
}

function Item({ item, heed }: { item: PlanItem; heed: readonly string[] }) {
  const drag = useDraggable({ id: item.id });
  const drop = useDroppable({ id: item.id });
  const { x = 0, y = 0 } = drag.transform ?? {};
  const set = (node: HTMLElement | null) => {
    drag.setNodeRef(node);
    drop.setNodeRef(node);
  };
  const remove = async () => {
    try {
      await unplan(item.id);
      const { day, kind, session, title, studentId } = item;
      toast(`${item.title} is off the plan.`, {
        action: {
          label: 'Put it back',
          onClick: () => void plan({ day, kind, session, title, studentId }),
        },
      });
    } catch {
      toast(LOST);
    }
  };
  const name = item.student ? `${item.student}: ${item.title}` : item.title;
  return (
    <li
      ref={set}
      style={drag.isDragging ? { transform: `translate(${x}px, ${y}px)` } : undefined}
      className={`relative border bg-paper px-1.5 py-1 text-sm ${
        item.kind === 'retest' ? 'border-ink' : item.kind === 'note' ? 'border-now' : 'border-rule'
      } ${drag.isDragging ? 'z-20' : ''} ${drop.isOver && !drag.isDragging ? 'border-t-4 border-t-ink' : ''}`}
    >
      <div className="flex items-start gap-1.5">
        <button
          type="button"
          aria-label={`Move ${name}`}
          className="cursor-grab touch-none px-0.5 text-soft"
          {...drag.listeners}
          {...drag.attributes}
        >
          ⣿
        </button>
        <span
          className={`min-w-0 flex-1 ${item.isDone ? 'text-soft line-through' : 'font-semibold'}`}
        >
          {item.session ? (
            <Link href={`/timer?session=${item.session}`} className="hover:underline">
              {name}
            </Link>
          ) : (
            name
          )}
          {item.isFilmed && <span className="font-normal text-soft"> filmed</span>}
        </span>
      </div>
      {heed.map((one) => (
        <p key={one} className="mt-0.5 text-now">
          {one}
        </p>
      ))}
      <div className="mt-0.5 flex gap-3">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={item.isDone}
            aria-label={`${name} is done`}
            onChange={(event) => void tick(item.id, event.target.checked).catch(() => toast(LOST))}
            className="size-4 accent-ink"
          />
          done
        </label>
        <Button
          weight="quiet"
          className="!min-h-6"
          aria-label={`Take ${name} off the plan`}
          onClick={() => void remove()}
        >
          off
        </Button>
        {item.block && item.kind === 'note' && (
          <Button
            weight="quiet"
            className="!min-h-6"
            onClick={() => void unplanBlock(item.block!).catch(() => toast(LOST))}
          >
            whole block off
          </Button>
        )}
      </div>
    </li>
  );
}
