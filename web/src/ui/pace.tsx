'use client';

/** Of true speed: a strike of half a second takes four at an eighth. */
const PACES = [1 / 8, 1 / 4, 1 / 2, 1] as const;
export type Pace = (typeof PACES)[number];

const WORDS: Record<Pace, string> = { [1 / 8]: '⅛', [1 / 4]: '¼', [1 / 2]: '½', 1: '1' };

/** How fast a film is played. */
export function PaceButtons({ pace, onPace }: { pace: Pace; onPace: (pace: Pace) => void }) {
  return (
    <span role="group" aria-label="How fast it plays" className="flex items-center px-1">
      {PACES.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === pace}
          aria-label={`${WORDS[one]} of true speed`}
          onClick={() => onPace(one)}
          className="size-8 font-semibold text-soft aria-pressed:text-ink aria-pressed:underline aria-pressed:underline-offset-4"
        >
          {WORDS[one]}
        </button>
      ))}
    </span>
  );
}

/** The next quicker (+1) or slower one; the same where there is none. */
export const otherPace = (pace: Pace, by: 1 | -1): Pace => PACES[PACES.indexOf(pace) + by] ?? pace;
