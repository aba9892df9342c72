import type { Change } from '@sinew/core/judge/fault/set';

const SAID = { found: 'found', clear: 'not found', 'cant-tell': 'can’t tell' } as const;
const say = (outcome: Change['before']) => (outcome === null ? 'not judged' : SAID[outcome]);

/** Which findings a change of school or limit has changed, and how. */
export function Changes({ changes }: { changes: readonly Change[] }) {
  return (
    <div role="status" className="mt-3 border-l-4 border-now pl-3">
      {changes.length === 0 ? (
        <p>Judged again: nothing changes in this strike.</p>
      ) : (
        <>
          <p>Judged again:</p>
          <ul>
            {changes.map(({ fault, name, before, after }) => (
              <li key={fault}>
                <strong>{name}</strong>: {say(before)} → {say(after)}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
