'use client';

import { useSyncExternalStore } from 'react';
import { LIGHT_COOKIE } from './light';

function subscribe(changed: () => void): () => void {
  const observer = new MutationObserver(changed);
  observer.observe(document.documentElement, { attributeFilter: ['data-light'] });
  return () => observer.disconnect();
}

/** Paper by day, dim for an evening's review; kept in this browser. */
export function LightSwitch() {
  const isDim = useSyncExternalStore(
    subscribe,
    () => document.documentElement.dataset.light === 'dim',
    () => false,
  );
  const change = () => {
    const light = isDim ? 'day' : 'dim';
    document.documentElement.dataset.light = light;
    document.cookie = `${LIGHT_COOKIE}=${light}; path=/; max-age=31536000; samesite=strict`;
  };
  return (
    <button
      type="button"
      role="switch"
      aria-checked={isDim}
      aria-label="Dim screen"
      title={isDim ? 'Bright again' : 'Dim the screen'}
      onClick={change}
      className="p-1 text-soft hover:text-ink"
    >
      <svg width={16} height={16} viewBox="0 0 16 16" aria-hidden>
        <circle cx={8} cy={8} r={6.5} fill="none" stroke="currentColor" strokeWidth={1.5} />
        <path d="M8 1.5a6.5 6.5 0 0 1 0 13z" fill="currentColor" />
      </svg>
    </button>
  );
}
