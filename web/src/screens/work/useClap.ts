'use client';

import { useEffect, useEffectEvent, useState } from 'react';
import { listenTo } from '@/video/sound';

/** Two claps nearer than this are one. */
const APART = 250;

/** Counts by ear: while on, the microphone listens and every clap is told. Nothing is recorded. */
export function useClap(isOn: boolean, onClap: () => void): string | null {
  const [problem, setProblem] = useState<string | null>(null);
  const clapped = useEffectEvent(onClap);
  useEffect(() => {
    if (!isOn) return;
    let isOver = false;
    let stop = () => {};
    navigator.mediaDevices
      ?.getUserMedia({ audio: { echoCancellation: false, noiseSuppression: false } })
      .then((stream) => {
        const close = () => stream.getTracks().forEach((track) => track.stop());
        if (isOver) return close();
        let last = 0;
        const deaf = listenTo(stream, ({ isClap }) => {
          const now = performance.now();
          if (isClap && now - last > APART) clapped();
          if (isClap) last = now;
        });
        stop = () => {
          deaf();
          close();
        };
      })
      .catch(() => setProblem('The microphone cannot be heard: allow it, or tap.'));
    return () => {
      isOver = true;
      stop();
      setProblem(null);
    };
  }, [isOn]);
  return problem;
}
