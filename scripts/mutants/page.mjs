/** The page that `npm run mutants` writes. */
export function pageOf({ named, results, files, lines, seed }) {
  const counted = results.filter(({ status }) => status !== 'Ignored' && status !== 'CompileError');
  const isDead = ({ status }) => status === 'Killed' || status === 'Timeout';
  const dead = counted.filter(isDead);
  const survivors = counted.filter((one) => !isDead(one));
  const late = counted.filter(({ status }) => status === 'Timeout').length;
  const statics = results.filter(({ status }) => status === 'Ignored').length;
  const roomOf = (file) =>
    file
      .replace(/^.*core\/src\//, '')
      .split('/')
      .slice(0, 2)
      .join('/');
  const rooms = [...new Set(counted.map(({ fileName }) => roomOf(fileName)))].sort();
  const row = (room) => {
    const here = counted.filter(({ fileName }) => roomOf(fileName) === room);
    const killed = here.filter(isDead).length;
    return `| ${room} | ${here.length} | ${killed} | ${percent(killed, here.length)} |`;
  };
  return `# What the tests notice

Written by \`npm run mutants\`: the measuring and the judging are broken on purpose, a place at a time, and
core’s tests are run. A mutant that no test notices survives.

${byHand(named)}## Broken by a tool

Stryker changes operators, conditions and calls on ${lines.length} lines drawn from ${files.length} files with
seed ${seed}: ${counted.length} mutants, ${dead.length} noticed, **${percent(dead.length, counted.length)}**
(${late} of them because the tests no longer came to an end). Words
are left alone (tests of sentences hold them), and so are ${statics} mutants that run only while a file is
loaded.

| room | mutants | noticed | |
| --- | --- | --- | --- |
${rooms.map(row).join('\n')}

## Survivors

${survivors.map(survivor).join('\n')}
`;
}

function byHand(named) {
  if (named.length === 0) return '';
  const rows = named.map(
    ({ name, file, isKilled }) =>
      `| ${name} | \`${file}\` | ${isKilled ? 'dead' : '**survives**'} |`,
  );
  return `## Broken by hand

Promises of the ±, each broken on purpose. Every one must die.

| mutant | file | |
| --- | --- | --- |
${rows.join('\n')}

`;
}

const percent = (part, whole) => `${((100 * part) / whole).toFixed(0)} %`;

function survivor({ fileName, location, replacement, status, mutatorName }) {
  const place = `${fileName.replace(/^.*core\/src\//, '')}:${location.start.line}`;
  const text = replacement.replace(/\s+/g, ' ').replaceAll('`', '´').slice(0, 90);
  return `- \`${place}\` ${mutatorName}: \`${text}\`${status === 'NoCoverage' ? ', no test comes here' : ''}`;
}
