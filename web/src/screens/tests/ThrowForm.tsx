'use client';

import { KnownField, Outcome, useKnown } from './numbers';

export function ThrowForm({ studentId, today }: { studentId: string; today: string }) {
  const standing = useKnown('', '0.1', 'm');
  const seated = useKnown('', '0.1', 'm');
  return (
    <div className="max-w-2xl">
      <KnownField label="Standing, how far" {...standing} />
      <KnownField label="Seated, how far" {...seated} />
      <p className="mt-2 text-sm text-soft">
        Range grows with the square of the speed: the gain is √(standing ÷ seated) − 1, without the
        drag of the air. Same ball, same angle, the best of three.
      </p>
      <Outcome
        studentId={studentId}
        today={today}
        given={{ kind: 'throw', standing: standing.known, seated: seated.known }}
      />
    </div>
  );
}
