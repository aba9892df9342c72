import { INTENTS, type Intent } from '@sinew/core/foundation/drill/intent';
import {
  TECHNIQUES,
  VIEWS,
  type Technique,
  type View,
} from '@sinew/core/foundation/technique/techniques';
import { useRemembered } from '@/ui/useRemembered';

/** What is filmed and from where, as this phone remembers it from one clip to the next. */
export interface Shown {
  /** Null where several strikes are shown, or nobody has said. */
  readonly technique: Technique['id'] | null;
  readonly view: View;
  readonly intent: Intent | null;
}

export function useShown(): readonly [Shown, (what: keyof Shown, value: string) => void] {
  const [technique, setTechnique] = useRemembered('sinew.phone.technique');
  const [view, setView] = useRemembered('sinew.phone.view');
  const [intent, setIntent] = useRemembered('sinew.phone.intent');
  const setters = { technique: setTechnique, view: setView, intent: setIntent };
  return [
    {
      technique: TECHNIQUES.find(({ id }) => id === technique)?.id ?? null,
      view: VIEWS.find((one) => one === view) ?? 'side',
      intent: INTENTS.find((one) => one === intent) ?? null,
    },
    (what, value) => setters[what](value),
  ];
}

/** The same as it goes with a film. */
export const saidOf = ({ technique, view, intent }: Shown): Readonly<Record<string, string>> => ({
  view,
  ...(technique && { technique, track: 'standard' }),
  ...(intent && { intent }),
});
