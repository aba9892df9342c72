/**
 * Every word that Sinew has for something of its own, with what it means: the library shows it, `sinew
 * words` prints it, and `docs/words.md` is that print. Names that something else is named by are taken
 * from there.
 */
import { INTENT_NAMES, INTENTS, type Intent } from '../foundation/drill/intent';
import { EVENTS, wordsFor } from '../measure/events/events';
import { PHASES, type PhaseId } from '../measure/events/phases';
import { MEASURE_NAMES, type MeasureId } from '../measure/measures/allMeasures';
import { techniqueById } from '../foundation/technique/techniques';

export interface Term {
  readonly term: string;
  readonly meaning: string;
}

export interface TermGroup {
  readonly name: string;
  readonly terms: readonly Term[];
}

const OF_PHASE: Readonly<Record<PhaseId, string>> = {
  load: 'The body sinks or coils before it goes: from the start of the load to the start of the hips.',
  explode:
    'The hips go and the trunk still waits: from the start of the hips to that of the trunk.',
  accelerate: 'One link after the other adds its speed: from the start of the trunk to contact.',
  'follow-through': 'The strike travels on into the target: from contact to where it ends.',
  recover: 'The way home: from the end of the strike to the hand, or foot, back in its place.',
};

const OF_READING: Partial<Readonly<Record<MeasureId, string>>> = {
  'lead.hipsTrunk': 'How long the hips turn before the trunk does; what stretches the body.',
  'lead.half':
    'How much sooner the hips are half-way through their turn; what marks on one film tell of it.',
  'separation.max': 'The most by which the hips are turned ahead of the shoulders.',
  coil: 'How far the trunk turns away from the target before it goes.',
  sink: 'How far the body’s middle drops in the load.',
  'speed.contact': 'Speed of the striking end toward the target at contact.',
  reach: 'How far the limb is stretched at contact, of its whole length.',
  'speed.keep': 'Speed at contact beside the largest before it: less than all of it is braking.',
  'elbow.drift': 'How far the elbow opens in the last moments of a hook; it should hold.',
  'guard.chin': 'From the striking shoulder to the chin at contact; small is covered.',
};

const OF_INTENT: Readonly<Record<Intent, string>> = {
  slow: 'Counted aloud, every link felt.',
  tempo: 'As in shadow work: the order holds, nothing is forced.',
  full: 'As fast as the order holds, without weight behind it.',
  power: 'Everything behind it; for those who are cleared for it, never for juniors.',
};

const inSentence = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)}.`;
const cross = techniqueById('cross');

export const GLOSSARY: readonly TermGroup[] = [
  {
    name: 'The strike',
    terms: [
      {
        term: 'Chain, feet to fist',
        meaning:
          'The links through which a strike travels: feet, knees, pelvis, trunk, then the limb.',
      },
      { term: 'Link', meaning: 'One part of the chain.' },
      {
        term: 'Drives',
        meaning: 'A link that carries the strike on its way, or holds where it should.',
      },
      {
        term: 'Neutral',
        meaning: 'A link that neither carries the strike nor costs it anything sure.',
      },
      {
        term: 'Drags',
        meaning: 'A link that costs the strike speed, or gives way where it should hold.',
      },
      ...PHASES.map(({ id, name }) => ({ term: name, meaning: OF_PHASE[id] })),
      ...EVENTS.map((event) => {
        const { name, meaning } = wordsFor(event, cross);
        return { term: `The instant “${name}”`, meaning: inSentence(meaning) };
      }),
    ],
  },
  {
    name: 'What is measured',
    terms: [
      ...Object.entries(OF_READING).map(([id, meaning]) => ({
        term: MEASURE_NAMES[id as MeasureId],
        meaning,
      })),
      {
        term: '±',
        meaning: 'The truth lies within it in 95 of 100 cases, as far as Sinew can know.',
      },
      {
        term: 'Typical error',
        meaning: 'How far two markings of the same strike usually differ.',
      },
      {
        term: 'Smallest change',
        meaning: 'What two sets must differ by before anything may be said to have changed.',
      },
      {
        term: 'Automatic',
        meaning: 'Found by Sinew and not yet confirmed by the coach.',
      },
    ],
  },
  {
    name: 'What is judged',
    terms: [
      { term: 'Leak', meaning: 'A fault that robs the strike of power, shape or safety.' },
      { term: 'Found', meaning: 'Beyond its limit by more than the ±.' },
      { term: 'Clear', meaning: 'On the right side of its limit by more than the ±.' },
      {
        term: 'Can’t tell',
        meaning:
          'The ± reaches over the limit, or nothing shows it; what would settle it stands beside.',
      },
      {
        term: 'Limit',
        meaning: 'What a reading is held against; the gym’s own where it has changed it.',
      },
      {
        term: 'School',
        meaning: 'A choice that good coaches make differently, and leaks are judged by.',
      },
      {
        term: 'Cost',
        meaning: 'Momentum that the same strike would have without the leak; an estimate.',
      },
      {
        term: 'Set',
        meaning: 'Strikes of one kind in one film; three or more are judged, one is a first word.',
      },
      { term: 'Wrong', meaning: 'The coach says that a leak is not there, and why.' },
      { term: 'Later', meaning: 'The coach leaves a leak open and works on something else.' },
    ],
  },
  {
    name: 'What is worked on',
    terms: [
      {
        term: 'Cue',
        meaning: 'The one sentence that a student takes along; one at a time in a technique.',
      },
      { term: 'Drill', meaning: 'What is done for the cue, with a dose.' },
      { term: 'Dose', meaning: 'How many, how often, how hard.' },
      { term: 'Gate', meaning: 'How hard somebody may strike now, and what opens the next step.' },
      ...INTENTS.map((intent) => ({
        term: inSentence(INTENT_NAMES[intent]).slice(0, -1),
        meaning: OF_INTENT[intent],
      })),
      {
        term: 'Film again',
        meaning: 'The day on which the same is filmed alike, to see whether it changed.',
      },
      {
        term: 'Better, worse, no change you can claim',
        meaning: 'What two sets of three and more say together with all that scatters.',
      },
      { term: 'Ledger', meaning: 'A student’s record in one technique.' },
    ],
  },
];

/** As a page of Markdown. */
export function glossaryPage(): string {
  const groups = GLOSSARY.map(
    ({ name, terms }) =>
      `## ${name}\n\n${terms.map(({ term, meaning }) => `- **${term}** – ${meaning}`).join('\n')}`,
  );
  return `# Words\n\nMade by \`npx sinew words\`; the same stand in the app, under Library.\n\n${groups.join('\n\n')}\n`;
}
