import { quantity } from '@/manner/manner';
import Link from 'next/link';
import type { MarkingError } from '@/data/progress/repeatMarkings';

/** How far this reading can be trusted from marking to marking, or how to find out. */
export function MarkingErrorLine({
  error,
  studentId,
}: {
  error: MarkingError | null;
  studentId: string;
}) {
  return (
    <p className="mt-1 text-sm text-soft">
      {error
        ? `Marked twice, ${error.subjects} strikes differ by a typical error of ${quantity(error.typicalError, error.unit)}; ` +
          `the smallest change between two strikes is ${quantity(error.smallestChange, error.unit)}. ` +
          `ICC(2,1) ${error.icc21.toFixed(2)}, ICC(3,1) ${error.icc31.toFixed(2)}. `
        : 'How far your own markings of this differ is not known yet. '}
      <Link href={`/marking?student=${studentId}`} className="underline underline-offset-4">
        Mark again
      </Link>
    </p>
  );
}
