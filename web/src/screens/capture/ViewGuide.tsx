'use client';

import Link from 'next/link';
import {
  techniqueById,
  TECHNIQUES,
  VIEWS,
  type View,
} from '@sinew/core/foundation/technique/techniques';
import {
  answersOf,
  bestPlace,
  cameraPlace,
  questionById,
  questionsFor,
  type Answer,
} from '@sinew/core/foundation/technique/questions';
import {
  CAMERA_PLACES,
  cameraPlaceOf,
  viewAt,
  VIEW_GUIDE,
} from '@sinew/core/foundation/technique/views';
import { showsTurn } from '@sinew/core/reconstruct/motion/sight';
import { INTENT_NAMES, INTENTS, type Intent } from '@sinew/core/foundation/drill/intent';
import { RETEST_STRIKES } from '@sinew/core/train/work/prescription';
import type { FilmedBefore } from '@/data/clip/clips';
import { pastTime } from '@/data/database/today';
import { inManner } from '@/manner/manner';
import { Key } from '@/ui/button';
import { PlacePlan } from '@/ui/placePlan';

export interface Aim {
  readonly technique: string;
  readonly question: string;
  readonly view: View;
  /** Where in that view the camera stands, where the coach has said: see `Calibration.azimuth`. */
  readonly azimuth?: number;
  /** How hard it is meant, and in which round; nothing when nobody has said. */
  readonly intent?: Intent;
  readonly round?: number;
}

const MARK: Record<Answer, { readonly bar: string; readonly word: string }> = {
  measured: { bar: 'h-4 bg-ink', word: 'measured' },
  'by eye': { bar: 'h-4 border border-ink', word: 'by eye' },
  hidden: { bar: 'h-1.5 translate-y-2.5 bg-now', word: 'hidden' },
};

const USUAL_HEIGHT = 1.75;

/** Filmed from another view; where in it is not said. */
export function aimedFrom({ azimuth: _, ...aim }: Aim, view: View): Aim {
  return { ...aim, view };
}

/** What to film for, from where, and what that view can and cannot show. */
export function ViewGuide({
  aim,
  heightM,
  hasBands,
  isSouthpaw,
  bandsPage,
  before,
  onAim,
}: {
  aim: Aim;
  /** How the same strike was filmed the last time, when this is to be held against it. */
  before: FilmedBefore | null;
  /** The student's, metres, where it is known. */
  heightM: number | null;
  /** The student has bands to wear. */
  hasBands: boolean;
  isSouthpaw: boolean;
  /** Where they are printed. */
  bandsPage: string;
  onAim: (aim: Aim) => void;
}) {
  const technique = techniqueById(aim.technique);
  const question = questionById(aim.question);
  const answers = answersOf(question, technique, hasBands);
  const isByBands = hasBands && question.banded?.[aim.view] === 'measured';
  const place = cameraPlace(question, aim.view, heightM ?? USUAL_HEIGHT);
  const best = bestPlace(question, technique, hasBands).view;
  const stands = cameraPlaceOf(aim.view, aim.azimuth);
  const ask = (id: string) => {
    const { azimuth: _, ...rest } = aim;
    onAim({ ...rest, question: id, ...bestPlace(questionById(id), technique, hasBands) });
  };
  return (
    <div className="space-y-4">
      <div className="grid grid-cols-[3fr_2fr_2fr] gap-3">
        <label className="min-w-0 space-y-1">
          <span className="block font-semibold">Strike</span>
          <select
            value={aim.technique}
            onChange={(event) => {
              const next = techniqueById(event.target.value);
              const kept = questionsFor(next).find((one) => one.id === aim.question);
              const asked = kept ?? questionsFor(next)[0]!;
              const { azimuth: _, ...rest } = aim;
              onAim({
                ...rest,
                technique: next.id,
                question: asked.id,
                ...bestPlace(asked, next, hasBands),
              });
              event.target.blur();
            }}
            className="h-10 w-full border border-soft bg-field px-3"
          >
            {TECHNIQUES.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>

        <label className="min-w-0 space-y-1">
          <span className="block font-semibold">Meant</span>
          <select
            value={aim.intent ?? ''}
            onChange={(event) => {
              const { intent: _, ...rest } = aim;
              const intent = INTENTS.find((one) => one === event.target.value);
              onAim(intent ? { ...rest, intent } : rest);
              event.target.blur();
            }}
            className="h-10 w-full border border-soft bg-field px-3"
          >
            <option value="">not said</option>
            {INTENTS.map((one) => (
              <option key={one} value={one}>
                {INTENT_NAMES[one]}
              </option>
            ))}
          </select>
        </label>
        <label className="min-w-0 space-y-1">
          <span className="block font-semibold">Round</span>
          <select
            value={aim.round ?? ''}
            onChange={(event) => {
              const { round: _, ...rest } = aim;
              const round = Number(event.target.value);
              onAim(round > 0 ? { ...rest, round } : rest);
              event.target.blur();
            }}
            className="h-10 w-full border border-soft bg-field px-3"
          >
            <option value="">none</option>
            {Array.from({ length: 12 }, (_, i) => (
              <option key={i} value={i + 1}>
                {i + 1}
              </option>
            ))}
          </select>
        </label>
      </div>
      {before && <Before before={before} aim={aim} />}

      <fieldset>
        <legend className="mb-1 font-semibold">What do you want to know?</legend>
        {questionsFor(technique).map(({ id, asks, rate }) => (
          <label
            key={id}
            className="flex min-h-9 cursor-pointer items-center gap-2.5 border-b border-rule has-checked:bg-tint has-checked:font-semibold"
          >
            <input
              type="radio"
              name="question"
              checked={id === aim.question}
              onChange={() => ask(id)}
              className="ml-2 size-4 accent-ink"
            />
            <span className="flex-1 py-1">{asks}</span>
            <span className="pr-2 text-sm font-normal text-soft">{rate} a second</span>
          </label>
        ))}
      </fieldset>

      <fieldset>
        <legend className="mb-1 font-semibold">From where?</legend>
        {VIEWS.map((view, index) => {
          const { bar, word } = MARK[answers[view]];
          return (
            <label
              key={view}
              data-view={view}
              data-answer={answers[view]}
              className="flex min-h-9 cursor-pointer items-center gap-2.5 border-b border-rule has-checked:bg-tint has-checked:font-semibold"
            >
              <input
                type="radio"
                name="view"
                checked={view === aim.view}
                onChange={() => onAim(aimedFrom(aim, view))}
                className="ml-2 size-4 accent-ink"
              />
              <Key>{index + 1}</Key>
              <span className="flex-1 py-1">{VIEW_GUIDE[view].name}</span>
              <span className="flex w-24 items-start gap-2 text-sm font-normal">
                <span className={`w-2 shrink-0 ${bar}`} />
                {word}
              </span>
            </label>
          );
        })}
        <div className="flex items-start gap-4 pt-2">
          <div className="min-w-0 flex-1">
            <p>
              {isByBands
                ? 'With the bands on, this view measures it: nothing stands between them and the lens.'
                : answers[aim.view] === 'measured'
                  ? 'This view measures it.'
                  : (question.why[aim.view] ?? 'This view does not measure it.')}{' '}
              <span className="text-soft">{VIEW_GUIDE[aim.view].shows}</span>
            </p>
            {question.banded && !hasBands && (
              <p className="pt-1.5">
                <Link href={bandsPage} className="font-semibold underline underline-offset-4">
                  Two printed bands
                </Link>{' '}
                would let one phone behind the student measure it.
              </p>
            )}
            <p className="pt-1.5">
              <strong>Camera:</strong>{' '}
              {aim.view === 'above'
                ? `straight over the student, ${say(place.height)} up; under a lower ceiling with a wider lens`
                : `${stands ? `${stands.name}, ` : ''}${say(place.distance)} away, ${say(place.height)} high, level`}
              <span className="text-soft">
                , for {heightM ? inManner(`${Math.round(heightM * 100)} cm`) : 'an average height'}{' '}
                and a phone’s main lens: head and feet in, a third of the picture to spare.
              </span>
            </p>
          </div>
          {aim.view !== 'above' && (
            <PlacePlan
              chosen={stands ?? middleOf(aim.view)}
              isSouthpaw={isSouthpaw}
              distance={say(place.distance)}
              serves={({ azimuth }) =>
                question.corner !== undefined && !hasBands
                  ? showsTurn(azimuth, technique.hand === 'rear')
                  : answers[viewAt(azimuth)] === answers[best]
              }
              onChoose={({ azimuth }) => onAim({ ...aim, view: viewAt(azimuth), azimuth })}
            />
          )}
        </div>
      </fieldset>
    </div>
  );
}

/** Where a camera stands of which only the view is said: square, on the chest side. */
const middleOf = (view: Exclude<View, 'above'>) => {
  const middle = { front: 0, side: Math.PI / 2, behind: Math.PI }[view];
  return CAMERA_PLACES.find(({ azimuth }) => azimuth === middle)!;
};

/** Only what is filmed alike can be compared. */
function Before({ before, aim }: { before: FilmedBefore; aim: Aim }) {
  const differs = [
    before.view !== aim.view && VIEW_GUIDE[before.view].name.toLowerCase(),
    (before.intent ?? undefined) !== aim.intent &&
      (before.intent ? INTENT_NAMES[before.intent] : 'how hard: not said'),
  ].filter(Boolean);
  const day = pastTime(before.at);
  return (
    <p role="status" className="border-l-4 border-now pl-3">
      {differs.length === 0
        ? `As on ${day}: the two can be compared. At least ${RETEST_STRIKES} strikes.`
        : `On ${day} it was ${differs.join(', ')}: film it alike, or the two cannot be compared.`}
    </p>
  );
}

const say = (metres: number) => inManner(`${metres.toFixed(1)} m`);
