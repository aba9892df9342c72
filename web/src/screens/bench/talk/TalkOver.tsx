'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { askBytes, wordsOf } from '@/api/client';
import type { Cue } from '@/data/finding/findings';
import { Button, Key } from '@/ui/button';
import { commandsNow, useCommands } from '@/ui/commands/registry';
import { Dialog } from '@/ui/dialog';
import { BlobPlayer } from '@/ui/blobPlayer';
import { talkFilm } from '@/api/talkFilm';
import { inMinutes } from '@/ui/inMinutes';
import { sizeInWords } from '@/ui/sizeInWords';
import { LONGEST_TALK, talkOver, type Scene, type Talking } from '@/video/review/talk';
import { strikeOf, useBenchStore } from '../document/benchStore';

type State =
  | { readonly kind: 'quiet' }
  | { readonly kind: 'asking' }
  | { readonly kind: 'talking'; readonly seconds: number }
  | { readonly kind: 'said'; readonly film: Blob; readonly seconds: number };

/** The strike that is talked over, as it was when it began. */
interface About {
  readonly clipId: string;
  readonly strikeId: string;
  readonly technique: string;
  readonly cue: string;
  readonly studentId: string;
  readonly studentName: string;
}

/** The coach talks over the strike, goes through it, draws: all of it becomes one film, kept with the strike. */
export function TalkOver({ cues }: { cues: readonly Cue[] }) {
  const { state, start, stop, throwAway, keep } = useTalk(cues);
  useCommands(() => [
    {
      id: 'talk',
      keys: ['Shift+t'],
      words: 'talk over the strike; again to stop',
      group: 'Picture',
      run: () => void (state.kind === 'talking' ? stop() : start()),
    },
  ]);
  if (state.kind === 'talking') {
    return (
      <div
        role="status"
        aria-label="Talking over the strike"
        className="fixed top-2 left-1/2 z-30 flex -translate-x-1/2 items-center gap-4 border-2 border-now bg-paper px-4 py-1.5"
      >
        <span aria-hidden className="size-3 bg-now" />
        <span className="font-semibold">Talk: picture and strip are filmed</span>
        <span className="tabular-nums" data-seconds>
          {inMinutes(state.seconds)}
        </span>
        <Button weight="main" hint="Shift T" onClick={() => void stop()}>
          Stop
        </Button>
        <Button weight="quiet" onClick={throwAway}>
          Throw away
        </Button>
      </div>
    );
  }
  if (state.kind !== 'said') return null;
  return (
    <Dialog isOpen isWide onClose={() => undefined} title="What you said over it">
      <BlobPlayer film={state.film} label="What you said over it" />
      <p className="mt-2 text-soft">
        {inMinutes(state.seconds)}, {sizeInWords(state.film)}. Kept, it lies with the clip on this
        machine and stands on the card; from there it is sent home, where that is allowed.
      </p>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <Button weight="main" onClick={() => void keep(state)}>
          Keep it
        </Button>
        <Button weight="quiet" onClick={throwAway}>
          Throw away
        </Button>
      </div>
    </Dialog>
  );
}

/** Where the cue stands: how to begin. */
export function TalkButton() {
  return (
    <Button
      weight="quiet"
      className="!min-h-6"
      onClick={() =>
        commandsNow()
          .find(({ id }) => id === 'talk')
          ?.run(null)
      }
    >
      Talk <Key>Shift T</Key>
    </Button>
  );
}

function useTalk(cues: readonly Cue[]) {
  const store = useBenchStore();
  const router = useRouter();
  const [state, setState] = useState<State>({ kind: 'quiet' });
  const talking = useRef<Talking | null>(null);
  const about = useRef<About | null>(null);
  const isGone = useRef(false);
  useEffect(() => {
    isGone.current = false;
    return () => {
      isGone.current = true;
      talking.current?.cancel();
    };
  }, []);
  const isAtStake = state.kind === 'talking' || state.kind === 'said';
  useEffect(() => {
    if (!isAtStake) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [isAtStake]);

  const stop = async () => {
    const running = talking.current;
    talking.current = null;
    if (!running) return;
    try {
      const said = await running.stop();
      setState(said ? { kind: 'said', ...said } : { kind: 'quiet' });
    } catch (error) {
      setState({ kind: 'quiet' });
      toast(wordsOf(error));
    }
  };
  const start = async () => {
    const { clip, ...bench } = store.getState();
    const strike = strikeOf(store.getState());
    const scene = sceneOnPage();
    if (state.kind !== 'quiet') return;
    if (!strike || !scene || bench.shownFrame === null) {
      toast('There is no strike to talk over yet.');
      return;
    }
    about.current = {
      clipId: clip.id,
      strikeId: strike.id,
      technique: strike.technique,
      cue: cues.find((one) => one.technique === strike.technique)?.text ?? '',
      studentId: clip.studentId,
      studentName: clip.studentName,
    };
    setState({ kind: 'asking' });
    let voice: MediaStream | null = null;
    try {
      voice = await navigator.mediaDevices.getUserMedia({ audio: true });
      const begun = await talkOver(scene, voice, (seconds) => {
        if (seconds >= LONGEST_TALK) void stop();
        else setState((now) => (now.kind === 'quiet' ? now : { kind: 'talking', seconds }));
      });
      // Left while the browser asked for the microphone: nobody listens any more.
      if (isGone.current) begun.cancel();
      else talking.current = begun;
    } catch (error) {
      voice?.getTracks().forEach((track) => track.stop());
      setState({ kind: 'quiet' });
      toast(
        voice
          ? wordsOf(error)
          : 'No microphone: the browser does not allow it, or there is none. Nothing was recorded; allow it beside the address, and try again.',
      );
    }
  };
  const throwAway = () => {
    talking.current?.cancel();
    talking.current = null;
    setState({ kind: 'quiet' });
  };
  const keep = async ({ film, seconds }: { film: Blob; seconds: number }) => {
    const { clipId, strikeId, studentId, technique, cue } = about.current!;
    try {
      // A strike that was just marked is there before what was said over it.
      await store.getState().flush();
      const of = new URLSearchParams({ technique, cue, seconds: seconds.toFixed(2) });
      await askBytes(`${talkFilm({ clipId, strikeId })}?${of}`, { method: 'PUT', body: film });
      setState({ kind: 'quiet' });
      toast(`Kept: what you said of this ${techniqueById(technique).name.toLowerCase()}.`, {
        action: {
          label: 'The card',
          onClick: () => router.push(`/students/${studentId}/card`),
        },
      });
    } catch (error) {
      toast(`Not kept: ${wordsOf(error)} It is still here.`);
    }
  };
  return { state, start, stop, throwAway, keep };
}

function sceneOnPage(): Scene | null {
  const moved = document.querySelector<HTMLElement>('[data-moved]');
  const film = moved?.querySelector('canvas');
  const overlay = moved?.querySelector('svg');
  const strip = document.querySelector<SVGSVGElement>('svg[data-strip]');
  const names = [...document.querySelectorAll<HTMLElement>('[data-lane-name]')];
  return moved && film && overlay && strip ? { moved, film, overlay, strip, names } : null;
}
