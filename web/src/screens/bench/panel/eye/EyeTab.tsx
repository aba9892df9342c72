'use client';

import { useState } from 'react';
import {
  checksFor,
  GROUPS,
  isDeciding,
  prefilled,
  SAYS,
  type Check,
  type Says,
} from '@sinew/core/judge/eye/eyeChecks';
import { choiceName } from '@sinew/core/judge/school/schools';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { Key } from '@/ui/button';
import { documentOf, useBenchStore } from '../../document/benchStore';
import { setAudit } from '../../document/edits';
import { useAnalysis, useLibrary } from '../../document/useAnalysis';
import { useCommands } from '@/ui/commands/registry';

const KEY: Record<Says, string> = { drives: 'Q', neutral: 'E', drags: 'A' };
const BAR: Record<Says, string> = {
  drives: 'h-3.5 w-2 bg-ink',
  neutral: 'h-3.5 w-2 border border-ink',
  drags: 'h-1.5 w-2 translate-y-1 bg-now',
};

/** Under which head a check stands. */
const headOf = ({ injury, group }: Check) => (injury ? 'What can hurt' : GROUPS[group]);

/** Part by part: it drives, is neutral, or drags. One key a part; what was measured is filled in. */
export function EyeTab({ strike }: { strike: StrikeDocument }) {
  const store = useBenchStore();
  const analysis = useAnalysis();
  const technique = techniqueById(strike.technique);
  const checks = checksFor(technique, analysis?.rules.school.readingOrder?.choice);
  const { catalogue } = useLibrary();
  const decidedBy = (check: Check) =>
    isDeciding(check, technique)
      ? catalogue.faults.find(
          ({ id, techniques }) => id === check.decides && techniques.includes(technique.id),
        )?.name
      : undefined;
  const measured = prefilled(technique, analysis?.links ?? {});
  const own = strike.audit ?? {};
  const [at, setAt] = useState(0);
  const here = checks[Math.min(at, checks.length - 1)]!;

  const say = (check: Check, says: Says) => {
    const { edit } = store.getState();
    const now = documentOf(store.getState());
    edit(setAudit(now, strike.id, check.id, own[check.id] === says ? null : says));
    setAt(Math.min(checks.length - 1, checks.indexOf(check) + 1));
  };
  useCommands(() =>
    [
      ...SAYS.map((says) => ({
        id: `eye ${says}`,
        keys: [KEY[says].toLowerCase()],
        words: `the part ${says === 'neutral' ? 'is neutral' : says}`,
        run: () => here && say(here, says),
      })),
      {
        id: 'eye back',
        keys: [','],
        words: 'the part before',
        run: () => setAt(Math.max(0, at - 1)),
      },
      {
        id: 'eye on',
        keys: ['.'],
        words: 'the next part',
        run: () => setAt(Math.min(checks.length - 1, at + 1)),
      },
    ].map((one) => ({ ...one, group: 'Eye' })),
  );

  const judgedAs = (check: Check) =>
    check.id === 'knuckles'
      ? `: ${choiceName('knuckles', analysis?.rules.school.knuckles?.choice ?? '')}`
      : check.id === 'fingers'
        ? `: ${choiceName('fistTension', analysis?.rules.school.fistTension?.choice ?? '')}`
        : '';
  return (
    <>
      <h2 className="font-serif text-2xl leading-tight">What your eye says.</h2>
      <p className="mt-1 text-sm text-soft">
        <Key>Q</Key> drives, <Key>E</Key> neutral, <Key>A</Key> drags, and on to the next;{' '}
        <Key>,</Key> <Key>.</Key> back and on. Grey is measured. Kept with the strike.
      </p>
      <ul className="mt-3">
        {checks.map((check, i) => {
          const head = headOf(check);
          const decides = decidedBy(check);
          const said = own[check.id];
          const shown = said ?? measured[check.id];
          return (
            <li
              key={check.id}
              aria-current={check === here || undefined}
              className="group relative border-t border-rule py-1.5 pl-3 aria-[current]:bg-tint"
            >
              <span className="absolute inset-y-0 left-0 w-1 group-aria-[current]:bg-now" />
              {(i === 0 || headOf(checks[i - 1]!) !== head) && (
                <h3 className="mb-1 text-sm font-semibold text-soft">{head}</h3>
              )}
              <div className="flex items-center gap-3">
                <button
                  type="button"
                  onClick={() => setAt(checks.indexOf(check))}
                  className="min-w-0 flex-1 text-left"
                >
                  <span className="font-semibold">
                    {check.name}
                    {judgedAs(check)}
                  </span>
                  {check.injury && <span className="ml-2 text-sm text-now">can hurt</span>}
                  <span
                    className="block truncate text-sm text-soft"
                    title={`${check.well} – ${check.badly}`}
                  >
                    {shown === 'drags' ? check.badly : check.well}
                    {decides && `; decides: ${decides}`}
                  </span>
                </button>
                <span
                  role="group"
                  aria-label={check.name}
                  className="flex divide-x divide-rule border border-rule"
                >
                  {SAYS.map((says) => (
                    <button
                      key={says}
                      type="button"
                      aria-pressed={said === says}
                      aria-label={`${check.name} ${says}`}
                      onClick={() => say(check, says)}
                      className="flex h-8 w-[4.6rem] items-center justify-center gap-1.5 text-sm aria-pressed:bg-shade aria-pressed:font-semibold"
                    >
                      <span
                        className={`${BAR[says]} ${shown === says ? (said ? '' : 'opacity-40') : 'invisible'}`}
                      />
                      {says}
                    </button>
                  ))}
                </span>
              </div>
            </li>
          );
        })}
      </ul>
    </>
  );
}
