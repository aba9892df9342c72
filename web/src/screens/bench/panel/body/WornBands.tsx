'use client';

import Link from 'next/link';
import type { BandName, WornBands as Worn } from '@sinew/core/observe/band/band';
import type { KeptBand, KeptBands } from '@sinew/core/observe/band/bandTurns';
import { changeJob } from '@/tracking/requests';
import { Button } from '@/ui/button';
import { useBench } from '../../document/benchStore';
import { said } from './said';

const NAMES: Readonly<Record<BandName, string>> = { hips: 'Hips', ribs: 'Ribs' };

/** What the worn bands told, frame by frame, and the way to have them read anew. */
export function WornBands({ worn }: { worn: Worn }) {
  const clipId = useBench((state) => state.clip.id);
  const studentId = useBench((state) => state.clip.studentId);
  const isFound = useBench(({ job }) => job?.state === 'done');
  const bands = useBench((state) => state.bands);
  if (Object.keys(worn).length === 0 && !bands) return null;
  const isOther = bands !== null && !isReadBy(worn, bands);
  return (
    <section aria-label="Bands" className="space-y-2">
      <h2 className="font-serif text-xl">Bands</h2>
      {bands ? (
        Object.entries(bands.bands).map(([name, one]) => (
          <p key={name} data-band={name}>
            <strong>{NAMES[name as BandName]}:</strong> {toldBy(one)}
          </p>
        ))
      ) : (
        <p className="text-soft">
          {isFound
            ? 'They have not been read in this film.'
            : 'They are read as soon as the body has been found.'}
        </p>
      )}
      {isOther && <p>They were changed after they had been read.</p>}
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
        {isFound && (
          <Button onClick={() => void changeJob(clipId, { kind: 'bands' }).catch(said)}>
            {bands ? 'Read them anew' : 'Read them'}
          </Button>
        )}
        <Link href={`/students/${studentId}/bands`} className="underline underline-offset-4">
          Girths and sheets
        </Link>
      </div>
    </section>
  );
}

/** "read in 180 of 240 frames; in 60: an arm lies over the band." */
function toldBy({ turn, silent }: KeptBand): string {
  const read = turn?.frames.length ?? 0;
  const all = read + silent.reduce((sum, { frames }) => sum + frames, 0);
  const [first] = silent;
  if (read === 0) return first ? `not read: ${first.why}.` : 'not read.';
  if (!first) return `read in all ${all} frames.`;
  return `read in ${read} of ${all} frames; in ${first.frames}: ${first.why}.`;
}

function isReadBy(worn: Worn, { bands, seam, kind }: KeptBands): boolean {
  const names = Object.keys(NAMES) as BandName[];
  return names.every((name) => {
    const now = worn[name];
    const isAlike = !now || (now.seam === seam && (now.code === null) === (kind === 'tape'));
    return now?.girth === bands[name]?.girth && isAlike;
  });
}
