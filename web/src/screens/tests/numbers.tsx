'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import {
  fieldTestProblem,
  fieldTestSchema,
  resultsOf,
  type FieldTest,
} from '@sinew/core/train/progress/fieldTest';
import { fieldUnit, inManner, type FieldUnit } from '@/manner/manner';
import { keepTest } from '@/screens/ledger/actions';
import { Button } from '@/ui/button';

/** A number as people type it. */
export const typed = (text: string): number => Number(text.trim().replace(',', '.') || Number.NaN);

type KnownUnit = 'cm' | 'm' | 'kg' | 'm/s' | '°' | 'ms';

/** Angles and times are the same in every gym. */
const unitOf = (of: KnownUnit): FieldUnit =>
  of === '°' || of === 'ms'
    ? { unit: of, shown: (kept) => String(Number(kept.toFixed(1))), kept: (value) => value }
    : fieldUnit(of);

/** A number that was measured, as it is filled in: no finer than it is known. */
export const measuredIn = (unit: FieldUnit, value: number): string =>
  Number(unit.shown(value)).toFixed(1);

/** A number and how sure it is, side by side. */
export function KnownField({
  label,
  unit: of,
  value,
  plusMinus,
  onValue,
  onPlusMinus,
}: {
  label: string;
  unit: KnownUnit;
  value: string;
  plusMinus: string;
  onValue: (text: string) => void;
  onPlusMinus: (text: string) => void;
}) {
  const box = 'h-10 border border-soft bg-field px-3 text-right';
  const { unit } = unitOf(of);
  return (
    <div className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
      <span className="w-56 font-semibold">{label}</span>
      <input
        aria-label={`${label}, ${unit}`}
        inputMode="decimal"
        value={value}
        onChange={(event) => onValue(event.target.value)}
        className={`${box} w-28`}
      />
      <span aria-hidden>±</span>
      <input
        aria-label={`${label}, plus or minus, ${unit}`}
        inputMode="decimal"
        value={plusMinus}
        onChange={(event) => onPlusMinus(event.target.value)}
        className={`${box} w-20`}
      />
      <span className="text-soft">{unit}</span>
    </div>
  );
}

/** State of a number and its ±, in the gym's units; given and known in the unit that is named. */
export function useKnown(value: string, plusMinus: string, of: KnownUnit) {
  const unit = unitOf(of);
  const shown = (text: string) => (text === '' ? '' : unit.shown(typed(text)));
  const [state, setState] = useState({ value: shown(value), plusMinus: shown(plusMinus) });
  return {
    ...state,
    unit: of,
    set: (to: { value: number; plusMinus: number }) =>
      setState({ value: measuredIn(unit, to.value), plusMinus: measuredIn(unit, to.plusMinus) }),
    onValue: (text: string) => setState((old) => ({ ...old, value: text })),
    onPlusMinus: (text: string) => setState((old) => ({ ...old, plusMinus: text })),
    known: { value: unit.kept(typed(state.value)), plusMinus: unit.kept(typed(state.plusMinus)) },
  };
}

/** What follows from the numbers as they are typed, and the button that keeps them. */
export function Outcome({
  studentId,
  today,
  given,
}: {
  studentId: string;
  today: string;
  given: unknown;
}) {
  const [isSaving, setSaving] = useState(false);
  const parsed = fieldTestSchema.safeParse(given);
  const problem = parsed.success ? fieldTestProblem(parsed.data) : null;
  const save = async (test: FieldTest) => {
    setSaving(true);
    const wrong = await keepTest({ studentId, day: today, given: test }).catch(
      () => 'Not kept: the server does not answer. Your numbers are still here; try again.',
    );
    setSaving(false);
    toast(wrong ?? 'The test is kept.');
  };
  return (
    <div className="mt-5" aria-live="polite">
      {parsed.success && problem === null ? (
        resultsOf(parsed.data).map(({ name, text }, i) => (
          <p key={name} className={i === 0 ? 'font-serif text-3xl' : 'text-base'}>
            {inManner(name)}: {inManner(text)}
          </p>
        ))
      ) : (
        <p className="text-soft">{problem ?? 'Fill in the numbers; a ± of 0 means exactly.'}</p>
      )}
      <Button
        weight="main"
        className="mt-4"
        disabled={!parsed.success || problem !== null || isSaving}
        onClick={() => parsed.success && void save(parsed.data)}
      >
        Keep the test
      </Button>
    </div>
  );
}
