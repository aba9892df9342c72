'use client';

/**
 * News of the gym in every tab. A browser has six connections to a server, so one tab listens and tells the
 * others; when it is closed the next one does.
 */
import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent } from 'react';
import { newsSchema, type News } from '@/api/news';
import { tell } from '@/tracking/requests';

const CHANNEL = 'sinew-news';

/** In the layout, once a page. */
export function NewsLine() {
  useEffect(() => {
    const closing = new AbortController();
    navigator.locks
      .request(CHANNEL, { signal: closing.signal }, () => listen(closing.signal))
      .catch(() => undefined);
    return () => closing.abort();
  }, []);
  return null;
}

/** Until the page is closed. The browser connects again by itself when the line breaks. */
function listen(signal: AbortSignal): Promise<void> {
  const channel = new BroadcastChannel(CHANNEL);
  const source = new EventSource('/api/news');
  source.onmessage = ({ data }) => {
    const news = newsSchema.safeParse(JSON.parse(String(data)));
    if (!news.success) return;
    // To every part of every tab, of this one too.
    channel.postMessage(news.data);
    // Wakes whoever looks for bodies.
    if (news.data.kind === 'clip') tell(news.data.clipId);
  };
  return new Promise((resolve) => {
    signal.addEventListener('abort', () => {
      source.close();
      channel.close();
      resolve();
    });
  });
}

/** @param onNews called as it happens, while the part of the page is shown */
export function useNews(onNews: (news: News) => void): void {
  const told = useEffectEvent(onNews);
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    channel.onmessage = ({ data }: MessageEvent<News>) => told(data);
    return () => channel.close();
  }, []);
}

/** A page that shows clips looks again when one has come. */
export function LookAgainOnNews({ studentId }: { studentId?: string }) {
  const router = useRouter();
  useNews((news) => {
    if (news.kind !== 'clip') return;
    if (studentId === undefined || studentId === news.studentId) router.refresh();
  });
  return null;
}
