import { Button } from '@/ui/button';
import type { Progress } from '@/video/progress';
import type { SentItem } from './useSending';

/** One clip on its way, or what became of it. */
export function SentClip({
  item: { file, stage },
  onAgain,
}: {
  item: SentItem;
  onAgain: () => void;
}) {
  return (
    <li className="border-b border-rule py-3">
      <p className="font-semibold">{file.name}</p>
      {stage.kind === 'waiting' && <p className="text-soft">waits for its turn</p>}
      {stage.kind === 'sending' && <Sending progress={stage.progress} />}
      {stage.kind === 'there' && (
        <p>{stage.isKnown ? 'Was on the bench already.' : 'On the bench, whole and checked.'}</p>
      )}
      {stage.kind === 'failed' && (
        <div role="alert" className="space-y-2">
          <p className="border-l-4 border-now pl-3">{stage.why}</p>
          <Button className="min-h-12" onClick={onAgain}>
            Send it again
          </Button>
        </div>
      )}
    </li>
  );
}

function Sending({ progress: { share, left } }: { progress: Progress }) {
  const percent = Math.round(100 * share);
  return (
    <div className="flex items-center gap-3">
      <progress max={100} value={percent} aria-label="Sent" className="h-3 flex-1 accent-ink" />
      <span className="w-40 text-right text-sm text-soft">
        {percent === 100
          ? 'being checked'
          : `${percent} %${left === null ? '' : `, ${inWords(left)} left`}`}
      </span>
    </div>
  );
}

const inWords = (seconds: number) =>
  seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`;
