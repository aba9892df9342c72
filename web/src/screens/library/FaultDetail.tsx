'use client';

import { useState } from 'react';
import {
  isOfReading,
  limitId,
  type Catalogue,
  type Fault,
  type ReadingLimit,
} from '@sinew/core/judge/fault/schema';
import type { Agreement } from '@sinew/core/judge/library/agreement';
import { checkById } from '@sinew/core/judge/eye/eyeChecks';
import { limitOf, type Edits } from '@sinew/core/judge/library/edits';
import { SIZED_BY } from '@sinew/core/measure/measures/allMeasures';
import { ORDINARY_HEIGHT } from '@sinew/core/measure/measures/ownSize';
import { unitOf } from '@sinew/core/measure/measures/units';
import { whenInWords } from '@sinew/core/judge/school/resolve';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { inManner, quantity, toScreen } from '@/manner/manner';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { AgreementHere } from './AgreementHere';
import type { Change } from './change';
import { readingName } from './readingName';

const IS = { below: 'below', above: 'above', outside: 'beyond, either way' } as const;

/** One fault: its limits, its words, its drill, and the way back to how it comes. */
export function FaultDetail({
  fault,
  usual,
  catalogue,
  edits,
  agreement,
  make,
}: {
  fault: Fault;
  /** As it comes; null for one of the gym's own. */
  usual: Fault | null;
  catalogue: Catalogue;
  edits: Edits;
  /** Null where nobody has decided on it yet. */
  agreement: Agreement | null;
  make: Change;
}) {
  const [cue, setCue] = useState(fault.cue);
  const isOff = edits.faults[fault.id]?.isOff === true;
  const isChanged = edits.faults[fault.id] !== undefined;
  return (
    <section aria-label={fault.name}>
      <h2 className="font-serif text-3xl leading-tight">{fault.headline}</h2>
      <p className="mt-1 text-soft">{fault.why}</p>
      <p className="mt-1 text-sm text-soft">
        {fault.techniques.map((id) => techniqueById(id).name).join(', ')}
      </p>
      {fault.caution && <p className="mt-2 border-l-4 border-now pl-3">{fault.caution}</p>}
      <h3 className="mt-5 border-b-2 border-ink pb-1 font-semibold">It is there when</h3>
      {fault.cases.map((one, place) => (
        <div key={one.id} className="border-b border-rule py-2.5">
          {place > 0 && (
            <p className="text-sm text-soft">
              {one.standsInFor === undefined ? 'or' : 'or, where that cannot be told,'}
            </p>
          )}
          {one.techniques && (
            <p className="text-sm text-soft">
              In {one.techniques.map((id) => techniqueById(id).name.toLowerCase()).join(', ')}
            </p>
          )}
          {one.when && <p className="text-sm text-soft">Only where {whenInWords(one.when)}</p>}
          {one.limits.map((limit) =>
            isOfReading(limit) ? (
              <LimitRow
                key={`${limitId(one, limit)} ${limit.value}`}
                limit={limit}
                usual={usual ? limitOf(usual, limitId(one, limit)) : undefined}
                isFixed={usual === null}
                onKeep={(value) =>
                  make({ kind: 'limit', fault: fault.id, limit: limitId(one, limit), value })
                }
              />
            ) : (
              <p key={limitId(one, limit)}>
                Your eye says that it drags: <em>{checkById(limit.eye)?.name}</em>
              </p>
            ),
          )}
          {one.cue && <p className="text-sm">To the student: {one.cue}</p>}
        </div>
      ))}
      {agreement && (
        <AgreementHere
          agreement={agreement}
          isFixed={usual === null}
          onMove={(limit, value) => void make({ kind: 'limit', fault: fault.id, limit, value })}
        />
      )}
      <form
        className="mt-5 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void make({ kind: 'cue', fault: fault.id, text: cue });
        }}
      >
        <div className="flex-1">
          <TextField
            label="Cue, to the student"
            value={cue}
            maxLength={200}
            disabled={usual === null}
            onChange={(event) => setCue(event.target.value)}
          />
        </div>
        <Button type="submit" className="h-10" disabled={cue === fault.cue || usual === null}>
          Keep
        </Button>
      </form>
      <div className="mt-4 w-96">
        <SelectField
          label="Drill"
          value={fault.drill}
          disabled={usual === null}
          onChange={(event) =>
            void make({ kind: 'drill-of', fault: fault.id, drill: event.target.value })
          }
        >
          {catalogue.drills.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      </div>
      <div className="mt-6 flex flex-wrap gap-4">
        {usual ? (
          <>
            <Button onClick={() => void make({ kind: 'off', fault: fault.id, isOff: !isOff })}>
              {isOff ? 'Judge it again' : 'Do not judge it in this gym'}
            </Button>
            <Button
              disabled={!isChanged}
              onClick={async () => {
                if (await make({ kind: 'reset', fault: fault.id })) setCue(usual.cue);
              }}
            >
              Reset to default
            </Button>
          </>
        ) : (
          <Button onClick={() => void make({ kind: 'remove-own', fault: fault.id })}>
            Remove this leak
          </Button>
        )}
      </div>
    </section>
  );
}

function LimitRow({
  limit,
  usual,
  isFixed,
  onKeep,
}: {
  limit: ReadingLimit;
  usual: ReadingLimit | undefined;
  isFixed: boolean;
  onKeep: (value: number | null) => Promise<boolean>;
}) {
  const unit = unitOf(limit.reading);
  const { factor, suffix } = toScreen(unit);
  const written = String(Math.round(limit.value * factor * 1000) / 1000);
  const [text, setText] = useState(written);
  const typed = Number(text.replace(',', '.').replace('−', '-'));
  const isGood = text.trim() !== '' && Number.isFinite(typed);
  const isUsual = usual === undefined || usual.value === limit.value;
  return (
    <form
      className="flex flex-wrap items-center gap-x-3 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (isGood) void onKeep(typed / factor);
      }}
    >
      <span>
        {limit.onlyClears ? 'unless it clears it: ' : ''}
        <strong>{readingName(limit.reading)}</strong> {IS[limit.is]}
      </span>
      <input
        aria-label={`Limit: ${readingName(limit.reading)}`}
        value={text}
        inputMode="decimal"
        disabled={isFixed}
        aria-invalid={!isGood || undefined}
        onChange={(event) => setText(event.target.value)}
        className="h-9 w-20 border border-soft bg-field px-2 text-right aria-invalid:border-2 aria-invalid:border-now"
      />
      <span>{suffix.trim()}</span>
      {SIZED_BY[limit.reading] && (
        <span className="text-sm text-soft">
          on somebody of {inManner(`${100 * ORDINARY_HEIGHT} cm`)}; goes with the student’s{' '}
          {SIZED_BY[limit.reading]}
        </span>
      )}
      {text !== written && (
        <Button type="submit" className="!min-h-8 text-sm" disabled={!isGood}>
          Keep
        </Button>
      )}
      {!isUsual && (
        <Button
          weight="quiet"
          className="!min-h-6 text-sm"
          onClick={async () => {
            if (await onKeep(null)) setText(String(Math.round(usual.value * factor * 1000) / 1000));
          }}
        >
          Back to {quantity(usual.value, unit)}
        </Button>
      )}
    </form>
  );
}
