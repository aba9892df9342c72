import { Button } from './button';

/** How far a longer piece of work has come, how long it still takes, and a way out. */
export function ProgressBar({
  label,
  progress: { share, left },
  onCancel,
}: {
  label: string;
  /** Share 0 to 1; seconds left, where they are known. */
  progress: { readonly share: number; readonly left: number | null };
  onCancel?: () => void;
}) {
  const percent = Math.round(share * 100);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <progress
        max={100}
        value={percent}
        aria-label={label}
        className="h-2 w-56 appearance-none border border-ink [&::-webkit-progress-bar]:bg-paper [&::-webkit-progress-value]:bg-ink"
      />
      <span>
        {percent} %{left !== null && share < 1 && `, ${timeLeft(left)} left`}
      </span>
      {onCancel && <Button onClick={onCancel}>Cancel</Button>}
    </div>
  );
}

function timeLeft(seconds: number): string {
  return seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`;
}
