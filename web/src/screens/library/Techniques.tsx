import type { Catalogue } from '@sinew/core/judge/fault/schema';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { TEACHING } from '@sinew/core/foundation/technique/teaching';

/** Every strike: its chain, where its power comes from, and how many faults it is looked through for. */
export function Techniques({ catalogue }: { catalogue: Catalogue }) {
  return (
    <ul>
      {TECHNIQUES.map(({ id, name, chain, family }) => {
        const { power, atContact, particular } = TEACHING[id]!;
        const faults = catalogue.faults.filter(({ techniques }) => techniques.includes(id)).length;
        return (
          <li
            key={id}
            className="grid gap-x-6 gap-y-1 md:grid-cols-[14rem_1fr_6rem] border-b border-rule py-3"
          >
            <div>
              <h2 className="font-semibold">{name}</h2>
              <p className="text-sm text-soft">{chain.join(' → ')}</p>
            </div>
            <div>
              <p>{power}</p>
              <p className="text-soft">
                At contact: {atContact} {particular}
              </p>
              {(family === 'elbow' || family === 'kick') && (
                <p className="mt-1 border-l-4 border-now pl-3 text-sm">
                  To the head illegal in many rule sets and gyms. On a partner only with protective
                  gear, a supervisor and consent.
                </p>
              )}
            </div>
            <p className="text-right text-sm text-soft">{faults} leaks</p>
          </li>
        );
      })}
    </ul>
  );
}
