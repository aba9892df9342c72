import { INTENTS, type Intent } from '@sinew/core/foundation/drill/intent';
import { TECHNIQUES, type Technique } from '@sinew/core/foundation/technique/techniques';
import type { FilmedFrom } from '@sinew/core/foundation/technique/views';
import { filmedFrom } from '@/ui/filmedFrom';
import { useRemembered } from '@/ui/useRemembered';

/** What is filmed and from where, as this phone remembers it from one clip to the next. */
export interface Shown {
  /** Null where several strikes are shown, or nobody has said. */
  readonly technique: Technique['id'] | null;
  readonly filmed: FilmedFrom;
  readonly intent: Intent | null;
}

export function useShown(): readonly [Shown, (what: keyof Shown, value: string) => void] {
  const [technique, setTechnique] = useRemembered('sinew.phone.technique');
  const [filmed, setFilmed] = useRemembered('sinew.phone.view');
  const [intent, setIntent] = useRemembered('sinew.phone.intent');
  const setters = { technique: setTechnique, filmed: setFilmed, intent: setIntent };
  return [
    {
      technique: TECHNIQUES.find(({ id }) => id === technique)?.id ?? null,
      filmed: filmedFrom(filmed) ?? { view: 'side' },
      intent: INTENTS.find((one) => one === intent) ?? null,
    },
    (what, value) => setters[what](value),
  ];
}

/** The same as it goes with a film. */
export const saidOf = ({ technique, filmed, intent }: Shown): Readonly<Record<string, string>> => ({
  view: filmed.view,
  ...(filmed.azimuth !== undefined && { azimuth: String(filmed.azimuth) }),
  ...(technique && { technique, track: 'standard' }),
  ...(intent && { intent }),
});
