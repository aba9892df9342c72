'use client';

import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { LANDMARKS, landmarkName, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { likelyNaming, type Naming } from '@sinew/core/format/naming';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { SelectField, TextField } from '@/ui/field';
import { tell } from '@/tracking/requests';
import { useBench, useBenchStore } from '../../document/benchStore';
import {
  openSeries,
  sendSeries,
  dropSeries,
  trackOf,
  TOWARD,
  UP,
  type OpenedSeries,
  type Orientation,
} from '../../document/seriesFile';

/** Points that another program or a motion laboratory has found, brought to this film. */
export function ImportSeries() {
  const store = useBenchStore();
  const clipId = useBench((state) => state.clip.id);
  const series = useBench((state) => state.series);
  const chooser = useRef<HTMLInputElement>(null);
  const [opened, setOpened] = useState<OpenedSeries | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const open = async (file: File | undefined) => {
    if (!file) return;
    const result = await openSeries(file);
    setProblem('problem' in result ? result.problem : null);
    if (!('problem' in result)) setOpened(result);
  };
  return (
    <section aria-label="Points from elsewhere" className="space-y-2">
      <h2 className="font-serif text-xl">Points from elsewhere</h2>
      {series ? (
        <p>
          Measured in space: {series.fileName}.{' '}
          <Button
            weight="quiet"
            className="!min-h-6"
            onClick={() => void dropSeries(clipId).then(() => store.getState().imported(null))}
          >
            Take it away
          </Button>
        </p>
      ) : (
        <p className="text-soft">A file of landmarks over time: TRC, CSV or Sinew’s own JSON.</p>
      )}
      <Button onClick={() => chooser.current?.click()}>Bring in a file</Button>
      <input
        ref={chooser}
        type="file"
        accept=".trc,.csv,.json,text/csv,application/json"
        aria-label="Landmark file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          void open(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {problem && (
        <p role="alert" className="border-l-4 border-now pl-3">
          {problem} Nothing was kept.
        </p>
      )}
      {opened && <Mapping opened={opened} onDone={() => setOpened(null)} />}
    </section>
  );
}

function Mapping({ opened, onDone }: { opened: OpenedSeries; onDone: () => void }) {
  const store = useBenchStore();
  const clipId = useBench((state) => state.clip.id);
  const [naming, setNaming] = useState<Naming>(() => likelyNaming(opened.names));
  const [begins, setBegins] = useState('0');
  const [axes, setAxes] = useState<Orientation>({ up: 'y', toward: 'x' });
  const [problem, setProblem] = useState<string | null>(null);
  const start = Number(begins.replace(',', '.'));
  const mean = (name: string, landmark: Landmark | '') => {
    const { [name]: _, ...others } = naming;
    setNaming(landmark === '' ? others : { ...others, [name]: landmark });
  };
  const bring = async () => {
    const track = trackOf(opened, naming, axes);
    if ('problem' in track) return setProblem(track.problem);
    const kept = await sendSeries(clipId, opened.fileName, start, track.json);
    if ('problem' in kept) return setProblem(kept.problem);
    store.getState().imported(kept.series);
    tell(clipId);
    toast(`${opened.fileName} is laid over this film.`);
    onDone();
  };
  // Sinew's own files have its own names and axes.
  const isOurs = opened.kind === 'json';
  const isUpToward = axes.up === axes.toward.slice(-1);
  return (
    <Dialog isOpen onClose={onDone} title={`Which point is which in ${opened.fileName}?`}>
      <p className="mb-3 text-soft">
        {opened.names.length} names, {opened.isSpace ? 'metres in space' : 'pixels of the picture'}.
        {isOurs ? 'The file has Sinew’s own names.' : 'What is left open is left out.'}
      </p>
      {isOurs ? null : (
        <div className="max-h-72 overflow-auto border-y border-rule">
          <table className="w-full">
            <tbody>
              {opened.names.map((name) => (
                <tr key={name} className="border-b border-rule">
                  <th scope="row" className="py-1 text-left font-normal">
                    {name}
                  </th>
                  <td className="py-1 text-right">
                    <select
                      aria-label={`${name} is`}
                      value={naming[name] ?? ''}
                      onChange={(event) => mean(name, event.target.value as Landmark | '')}
                      className="h-8 border border-soft bg-field px-2"
                    >
                      <option value="">left out</option>
                      {LANDMARKS.map((landmark) => (
                        <option key={landmark} value={landmark}>
                          {landmarkName(landmark)}
                        </option>
                      ))}
                    </select>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div className="mt-4 flex flex-wrap gap-4">
        <div className="w-48">
          <TextField
            label="It begins at, seconds of the film"
            inputMode="decimal"
            value={begins}
            onChange={(event) => setBegins(event.target.value)}
            error={Number.isFinite(start) ? undefined : 'A number of seconds.'}
          />
        </div>
        {opened.isSpace && !isOurs && (
          <>
            <div className="w-32">
              <SelectField
                label="Up is"
                value={axes.up}
                onChange={(event) =>
                  setAxes({ ...axes, up: event.target.value as Orientation['up'] })
                }
              >
                {UP.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </SelectField>
            </div>
            <div className="w-40">
              <SelectField
                label="To the target is"
                value={axes.toward}
                onChange={(event) =>
                  setAxes({ ...axes, toward: event.target.value as Orientation['toward'] })
                }
              >
                {TOWARD.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </SelectField>
            </div>
          </>
        )}
      </div>
      {isUpToward && <p className="mt-2 text-now">The target cannot be straight up.</p>}
      {problem && (
        <p role="alert" className="mt-3 border-l-4 border-now pl-3">
          {problem}
        </p>
      )}
      <div className="mt-5 flex gap-4">
        <Button
          weight="main"
          disabled={!Number.isFinite(start) || (opened.isSpace && isUpToward)}
          onClick={() => void bring()}
        >
          Bring them in
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </Dialog>
  );
}
