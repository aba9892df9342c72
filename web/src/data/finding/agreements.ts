/** How often the gym's coaches have agreed with the judge, leak by leak. */
import { group } from 'd3-array';
import { agreementOn, type Agreement } from '@sinew/core/judge/library/agreement';
import type { Catalogue } from '@sinew/core/judge/fault/schema';
import { COLUMNS } from '../database/columns';
import type { Db } from '../database/db';

/** So many of the newest decisions count: an eye changes, a judge does, and each has to be read. */
const NEWEST = 1000;

/** By fault; those on which nobody has decided are missing. */
export async function agreementsOf(
  db: Db,
  { faults }: Catalogue,
): Promise<Readonly<Record<string, Agreement>>> {
  const rows = await db
    .selectFrom('finding')
    .innerJoin('strike', 'strike.id', 'finding.strike_id')
    .select(['finding.fault', 'finding.status', 'finding.judged_by', 'strike.technique'])
    .where('finding.status', 'in', ['accepted', 'dismissed'])
    .orderBy('finding.created_at', 'desc')
    .limit(NEWEST)
    .execute();
  const byFault = group(rows, ({ fault }) => fault);
  return Object.fromEntries(
    faults.flatMap((fault) => {
      const decided = (byFault.get(fault.id) ?? []).map(({ technique, status, judged_by }) => ({
        technique,
        isTaken: status === 'accepted',
        judgedBy: COLUMNS.finding.judged_by.readOr(judged_by, []),
      }));
      return decided.length > 0 ? [[fault.id, agreementOn(fault, decided)]] : [];
    }),
  );
}
