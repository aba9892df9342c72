'use client';

import { nearestFrame } from '@sinew/core/observe/track/time';
import { strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { useAnalysis } from '../document/useAnalysis';

/** Under the picture on a phone: through the film by thumb, where there are no keys. */
export function ThumbSteps() {
  const store = useBenchStore();
  const isPlaying = useBench((state) => state.isPlaying);
  const strike = useBench(strikeOf);
  const found = useAnalysis()?.events;
  const times = useRealTimes();
  const go = (by: number) => {
    const { frame, goTo, setPlaying } = store.getState();
    setPlaying(false);
    goTo(frame + by);
  };
  const marked = strike?.marks.contact?.frame;
  const contact = marked ?? (found?.contact ? nearestFrame(times, found.contact.time) : null);
  return (
    <div
      role="group"
      aria-label="Through the film"
      className="order-1 grid grid-cols-6 border-y border-ink font-semibold md:hidden"
    >
      <Step label="Ten frames back" onClick={() => go(-10)}>
        −10
      </Step>
      <Step label="One frame back" onClick={() => go(-1)}>
        −1
      </Step>
      <Step
        label={isPlaying ? 'Stop' : 'Play slowly'}
        onClick={() => store.getState().setPlaying(!isPlaying)}
      >
        {isPlaying ? 'Stop' : 'Play'}
      </Step>
      <Step label="One frame on" onClick={() => go(1)}>
        +1
      </Step>
      <Step label="Ten frames on" onClick={() => go(10)}>
        +10
      </Step>
      <Step
        label="To contact"
        isOff={contact === null}
        onClick={() => contact !== null && store.getState().goTo(contact)}
      >
        Hit
      </Step>
    </div>
  );
}

function Step({
  label,
  isOff = false,
  onClick,
  children,
}: {
  label: string;
  isOff?: boolean;
  onClick: () => void;
  children: string;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={isOff}
      onClick={onClick}
      className="h-13 border-rule not-last:border-r disabled:opacity-45"
    >
      {children}
    </button>
  );
}
