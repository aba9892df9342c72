'use client';

import { group } from 'd3-array';
import { nanoid } from 'nanoid';
import { useMemo, useState } from 'react';
import { COMBINATIONS, punchesOf } from '@sinew/core/train/work/calls';
import { leavesOut, type Condition } from '@sinew/core/train/work/condition';
import { cautionsOf, handWeight, segmentsOf, type Session } from '@sinew/core/train/work/session';
import { begin } from '@sinew/core/train/work/timer';
import { inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { MainBar } from '@/ui/mainBar';
import { SessionEditor } from './SessionEditor';
import { keepRun } from '@/timer/keptRun';
import { bell } from './sounds';
import { useCommands } from '@/ui/commands/registry';

export interface TimerStudent {
  readonly id: string;
  readonly name: string;
  readonly classGroup: string;
  readonly massKg: number | null;
  readonly condition: Condition;
}

const NOBODY = '';
const CLASS = 'class:';
const PACE = 6;

/** "2 min 30 s". */
function inWords(seconds: number): string {
  const [minutes, rest] = [Math.floor(seconds / 60), seconds % 60];
  return [minutes > 0 && `${minutes} min`, rest > 0 && `${rest} s`].filter(Boolean).join(' ');
}

/** Which session, for whom, and what is called in it. */
export function SetUp({
  students,
  sessions,
  asked,
}: {
  students: readonly TimerStudent[];
  sessions: readonly Session[];
  asked: { readonly session: string | null; readonly student: string | null };
}) {
  const [id, setId] = useState(
    sessions.some((one) => one.id === asked.session) ? asked.session! : sessions[0]!.id,
  );
  const session = sessions.find((one) => one.id === id) ?? sessions[0]!;
  const [editing, setEditing] = useState<Session | null>(null);
  const [rounds, setRounds] = useState('3');
  const [work, setWork] = useState('180');
  const [rest, setRest] = useState('60');
  const [who, setWho] = useState(asked.student ?? NOBODY);
  const [pace, setPace] = useState(String(PACE));
  const [calls, setCalls] = useState(COMBINATIONS.join(', '));
  const [isSpoken, setSpoken] = useState(true);
  const isPlain = session.id === 'rounds';
  const isCalled = session.blocks.some((block) => block.isCalled);
  const groups = [...new Set(students.map(({ classGroup }) => classGroup).filter(Boolean))].sort();
  const chosen = students.filter((one) =>
    who.startsWith(CLASS) ? one.classGroup === who.slice(CLASS.length) : one.id === who,
  );
  const parsed = useMemo(() => combinationsOf(calls), [calls]);
  const made = isPlain ? plain(session, rounds, work, rest) : session;
  const problem =
    typeof made === 'string' ? made : isCalled && 'wrong' in parsed ? parsed.wrong : null;
  const minutes = typeof made === 'string' ? 0 : lengthOf(made);

  const start = () => {
    if (typeof made === 'string' || 'wrong' in parsed) return;
    bell();
    keepRun({
      id: nanoid(12),
      session: made,
      run: begin(Date.now()),
      begun: Date.now(),
      combinations: [...parsed.combinations],
      pace: Math.min(60, Math.max(2, Number(pace) || PACE)),
      seed: Date.now() % 1_000_000,
      isSpoken,
      students: chosen.map(({ id: studentId, name, condition }) => ({
        id: studentId,
        name,
        leaves: leftBy(made, condition),
      })),
    });
  };
  useCommands(() => [
    { id: 'start', keys: ['Enter'], words: 'start the rounds', group: 'Timer', run: start },
  ]);

  return (
    <>
      <MainBar here="Timer" />
      <main className="mx-auto grid max-w-[1280px] gap-x-12 gap-y-6 px-4 sm:px-8 pt-7 pb-16 md:grid-cols-[22rem_minmax(0,1fr)]">
        <h1 className="font-serif text-[2.6rem] leading-none md:col-span-2">What is worked now?</h1>
        <div role="radiogroup" aria-label="Session" className="border-t-2 border-ink">
          {sessions.map((one) => (
            <button
              key={one.id}
              type="button"
              role="radio"
              aria-checked={one.id === id}
              onClick={() => setId(one.id)}
              className="relative block w-full border-b border-rule py-3 pl-4 text-left aria-checked:bg-tint"
            >
              {one.id === id && <span className="absolute inset-y-0 left-0 w-1 bg-now" />}
              <span className="block text-base font-semibold">{one.name}</span>
              <span className="block text-sm text-soft">{one.about}</span>
            </button>
          ))}
        </div>
        <div>
          <ol className="border-t-2 border-ink">
            {session.blocks.map((block) => (
              <li
                key={block.title}
                className="flex items-baseline justify-between gap-6 border-b border-rule py-2"
              >
                <span>
                  <span className="font-semibold">{block.title}</span>{' '}
                  <span className="text-soft">{isPlain ? '' : partsInShort(block.parts)}</span>
                </span>
                <span className="whitespace-nowrap text-soft">
                  {isPlain
                    ? ''
                    : block.work === null
                      ? `${block.parts.length} × counted`
                      : `${block.parts.length} × ${inWords(block.work)}`}
                </span>
              </li>
            ))}
          </ol>
          <div className="mt-5 grid max-w-2xl gap-4 sm:grid-cols-3">
            {isPlain && (
              <>
                <TextField
                  label="Rounds"
                  inputMode="numeric"
                  value={rounds}
                  onChange={(event) => setRounds(event.target.value)}
                />
                <TextField
                  label="Work, s"
                  inputMode="numeric"
                  value={work}
                  onChange={(event) => setWork(event.target.value)}
                />
                <TextField
                  label="Rest, s"
                  inputMode="numeric"
                  value={rest}
                  onChange={(event) => setRest(event.target.value)}
                />
              </>
            )}
            <SelectField
              label="Logged for"
              value={who}
              onChange={(event) => setWho(event.target.value)}
            >
              <option value={NOBODY}>nobody</option>
              {groups.map((group) => (
                <option key={group} value={CLASS + group}>
                  Class: {group}
                </option>
              ))}
              {students.map((student) => (
                <option key={student.id} value={student.id}>
                  {student.name}
                </option>
              ))}
            </SelectField>
            {isCalled && (
              <>
                <TextField
                  label="A call every, s"
                  inputMode="numeric"
                  value={pace}
                  onChange={(event) => setPace(event.target.value)}
                />
                <label className="mt-6 flex h-10 items-center gap-3 font-semibold">
                  <input
                    type="checkbox"
                    checked={isSpoken}
                    onChange={(event) => setSpoken(event.target.checked)}
                    className="size-5 accent-ink"
                  />
                  Spoken
                </label>
              </>
            )}
          </div>
          {isCalled && (
            <div className="mt-4 max-w-2xl">
              <TextField
                label="Combinations"
                value={calls}
                hint="1 jab, 2 cross, 3 lead hook, 4 rear hook, 5 lead uppercut, 6 rear uppercut."
                onChange={(event) => setCalls(event.target.value)}
              />
            </div>
          )}
          <Heed session={session} chosen={chosen} />
          {problem && (
            <p role="alert" className="mt-4 font-semibold text-now">
              {problem}
            </p>
          )}
          <div className="mt-6 flex items-center gap-5">
            <Button weight="main" hint="Enter" disabled={problem !== null} onClick={start}>
              Start
            </Button>
            <span className="text-soft">{minutes > 0 && `about ${minutes} min`}</span>
            {!isPlain && (
              <Button weight="quiet" onClick={() => setEditing(session)}>
                Change this session
              </Button>
            )}
            <Button
              weight="quiet"
              onClick={() => setEditing({ ...session, id: `own-${letters(nanoid())}`, name: '' })}
            >
              A session of your own
            </Button>
          </div>
        </div>
      </main>
      {editing && (
        <SessionEditor
          key={editing.id}
          session={editing}
          onDone={(kept) => {
            setEditing(null);
            if (kept) setId(kept);
          }}
        />
      )}
    </>
  );
}

/** The parts of a block by name; of many the first. */
function partsInShort(parts: readonly string[]): string {
  if (parts.length === 1) return '';
  return parts.length > 2 ? `${parts[0]}, …` : parts.join(', ');
}

/** An id may have letters only. */
const letters = (text: string) => text.toLowerCase().replace(/[^a-z]/g, 'x');

function plain(session: Session, rounds: string, work: string, rest: string): Session | string {
  const [count, seconds, pause] = [rounds, work, rest].map(Number) as [number, number, number];
  const isWhole = [count, seconds, pause].every(Number.isInteger);
  if (!isWhole || count < 1 || count > 30) return 'Rounds: 1 to 30.';
  if (seconds < 5 || seconds > 3600) return 'Work: 5 to 3600 seconds.';
  if (pause < 0 || pause > 600) return 'Rest: 0 to 600 seconds.';
  const [block] = session.blocks;
  const parts = Array.from({ length: count }, (_, i) => `Round ${i + 1}`);
  return { ...session, blocks: [{ ...block!, parts, work: seconds, rest: pause }] };
}

function combinationsOf(text: string): { combinations: string[] } | { wrong: string } {
  const combinations = text.split(/[,;\s]+/).filter(Boolean);
  if (combinations.length === 0) return { wrong: 'Write at least one combination, such as 1-2.' };
  try {
    combinations.forEach(punchesOf);
    return { combinations };
  } catch (error) {
    return { wrong: error instanceof Error ? error.message : String(error) };
  }
}

/** Minutes, counted work taken at half a minute a part. */
function lengthOf(session: Session): number {
  const seconds = segmentsOf(session).reduce((sum, one) => sum + (one.seconds ?? 30), 0);
  return Math.max(1, Math.round(seconds / 60));
}

/** Parts of a session that are not for somebody. */
function leftBy({ blocks }: Pick<Session, 'blocks'>, condition: Condition) {
  return blocks.flatMap((block) => {
    const why = leavesOut(block, condition);
    return why ? [{ block: block.title, why }] : [];
  });
}

/** What is to be heeded, and who leaves out what. */
function Heed({ session, chosen }: { session: Session; chosen: readonly TimerStudent[] }) {
  const cautions = cautionsOf(session);
  const hasPower = session.blocks.some(({ intent }) => intent === 'power');
  const hasWeights = session.blocks.some(({ asks }) => asks.includes('weights'));
  const leaving = chosen.flatMap(({ id, name, condition }) =>
    [...group(leftBy(session, condition), ({ why }) => why)].map(([why, some]) => ({
      key: id + why,
      name,
      why,
      blocks: some.map(({ block }) => `“${block}”`).join(' and '),
    })),
  );
  return (
    <div className="mt-4 max-w-2xl space-y-3">
      {(cautions.length > 0 || hasPower) && (
        <ul className="space-y-1 border-l-4 border-now pl-3">
          {hasPower && (
            <li>
              Power comes last, warmed up, and only behind an open gate. Under 16 and without a
              grade: no power, no holds, no weights.
            </li>
          )}
          {cautions.map((one) => (
            <li key={one}>{one}</li>
          ))}
          {hasWeights && <li>{weightWords(chosen)}</li>}
        </ul>
      )}
      {leaving.length > 0 && (
        <ul aria-label="Who leaves out what">
          {leaving.map(({ key, name, blocks, why }) => (
            <li key={key}>
              <strong>{name}</strong> leaves out {blocks}: {why}.
            </li>
          ))}
        </ul>
      )}
      <p className="text-sm text-soft">
        The session is Sinew’s own; the coach decides. Pain, dizziness or a blow to the head: stop.
      </p>
    </div>
  );
}

function weightWords(students: readonly TimerStudent[]): string {
  const masses = students.flatMap(({ massKg }) => massKg ?? []);
  const most = 'A weight in the hand: about 1 % of the body’s mass, at most 1 kg';
  if (masses.length === 0) return inManner(`${most}.`);
  const lightest = masses.length > 1 ? ' for the lightest' : '';
  const hand = handWeight(Math.min(...masses)).toFixed(1);
  return inManner(`${most}: ${hand} kg${lightest}.`);
}
