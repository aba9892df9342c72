/** What a change of the library does to the gym's strikes, as a sentence. */
import type { Effect } from '@/data/finding/foundFaults';

const counted = (count: number, one: string, many: string) =>
  `${count} ${count === 1 ? one : many}`;

export function effectInWords({ strikes, more, fewer }: Effect): string {
  if (strikes === 0) return 'No strike is measured yet.';
  const of = strikes === 1 ? 'the one strike measured' : `the newest ${strikes} strikes`;
  if (more.strikes + fewer.strikes === 0) return `In ${of} nothing changes.`;
  const by = (students: number) => counted(students, 'student', 'students');
  const parts = [
    more.strikes > 0 && `${more.strikes} (${by(more.students)}) now show a leak they did not`,
    fewer.strikes > 0 && `${fewer.strikes} (${by(fewer.students)}) no longer show one`,
  ].filter(Boolean);
  return `Of ${of}, ${parts.join('; ')}.`;
}
