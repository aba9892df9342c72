'use client';

import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { writeSubtitles } from '@sinew/core/format/vtt';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { Talk } from '@/data/clip/talks';
import type { CardOf } from '@/data/finding/card';
import { pastDay } from '@/data/database/today';
import type { Sharing } from '@/data/student/sharing';
import type { Student } from '@/data/student/students';
import type { LessonLink as LessonLinkOf } from '@/data/access/lessons';
import { inManner } from '@/manner/manner';
import { LOST } from '@/ui/askDialog';
import { askBytes } from '@/api/client';
import { BlobPlayer } from '@/ui/blobPlayer';
import { Button } from '@/ui/button';
import { talkFilm } from '@/api/talkFilm';
import { inMinutes } from '@/ui/inMinutes';
import { sizeInWords } from '@/ui/sizeInWords';
import { TextField } from '@/ui/field';
import { ProgressBar } from '@/ui/progressBar';
import { download, overlayPicture, pictureOf } from '@/video/frameFile';
import { makeReview, type ReviewFilm } from '@/video/review/makeReview';
import { base64 } from './base64';
import { LessonLink, LinksInForce } from './LessonLink';
import { lessonPage } from './lessonPage';
import { allow, mayBeSent, stopSharing } from './sharingActions';

interface Props {
  readonly gym: string;
  readonly student: Student;
  readonly card: CardOf;
  /** What was said over the strike of the first cue; null for nothing. */
  readonly talk: Talk | null;
  readonly sharing: Sharing | null;
  readonly calendar: string | null;
  readonly today: string;
  /** The gym is open to its network: a link can be made to what is sent. */
  readonly isOpen: boolean;
  /** Links that work. */
  readonly links: readonly LessonLinkOf[];
}

/** The card as something to send: a film of the strike with the cue in it, and a page with all of it. */
export function SendHome(props: Props) {
  const { student, sharing } = props;
  return (
    <section aria-label="Send it home" className="mt-8 border-t-2 border-ink pt-4 print:hidden">
      <h2 className="font-serif text-2xl">Send it home</h2>
      {sharing ? (
        <>
          <Made {...props} />
          <LinksInForce studentId={student.id} links={props.links} />
          <p className="mt-5 text-sm text-soft">
            That it may leave this machine: {sharing.givenBy === 'guardian' && 'the guardian '}
            <bdi>{sharing.name}</bdi>, {pastDay(sharing.givenOn)}.
            <Button
              weight="quiet"
              className="ml-3 text-sm"
              onClick={() =>
                void stopSharing(student.id).then(
                  () => toast('Nothing more is sent. What was sent before cannot be called back.'),
                  () => toast(LOST),
                )
              }
            >
              Withdraw
            </Button>
          </p>
        </>
      ) : (
        <MayIt student={student} />
      )}
    </section>
  );
}

/** Asks for the consent, apart from that to be filmed. */
function MayIt({ student }: { student: Student }) {
  const [name, setName] = useState(student.isMinor ? '' : student.name);
  const [problem, setProblem] = useState<string | null>(null);
  const [id] = useState(() => nanoid());
  if (!student.consent) {
    return <p className="mt-2">First the consent to be filmed: it stands on the student’s page.</p>;
  }
  return (
    <form
      noValidate
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void allow(student.id, { id, name }).then(setProblem, () => setProblem(LOST));
      }}
    >
      <p>
        What has been sent can be passed on and cannot be called back. Ask{' '}
        {student.isMinor ? 'a guardian' : <bdi>{student.name}</bdi>} first; consent to be filmed is
        not enough for it.
      </p>
      <div className="mt-3 flex flex-wrap items-start gap-4">
        <div className="w-64">
          <TextField
            label={student.isMinor ? 'Guardian’s name' : 'Given by'}
            dir="auto"
            value={name}
            onChange={(event) => setName(event.target.value)}
            error={problem ?? undefined}
          />
        </div>
        <Button type="submit" weight="main" className="mt-6 h-10">
          It may be sent home
        </Button>
      </div>
    </form>
  );
}

type State =
  | { readonly kind: 'idle'; readonly problem?: string }
  | { readonly kind: 'making'; readonly share: number; readonly stop: () => void }
  | {
      readonly kind: 'made';
      readonly review: ReviewFilm | null;
      readonly still: Blob | null;
      readonly page: Blob;
    };

function Made({ gym, student, card, talk, calendar, today, isOpen }: Props) {
  const [isTalk, setTalk] = useState(talk !== null);
  const [state, setState] = useState<State>({ kind: 'idle' });
  const begun = useRef(false);
  const first = card.cues[0]!;
  const technique = techniqueById(first.cue.technique).name;

  const make = async () => {
    setState({ kind: 'making', share: 0, stop: () => undefined });
    const wrong = await mayBeSent(student.id, first.cue.text).catch(() => LOST);
    if (wrong !== null) return setState({ kind: 'idle', problem: wrong });
    try {
      const shown = await evidenceOnPage();
      const { picture } = first;
      const making =
        shown && picture && !(talk && isTalk)
          ? makeReview(
              {
                address: `/api/clips/${picture.clip.id}/file`,
                width: picture.clip.width,
                height: picture.clip.height,
                captureRate: picture.captureRate,
                drawn: await createImageBitmap(await overlayPicture(shown.overlay)),
              },
              {
                strike: picture.strike,
                until: Math.max(picture.frame, picture.contact),
                shows: picture.frame,
                technique,
                cue: first.cue.text,
                evidence: inManner(first.cue.evidence),
                work: first.work[0]
                  ? [first.work[0].name, first.work[0].dose].filter(Boolean).join(': ')
                  : first.cue.drill,
              },
              (share) => setState((now) => (now.kind === 'making' ? { ...now, share } : now)),
            )
          : null;
      if (making) setState({ kind: 'making', share: 0, stop: making.stop });
      const review =
        talk && isTalk ? await spoken(talk, first.cue.text) : making && (await making.review);
      if (making && !review) return setState({ kind: 'idle' });
      const still = shown && (await pictureOf(shown.film, shown.overlay, 'image/jpeg'));
      const page = lessonPage({
        gym,
        student: student.name,
        madeOn: today,
        card,
        picture: still && `data:image/jpeg;base64,${await base64(still)}`,
        review: review && { film: { inside: await base64(review.film) }, pieces: review.pieces },
        calendar,
        from: null,
      });
      setState({ kind: 'made', review, still, page: new Blob([page], { type: 'text/html' }) });
    } catch (error) {
      const problem = error instanceof Error ? error.message : String(error);
      setState({ kind: 'idle', problem: `Nothing was made: ${problem}` });
    }
  };

  // From the bench it is one key: the page comes with the wish.
  useEffect(() => {
    if (begun.current || location.hash !== '#review') return;
    begun.current = true;
    // Once: a page that is loaded again makes nothing by itself.
    history.replaceState(history.state, '', location.pathname);
    void make();
  });

  const name = (what: string) => `${student.name} ${technique.toLowerCase()} ${today}${what}`;
  if (state.kind === 'making') {
    return (
      <div className="mt-3">
        <ProgressBar
          label="The review is being made"
          progress={{ share: state.share, left: null }}
          onCancel={state.stop}
        />
      </div>
    );
  }
  if (state.kind === 'made') {
    const { review, still, page } = state;
    return (
      <div className="mt-3">
        {review && <BlobPlayer film={review.film} label="The review" />}
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <Button weight="main" onClick={() => download(page, name('.html'))}>
            Save the page, {sizeInWords(page)}
          </Button>
          {review && (
            <>
              <Button onClick={() => download(review.film, name('.mp4'))}>
                Save the film, {sizeInWords(review.film)}
              </Button>
              <Button
                weight="quiet"
                onClick={() =>
                  download(
                    new Blob([writeSubtitles(review.pieces)], { type: 'text/vtt' }),
                    name('.vtt'),
                  )
                }
              >
                Save its words
              </Button>
            </>
          )}
        </div>
        <p className="mt-2 text-sm text-soft">
          The page holds the card, the film and boxes to tick, and opens in any browser without a
          network. Nothing of it was kept here; it is made anew whenever you like.
        </p>
        {isOpen && (
          <LessonLink
            studentId={student.id}
            clipId={first.picture?.clip.id ?? null}
            media={{ picture: still, film: review?.film ?? null, said: review?.pieces ?? [] }}
          />
        )}
      </div>
    );
  }
  return (
    <div className="mt-2">
      <p>
        A film of the strike with the cue in it, {first.picture ? 'some fifteen seconds, ' : ''}and
        one page with everything on this card, to send by any messenger.
      </p>
      {state.problem && (
        <p role="alert" className="mt-2 font-semibold text-now">
          {state.problem}
        </p>
      )}
      {talk && (
        <label className="mt-3 flex items-center gap-2">
          <input
            type="checkbox"
            className="size-4 accent-ink"
            checked={isTalk}
            onChange={(event) => setTalk(event.target.checked)}
          />
          With what <bdi>{talk.madeBy}</bdi> said over it, {inMinutes(talk.seconds)}, for the film
        </label>
      )}
      <Button weight="main" className="mt-3" onClick={() => void make()}>
        Make the review
      </Button>
    </div>
  );
}

/** What was said over it, as the film that is sent; the cue is its words. */
async function spoken(talk: Talk, cue: string): Promise<ReviewFilm> {
  const film = await (await askBytes(talkFilm(talk))).blob();
  return { film, pieces: [{ part: 'stands', from: 0, to: talk.seconds, words: cue }] };
}

/** How long the card's own picture may take to be drawn, milliseconds. */
const PATIENCE = 20_000;

/** The card's picture of the strike, once it has been drawn; null where the card has none. */
async function evidenceOnPage() {
  const figure = document.querySelector('figure[data-evidence]');
  const film = figure?.querySelector('canvas');
  const overlay = figure?.querySelector('svg');
  if (!film || !overlay) return null;
  for (let waited = 0; film.dataset.second === undefined; waited += 100) {
    if (waited > PATIENCE) throw new Error('this browser cannot show the film.');
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return { film, overlay };
}
