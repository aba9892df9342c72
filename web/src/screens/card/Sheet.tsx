import Link from 'next/link';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { faultById } from '@sinew/core/judge/fault/faults';
import { shortDay } from '@/manner/manner';
import type { Cue } from '@/data/finding/findings';
import type { Gym } from '@/data/gym/gym';
import type { SheetWork } from '@/data/work/work';
import { MainBar } from '@/ui/mainBar';
import { PrintButton } from '@/ui/printButton';

export interface SheetRow {
  readonly id: string;
  readonly name: string;
  readonly cues: readonly Cue[];
  readonly work: readonly SheetWork[];
  /** What the student leaves out, as sentences. */
  readonly heed: readonly string[];
}

const BOXES = 5;

/** The whole class on paper: each one's cue, work and boxes to tick. */
export function Sheet({
  gym,
  rows,
  classes,
  chosen,
  today,
}: {
  gym: Gym;
  rows: readonly SheetRow[];
  classes: readonly string[];
  /** The class that is shown; empty for everybody. */
  chosen: string;
  today: string;
}) {
  return (
    <>
      <MainBar here="Floor" right={<PrintButton />} />
      <main className="mx-auto max-w-[1100px] px-8 py-7 print:max-w-none print:p-0">
        <div className="flex items-baseline justify-between border-b-2 border-ink pb-2">
          <h1 className="font-serif text-3xl">
            {chosen || (classes.length > 1 ? 'Everybody' : gym.className || gym.name)}: the work of
            the day
          </h1>
          <span className="text-soft">{shortDay(today)}</span>
        </div>
        {classes.length > 0 && (
          <nav aria-label="Class" className="mt-2 flex gap-5 print:hidden">
            {['', ...classes].map((name) => (
              <Link
                key={name}
                href={name ? `/card?class=${encodeURIComponent(name)}` : '/card'}
                aria-current={name === chosen ? 'page' : undefined}
                className="font-semibold text-soft aria-[current]:text-ink aria-[current]:underline aria-[current]:underline-offset-4"
              >
                {name || 'Everybody'}
              </Link>
            ))}
          </nav>
        )}
        <table className="mt-3 w-full border-collapse">
          <thead>
            <tr className="border-b border-ink text-left text-sm text-soft">
              <th className="py-1.5 font-semibold">Student</th>
              <th className="py-1.5 font-semibold">Cue</th>
              <th className="py-1.5 font-semibold">Work</th>
              <th className="py-1.5 text-right font-semibold">Sets</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ id, name, cues, work, heed }) => (
              <tr key={id} className="break-inside-avoid border-b border-rule align-top">
                <td className="w-48 py-2.5 pr-4">
                  <span className="font-semibold wrap-anywhere">{name}</span>
                  {heed.map((one) => (
                    <span key={one} className="block text-sm">
                      {one}
                    </span>
                  ))}
                </td>
                <td className="py-2.5 pr-6">
                  {cues.map((cue) => (
                    <div key={cue.id} className="font-serif text-lg leading-snug">
                      {cue.text}{' '}
                      <span className="font-sans text-sm text-soft">
                        {techniqueById(cue.technique).name}
                      </span>
                      {faultById(cue.fault)?.injury && (
                        <strong className="font-sans text-sm"> No power.</strong>
                      )}
                    </div>
                  ))}
                </td>
                <td className="py-2.5 pr-6">
                  {work.map((one) => (
                    <div key={one.id}>
                      {one.name}: {one.dose && `${one.dose}, `}
                      {INTENT_NAMES[one.intent]}.{' '}
                      <span className="text-soft">Film again: {shortDay(one.nextCheck)}.</span>
                    </div>
                  ))}
                </td>
                <td className="w-40 py-2.5">
                  {work.length > 0 && (
                    <div aria-hidden className="flex justify-end gap-1.5">
                      {Array.from({ length: BOXES }, (_, i) => (
                        <span key={i} className="size-5 border border-ink" />
                      ))}
                    </div>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-4 text-sm text-soft">
          Wrap hands, gloves on the bag, warm up, start light, power last. Pain, numbness or
          dizziness: stop, and see a clinician.
        </p>
      </main>
    </>
  );
}
