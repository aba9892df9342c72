'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { wordsOf } from '@/api/client';
import { Button } from '@/ui/button';
import { commandsNow, useCommands } from '@/ui/commands/registry';
import { Dialog } from '@/ui/dialog';
import { BlobPlayer } from '@/ui/blobPlayer';
import { inMinutes } from '@/ui/inMinutes';
import { sizeInWords } from '@/ui/sizeInWords';
import { LONGEST_TALK, talkOver, type Scene, type Talking } from '@/video/review/talk';
import { strikeOf, useBenchStore } from '../document/benchStore';
import { keepElsewhere, keepTalk, sayKept, type About, type Said } from './keepTalk';

type State =
  | { readonly kind: 'quiet' }
  | { readonly kind: 'asking' }
  | { readonly kind: 'talking'; readonly seconds: number }
  | {
      readonly kind: 'said';
      readonly film: Blob;
      readonly seconds: number;
      /** Something was said before, and whether it may give way is asked. */
      readonly rival?: string;
    };

/** The coach talks over the strike, goes through it, draws: all of it becomes one film, kept with the strike. */
export function TalkOver() {
  const { state, start, stop, throwAway, keep } = useTalk();
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
        className="fixed inset-x-2 top-2 z-30 mx-auto flex w-fit flex-wrap items-center gap-4 border-2 border-now bg-paper px-4 py-1.5"
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
      {state.rival && (
        <p role="alert" className="mt-2 border-l-4 border-now pl-3">
          {state.rival}
        </p>
      )}
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <Button weight="main" onClick={() => void keep(state)}>
          {state.rival ? 'Put it in its place' : 'Keep it'}
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
      hint="Shift T"
      onClick={() =>
        commandsNow()
          .find(({ id }) => id === 'talk')
          ?.run(null)
      }
    >
      Talk
    </Button>
  );
}

function useTalk() {
  const store = useBenchStore();
  const router = useRouter();
  const [state, setState] = useState<State>({ kind: 'quiet' });
  const talking = useRef<Talking | null>(null);
  const about = useRef<About | null>(null);
  const said = useRef<Said | null>(null);
  const isGone = useRef(false);
  useEffect(() => {
    isGone.current = false;
    return () => {
      isGone.current = true;
      const running = talking.current;
      talking.current = null;
      const last = running ? running.stop() : Promise.resolve(said.current);
      last.then(
        (one) => one && keepElsewhere(about.current!, one),
        (error: unknown) => toast(wordsOf(error)),
      );
    };
  }, []);
  useEffect(() => {
    said.current = state.kind === 'said' ? state : null;
  }, [state]);
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
      const film = await running.stop();
      setState(film ? { kind: 'said', ...film } : { kind: 'quiet' });
    } catch (error) {
      setState({ kind: 'quiet' });
      toast(wordsOf(error));
    }
  };
  const start = async () => {
    if (state.kind !== 'quiet') return;
    const { clip, shownFrame } = store.getState();
    const strike = strikeOf(store.getState());
    const scene = sceneOnPage();
    if (!strike || !scene || shownFrame === null) {
      toast('There is no strike to talk over yet.');
      return;
    }
    about.current = {
      clipId: clip.id,
      strikeId: strike.id,
      technique: strike.technique,
      flush: () => store.getState().flush(),
      toCard: () => router.push(`/students/${clip.studentId}/card`),
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
  const keep = async ({ film, seconds, rival }: Extract<State, { kind: 'said' }>) => {
    const one = { film, seconds };
    // While it is on its way, whoever leaves the bench need not keep it again.
    said.current = null;
    try {
      const other = await keepTalk(about.current!, one, rival !== undefined);
      if (other !== null && isGone.current) return await keepElsewhere(about.current!, one);
      setState(other === null ? { kind: 'quiet' } : { kind: 'said', film, seconds, rival: other });
      if (other === null) sayKept(about.current!);
    } catch (error) {
      if (isGone.current) return await keepElsewhere(about.current!, one);
      said.current = one;
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
