'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { FIELD_TESTS, type FieldTestKind } from '@sinew/core/train/progress/fieldTest';
import { pastDay } from '@/data/database/today';
import type { ClipSummary } from '@/data/clip/clips';
import type { KeptTest, SetSpeed } from '@/data/progress/ledger';
import { inManner } from '@/manner/manner';
import { setPutAway } from '@/screens/student/actions';
import { Button } from '@/ui/button';
import { StudentBar } from '@/ui/studentBar';
import { AimForm } from './AimForm';
import { BagForm } from './BagForm';
import { LadderForm } from './LadderForm';
import { ClosingForm, RangeForm, ReachForm } from './PairForms';
import { ThrowForm } from './ThrowForm';

const ABOUT: Readonly<Record<FieldTestKind, string>> = {
  throw: 'A ball thrown sitting on the floor and standing, at the same angle: what the legs add.',
  bag: 'How far a blow swings the bag tells its impulse; with the time of contact, the mean force.',
  ladder: 'The same target from several distances, each form at each: which one serves where.',
  aim: 'Where the strikes of a set land on a pad: how far off the aim, how wide, how many inside.',
  pair: 'How far the rear hand reaches beside the lead hand, from the same feet.',
  range: 'How much of the turn that is there the strike at full speed leaves unused.',
  closing: 'A pad that comes in or goes away: at which speed fist and pad meet.',
};

/** Tests with a tape, a scale, a bag and a pad, and what came of them. */
export function TestsScreen({
  student,
  tests,
  clips,
  speeds,
  today,
}: {
  student: { readonly id: string; readonly name: string };
  tests: readonly KeptTest[];
  clips: readonly ClipSummary[];
  speeds: readonly SetSpeed[];
  today: string;
}) {
  const [kind, setKind] = useState<FieldTestKind>('throw');
  const form = { studentId: student.id, today };
  const remove = async (test: KeptTest) => {
    try {
      await setPutAway('test', test.id, true);
      toast('The test is put away.', {
        action: { label: 'Bring it back', onClick: () => void setPutAway('test', test.id, false) },
      });
    } catch {
      toast('Not deleted: the server does not answer. Try again.');
    }
  };
  return (
    <>
      <StudentBar student={student} here="Tests" />
      <main className="mx-auto grid max-w-[1280px] gap-x-12 gap-y-8 px-4 sm:px-8 pt-7 pb-16 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div>
          <h1 className="font-serif text-[2.6rem] leading-none">Tape, scale, bag and pad.</h1>
          <div role="group" aria-label="Test" className="mt-5 flex flex-wrap gap-6">
            {(Object.keys(FIELD_TESTS) as FieldTestKind[]).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={one === kind}
                onClick={() => setKind(one)}
                className="border-b-4 border-transparent pb-1 font-semibold text-soft aria-pressed:border-ink aria-pressed:text-ink"
              >
                {FIELD_TESTS[one]}
              </button>
            ))}
          </div>
          <p className="mt-3 max-w-2xl text-base">{ABOUT[kind]}</p>
          <div className="mt-5">
            {kind === 'throw' && <ThrowForm {...form} />}
            {kind === 'bag' && <BagForm {...form} clips={clips} />}
            {kind === 'ladder' && <LadderForm {...form} speeds={speeds} />}
            {kind === 'aim' && <AimForm {...form} />}
            {kind === 'pair' && <ReachForm {...form} />}
            {kind === 'range' && <RangeForm {...form} />}
            {kind === 'closing' && <ClosingForm {...form} speeds={speeds} />}
          </div>
        </div>
        <section aria-label="Tests so far">
          <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">So far</h2>
          {tests.length === 0 && <p className="py-2 text-soft">No test yet.</p>}
          <ul>
            {tests.map((test) => (
              <li key={test.id} className="border-b border-rule py-2">
                <div className="flex items-baseline justify-between gap-3">
                  <span className="font-semibold">{FIELD_TESTS[test.given.kind]}</span>
                  <span className="text-sm text-soft">{pastDay(test.day)}</span>
                </div>
                {test.results.map(({ name, text }) => (
                  <p key={name} className="flex justify-between gap-4">
                    <span className="text-soft">{inManner(name)}</span>
                    <span className="text-right">{inManner(text)}</span>
                  </p>
                ))}
                <Button
                  weight="quiet"
                  className="!min-h-6 text-sm"
                  onClick={() => void remove(test)}
                >
                  Delete
                </Button>
              </li>
            ))}
          </ul>
          <p className="mt-3 text-sm text-soft">
            Force and impulse are estimates. They are never a licence to fight, and not for
            comparing people of different size.
          </p>
        </section>
      </main>
    </>
  );
}
