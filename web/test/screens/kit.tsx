/** Screens on their own: with the one listener for keys, and a coach at the keyboard. */
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import type { Student } from '@/data/student/students';
import { CommandKeys } from '@/ui/commands/CommandKeys';

export function onScreen(screen: ReactElement) {
  const user = userEvent.setup();
  const drawn = render(
    <>
      <CommandKeys />
      {screen}
    </>,
  );
  return { user, ...drawn };
}

/** A grown-up who has consented to be filmed. */
export const student = (change: Partial<Student> = {}): Student => ({
  id: 'ada',
  name: 'Ada Storm',
  stance: 'orthodox',
  grade: '',
  startedOn: null,
  heightM: 1.7,
  massKg: 60,
  bands: { kind: 'printed', girths: { hips: null, ribs: null }, seam: 'front' },
  injuries: '',
  bornOn: '2000-01-01',
  isMinor: false,
  isJunior: false,
  isArchived: false,
  classGroup: '',
  school: {},
  consent: {
    id: 'consent',
    givenBy: 'student',
    name: 'Ada Storm',
    givenOn: '2026-01-02',
    expiresOn: null,
  },
  ...change,
});
