/** A page that needs no database and no script: what is wrong, what is safe, the ways on. */
import type { Backup } from '@/data/maintenance/backups';
import type { DatabaseProblem, ProblemKind } from '@/data/database/databaseProblem';
import { pastTime } from '@/data/database/today';
import { answerLine, escaped, plainPage } from '@/ui/plainPage';

interface Words {
  readonly title: string;
  readonly text: string;
}

const WORDS: Readonly<Record<ProblemKind, Words>> = {
  damaged: {
    title: 'The gym’s database is damaged.',
    text: 'A disk that failed or a file that was copied only in part does this. Go back to the newest backup: what was done since then is lost, the films are not.',
  },
  newer: {
    title: 'The gym was last open in a newer Sinew.',
    text: 'Nothing is wrong with it; this Sinew is too old to read it. Start the newer one again. Or go back to a backup that was made before.',
  },
  'not brought up to date': {
    title: 'The gym’s database could not be brought up to date.',
    text: 'It is as it was before. A full disk does this: make room and look again. If it stays like this, go back to a backup.',
  },
  'in use': {
    title: 'This gym is open in another Sinew.',
    text: 'Two at once would write over each other. Go on in the other one, or stop it where it was started and look again.',
  },
  'out of reach': {
    title: 'The gym’s database cannot be opened.',
    text: 'Another program may hold it, the disk may be full or not there, or the folder may belong to somebody else. Put that right and look again.',
  },
};

const NONE: Words = {
  title: 'The gym’s database can be opened.',
  text: 'Nothing has to be done here. If a screen still cannot be shown, go back to a backup on the Gym’s page.',
};

const reasonOf = ({ kind, reason }: DatabaseProblem) =>
  kind === 'in use' ? `It is held by ${reason}.` : `The reason given was: ${reason}`;

/**
 * @param problem null when the database is open
 * @param message the answer to what was tried last, or null
 */
export function recoveryPage({
  problem,
  backups,
  folder,
  message,
}: {
  problem: DatabaseProblem | null;
  backups: readonly Backup[];
  folder: string;
  message: string | null;
}): string {
  const { title, text } = problem ? WORDS[problem.kind] : NONE;
  return plainPage(
    title,
    `${answerLine(message)}
<p>${escaped(text)}</p>
<p>The films lie untouched in <code>${escaped(folder)}/clips</code>. ${
      problem ? escaped(reasonOf(problem)) : ''
    }</p>
<p class="ways"><a class="main" href="/">Look again</a> <a href="/recovery/save">Save what is there</a></p>
${problem && problem.kind !== 'in use' ? waysBack(backups) : ''}`,
  );
}

function waysBack(backups: readonly Backup[]): string {
  const putAside = 'The database that is here now is put aside in the data folder, not removed.';
  if (backups.length === 0) {
    return `<h2>There is no backup</h2>
<p>Begin with an empty gym. ${putAside} The films stay too, and can be added again.</p>
<form method="post" action="/recovery"><button>Begin with an empty gym</button></form>`;
  }
  const rows = backups.map(
    ({ name, at, bytes }) => `<li>
<span class="when">${escaped(`${pastTime(at)}, ${new Date(at).toTimeString().slice(0, 5)}`)}</span>
<span class="size">${(bytes / 1e6).toFixed(1)} MB without films</span>
<form method="post" action="/recovery"><input type="hidden" name="backup" value="${escaped(name)}"><button>Go back to it</button></form>
</li>`,
  );
  return `<h2>Backups, the newest first</h2>
<p>${putAside}</p>
<ul>${rows.join('\n')}</ul>`;
}
