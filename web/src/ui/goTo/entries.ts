/** Where one can go, and which of it the words typed mean. */

export interface Findable {
  readonly id: string;
  readonly name: string;
  readonly classGroup: string;
}

export interface Entry {
  readonly kind: 'student' | 'screen';
  readonly label: string;
  /** What it is looked up by beside its label. */
  readonly also: string;
  readonly href: string;
}

const PLACES: readonly Entry[] = (
  [
    ['Floor', 'students class', '/'],
    ['Plan', 'calendar sessions', '/plan'],
    ['Timer', 'rounds', '/timer'],
    ['Library', 'leaks cues drills schools', '/library'],
    ['Gym', 'backup export settings', '/gym'],
    ['Class sheet', 'cards print', '/card'],
    ['Mark strikes again', 'typical error', '/marking'],
    ['Add a student', 'new', '/students/new'],
  ] as const
).map(([label, also, href]) => ({ kind: 'screen', label, also, href }));

const PAGES = [
  ['films', ''],
  ['work', '/work'],
  ['ledger', '/ledger'],
  ['tests', '/tests'],
  ['card', '/card'],
] as const;

export function entriesFor(students: readonly Findable[]): Entry[] {
  const ofStudents = students.flatMap(({ id, name, classGroup }): Entry[] => [
    ...PAGES.map(([page, path]) => ({
      kind: 'student' as const,
      label: `${name}, ${page}`,
      also: classGroup,
      href: `/students/${id}${path}`,
    })),
    {
      kind: 'student',
      label: `${name}, film now`,
      also: classGroup,
      href: `/capture?student=${id}`,
    },
  ]);
  return [...ofStudents, ...PLACES];
}

/** So many are offered: more is no choice of two seconds. */
const SHOWN = 9;

/**
 * The entries that are meant: every word typed begins one of theirs, accents and case aside. Those
 * whose label begins with the first word come first. Nothing typed means the screens.
 */
export function meant(entries: readonly Entry[], typed: string): Entry[] {
  const words = wordsOf(typed);
  const [first] = words;
  if (first === undefined) return entries.filter(({ kind }) => kind === 'screen').slice(0, SHOWN);
  const found = entries.filter(({ label, also }) => {
    const own = wordsOf(`${label} ${also}`);
    return words.every((word) => own.some((one) => one.startsWith(word)));
  });
  const isFirst = ({ label }: Entry) => wordsOf(label)[0]!.startsWith(first);
  return [...found.filter(isFirst), ...found.filter((one) => !isFirst(one))].slice(0, SHOWN);
}

function wordsOf(text: string): string[] {
  return (
    text
      .normalize('NFD')
      .replace(/\p{M}/gu, '')
      .toLocaleLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? []
  );
}
