/** What a coach films for, and from where it can be seen: known before ten repetitions are wasted. */
import type { Technique, View } from './techniques';
import { viewAt } from './views';

/** Measured in this view, only by the coach's eye, or not at all. */
export type Answer = 'measured' | 'by eye' | 'hidden';

export interface Question {
  readonly id: string;
  /** As the coach would ask it. */
  readonly asks: string;
  /** Readings that answer it. */
  readonly readings: readonly string[];
  /** Frames a second below which the answer is "can't tell". */
  readonly rate: number;
  readonly answer: (technique: Technique) => Readonly<Record<View, Answer>>;
  /** Why a view does not measure it. */
  readonly why: Partial<Record<View, string>>;
  /** Where in its view the camera serves best with nothing worn: see `Calibration.azimuth`. */
  readonly corner?: number;
  /** What worn bands change of the answers. */
  readonly banded?: Partial<Record<View, Answer>>;
  /** How high the lens should be, as a share of the student's height. */
  readonly lensHeight: number;
}

const always = (answers: Record<View, Answer>) => () => answers;

/**
 * A lead of the hips of about 30 ms must span three frames to stand out of the frames' own
 * uncertainty: ± 0.8 of a frame for the difference of two instants known to one frame each.
 */
const LEAD = 0.03;
const FRAMES_IN_A_LEAD = 3;

export const QUESTIONS: readonly Question[] = [
  {
    id: 'order',
    asks: 'Do the hips start before the trunk?',
    readings: ['turn.pelvis', 'separation.max'],
    rate: FRAMES_IN_A_LEAD / LEAD,
    answer: always({ above: 'measured', behind: 'by eye', front: 'by eye', side: 'hidden' }),
    why: {
      side: 'From the side the turn of the pelvis goes toward the lens and back; a big step hides it too. Your marks on hips and shoulders may still tell who is first.',
      front: 'You can see who starts, belt line in sight; the angle itself is not to be had.',
      behind:
        'You can see who starts, belt line in sight. From the rear corner on the chest side your marks on hips and shoulders tell it.',
    },
    // From elsewhere the arms of a guard lie over the ribs until they move (docs/accuracy.md).
    banded: { behind: 'measured' },
    // The place from which lines of hips and shoulders grow all the way, whichever hand strikes (docs/accuracy.md).
    corner: (3 * Math.PI) / 4,
    lensHeight: 0.55,
  },
  {
    id: 'speed',
    asks: 'How fast does it arrive?',
    readings: ['speed.contact'],
    rate: 120,
    answer: ({ along, pathViews }) => {
      // From the side and from above the line to the target is seen in full; a way of its own may leave it.
      const shown: readonly View[] = along === 'target' ? ['side', 'above'] : pathViews;
      const within = (view: View): Answer => (shown.includes(view) ? 'measured' : 'hidden');
      return {
        side: within('side'),
        above: within('above'),
        front: within('front'),
        behind: within('behind'),
      };
    },
    why: {
      side: 'Part of its way goes toward the lens and is foreshortened; two cameras would show it.',
      above:
        'Part of its way rises toward the lens and is foreshortened; two cameras would show it.',
      front: 'It comes at the lens: its way is foreshortened.',
      behind: 'It goes away from the lens: its way is foreshortened.',
    },
    lensHeight: 0.75,
  },
  {
    id: 'levels',
    asks: 'Does the body sink, and does the stance stay down?',
    readings: ['stance.height'],
    rate: 30,
    answer: always({ side: 'measured', front: 'measured', behind: 'measured', above: 'hidden' }),
    why: { above: 'Up and down point at the lens.' },
    lensHeight: 0.55,
  },
  {
    id: 'guard',
    asks: 'Does the other hand stay home?',
    readings: ['guard.drop'],
    rate: 60,
    answer: always({ side: 'measured', front: 'measured', behind: 'measured', above: 'hidden' }),
    why: { above: 'A hand that drops goes away from the lens.' },
    lensHeight: 0.85,
  },
  {
    id: 'elbow',
    asks: 'Does the elbow leave the line?',
    readings: ['flare'],
    rate: 60,
    answer: always({ above: 'measured', front: 'measured', behind: 'measured', side: 'hidden' }),
    why: { side: 'The elbow swings toward the lens and back.' },
    lensHeight: 0.75,
  },
  {
    id: 'feet',
    asks: 'Do the feet turn, and does the other one hold?',
    readings: ['pivot.rear'],
    rate: 60,
    answer: always({ above: 'measured', front: 'by eye', behind: 'by eye', side: 'by eye' }),
    why: {
      side: 'Put the camera low, at the knee: heels and toes can be seen, their angle not.',
      front: 'Put the camera low, at the knee: heels and knees can be seen, the angle not.',
      behind: 'Put the camera low, at the knee: heels and knees can be seen, the angle not.',
    },
    lensHeight: 0.25,
  },
];

/** Questions that a technique raises: an elbow or a knee has no elbow to leave the line. */
export function questionsFor({ family }: Technique): readonly Question[] {
  return QUESTIONS.filter(({ id }) => id !== 'elbow' || family === 'straight' || family === 'hook');
}

export function questionById(id: string): Question {
  const found = QUESTIONS.find((question) => question.id === id);
  if (!found) throw new RangeError(`no question is called “${id}”`);
  return found;
}

/** What each view tells. */
export function answersOf(
  question: Question,
  technique: Technique,
  hasBands: boolean,
): Readonly<Record<View, Answer>> {
  const answers = question.answer(technique);
  return hasBands ? { ...answers, ...question.banded } : answers;
}

/** Where a phone can stand at the mat, the likeliest first. */
const AT_THE_MAT: readonly View[] = ['side', 'behind', 'front'];

/** The view that answers a question best; nobody is sent five metres up where an eye at the mat can tell. */
export function bestView(question: Question, technique: Technique, hasBands = false): View {
  const answers = answersOf(question, technique, hasBands);
  const answering = (answer: Answer) => AT_THE_MAT.find((view) => answers[view] === answer);
  return (
    answering('measured') ?? answering('by eye') ?? (answers.above === 'hidden' ? 'side' : 'above')
  );
}

/** The same, and where in that view the camera stands; left out where anywhere in it will do. */
export function bestPlace(
  question: Question,
  technique: Technique,
  hasBands = false,
): { readonly view: View; readonly azimuth?: number } {
  const view = bestView(question, technique, hasBands);
  const { corner, banded } = question;
  const isByBands = hasBands && banded?.[view] !== undefined;
  return corner !== undefined && !isByBands && viewAt(corner) === view
    ? { view, azimuth: corner }
    : { view };
}

/**
 * The main lens of a phone held level sees about 41° up and down (26 mm on 24 × 36 mm; common
 * practice, no source), and the picture should hold the student and a third more.
 */
const LENS = (41 * Math.PI) / 180;
const ROOM = 1.35;

/** Where the camera goes, metres, for a student of a height in metres. */
export function cameraPlace(
  question: Question,
  view: View,
  studentHeight: number,
): { readonly distance: number; readonly height: number } {
  const distance = (ROOM * studentHeight) / (2 * Math.tan(LENS / 2));
  return view === 'above'
    ? { distance: 0, height: studentHeight + distance }
    : { distance, height: question.lensHeight * studentHeight };
}
