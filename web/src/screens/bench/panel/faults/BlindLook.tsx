import { useEffect, useState } from 'react';
import {
  eyeError,
  leadSeen,
  LOOK_PACES,
  ORDERS_SEEN,
  type Eye,
  type Look,
  type OrderSeen,
} from '@sinew/core/judge/eye/blindLook';
import { lowerBound } from '@sinew/core/foundation/signal/interpolate';
import { isAbsent, type Measured } from '@sinew/core/foundation/reading/reading';
import { sayOrder } from '@sinew/core/foundation/reading/say';
import type { Technique } from '@sinew/core/foundation/technique/techniques';
import { inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { FilmFrame } from '@/ui/filmFrame';
import { useBench } from '../../document/benchStore';
import { useRealTimes } from '../../document/realTimes';

/** What is shown: from so long before contact to so long, seconds; a hand that flies tells nothing of the start. */
const FROM = 0.5;
const UNTIL = 0.06;
/** The last picture stands so long before it goes round again, seconds. */
const STANDS = 0.5;

/** What can be said of who left first, by the technique. */
export const orderWords = ({ family }: Technique): Readonly<Record<OrderSeen, string>> => ({
  hips: 'Hips first',
  trunk: family === 'kick' ? 'Thigh first' : 'Trunk first',
  together: 'Together',
  unseen: 'Cannot see it',
});

/**
 * Who leaves first, with every lane and number put away: the strike goes round at three paces, an answer to
 * each. How the answers hold tells what they are worth, and that much they count.
 */
export function BlindLook({
  technique,
  contact,
  lead,
  eye,
  onLook,
  onClose,
}: {
  technique: Technique;
  /** Seconds of the film as it was. */
  contact: number;
  /** As the film tells it. */
  lead: Measured;
  eye: Eye;
  onLook: (look: Look) => void;
  onClose: () => void;
}) {
  const [given, setGiven] = useState(0);
  const slowed = LOOK_PACES[given];
  const words = orderWords(technique);
  return (
    <Dialog isOpen isWide title="Who leaves first?" onClose={onClose}>
      {slowed === undefined ? (
        <Told
          words={words}
          link={technique.family === 'kick' ? 'thigh' : 'trunk'}
          lead={lead}
          eye={eye}
          onAgain={() => setGiven(0)}
          onClose={onClose}
        />
      ) : (
        <>
          <Slowed key={given} contact={contact} slowed={slowed} />
          <p className="mt-3 text-soft">
            Look {given + 1} of {LOOK_PACES.length}, {slowed} times slower. Say what you see, not
            what you know.
          </p>
          <div className="mt-3 flex flex-wrap gap-2.5">
            {ORDERS_SEEN.map((says) => (
              <Button
                key={says}
                onClick={() => {
                  onLook({ says, slowed });
                  setGiven(given + 1);
                }}
              >
                {words[says]}
              </Button>
            ))}
          </div>
        </>
      )}
    </Dialog>
  );
}

const focused = (element: HTMLElement | null) => element?.focus();

function Slowed({ contact, slowed }: { contact: number; slowed: number }) {
  const clip = useBench((state) => state.clip);
  const frame = useRound(contact - FROM, contact - UNTIL, slowed);
  return (
    // It takes the focus at every look: a key that is pressed once more must not answer.
    <div
      ref={focused}
      tabIndex={-1}
      className="relative mx-auto max-h-[55dvh] max-w-full outline-none"
      style={{ aspectRatio: `${clip.width} / ${clip.height}` }}
    >
      <FilmFrame clip={clip} frame={frame} isFilling label="The strike, slowed" />
    </div>
  );
}

/** The frame of the moment, of a stretch that goes round. */
function useRound(from: number, to: number, slowed: number): number {
  const times = useRealTimes();
  const [frame, setFrame] = useState(() => lowerBound(times, from));
  useEffect(() => {
    const begin = performance.now();
    let handle = requestAnimationFrame(function step(now: number) {
      const gone = ((now - begin) / 1000) % ((to - from) * slowed + STANDS);
      const time = Math.min(to, from + gone / slowed);
      setFrame(Math.min(times.length - 1, lowerBound(times, time)));
      handle = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(handle);
  }, [times, from, to, slowed]);
  return frame;
}

/** What was said, what that eye is worth, and what it does to the measurement. */
function Told({
  words,
  link,
  lead,
  eye,
  onAgain,
  onClose,
}: {
  words: Readonly<Record<OrderSeen, string>>;
  /** What leaves after the hips, or before. */
  link: 'trunk' | 'thigh';
  lead: Measured;
  eye: Eye;
  onAgain: () => void;
  onClose: () => void;
}) {
  const error = eyeError(eye);
  const joined = leadSeen(lead, eye);
  const told = (one: Measured) =>
    isAbsent(one) ? inManner(one.absent) : `the ${link} leaves ${sayOrder(one)} the hips`;
  return (
    <>
      <p>{eye.own.map(({ says }) => words[says]).join(' · ')}</p>
      {error !== null && (
        <p className="mt-2">
          By how your answers hold, one look of yours is good to about ± {Math.round(1960 * error)}{' '}
          ms
          {eye.others.some((looks) => looks.length > 0) &&
            ' (other strikes of this film count too)'}
          .
        </p>
      )}
      <dl className="mt-3 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1">
        <dt className="text-soft">The film alone</dt>
        <dd>{told(lead)}</dd>
        <dt className="text-soft">With your eye</dt>
        <dd className="font-semibold">{told(joined)}</dd>
      </dl>
      <div className="mt-5 flex flex-wrap gap-2.5">
        <Button weight="main" onClick={onClose}>
          Done
        </Button>
        <Button onClick={onAgain}>Look three times more</Button>
      </div>
    </>
  );
}
