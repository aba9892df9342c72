/** Where one can go and what one can do, and which of it the words typed mean. */
import type { Command } from '../commands/command';

export interface Findable {
  readonly id: string;
  readonly name: string;
  readonly classGroup: string;
}

interface Found {
  readonly label: string;
  /** What it is looked up by beside its label. */
  readonly also: string;
}

/** A place to go to. */
export interface PlaceEntry extends Found {
  readonly kind: 'student' | 'screen';
  readonly href: string;
}

/** Something that can be done on the screen that is open. */
export interface CommandEntry extends Found {
  readonly kind: 'command';
  readonly command: Command;
}

export type Entry = PlaceEntry | CommandEntry;

export const keyOf = (entry: Entry) =>
  entry.kind === 'command' ? `do ${entry.command.id}` : entry.href;

const PLACES: readonly PlaceEntry[] = (
  [
    ['Floor', 'students class', '/'],
    ['Plan', 'calendar sessions', '/plan'],
    ['Films', 'clips search notes tags', '/films'],
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

export function entriesFor(students: readonly Findable[]): PlaceEntry[] {
  const ofStudents = students.flatMap(({ id, name, classGroup }): PlaceEntry[] => [
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

/** What the open screen can do, by its words; a place is gone to by its own name. */
export function entriesOf(commands: readonly Command[]): CommandEntry[] {
  return commands
    .filter(({ group }) => group !== 'Go' && group !== 'Everywhere')
    .map((command) => ({
      kind: 'command',
      label: command.words[0]!.toUpperCase() + command.words.slice(1),
      also: command.group,
      command,
    }));
}

/** So many are offered: more is no choice of two seconds. */
const SHOWN = 9;

/**
 * The entries that are meant: every word typed begins one of theirs, accents and case aside. Those
 * whose label begins with the first word come first. Nothing typed means the screens.
 */
export function meant<T extends Entry>(entries: readonly T[], typed: string): T[] {
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

/** What is said of films is looked for among films: after all that has the words for a name. */
export function filmsOf(typed: string): PlaceEntry[] {
  const words = typed.trim();
  if (words === '') return [];
  const href = `/films?words=${encodeURIComponent(words)}`;
  return [{ kind: 'screen', label: `Films: “${words}”`, also: '', href }];
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
