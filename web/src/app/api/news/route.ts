import { ownPagesOnly } from '@/app/api/answers';
import { onNews } from '@/data/news/news';

export const dynamic = 'force-dynamic';

/** Milliseconds after which something is said, so that nobody takes the line for dead. */
const PULSE = 25_000;

/** What is new as it happens, as server-sent events. Source: HTML Living Standard, section 9.2. */
export const GET = ownPagesOnly(async (request) => {
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => controller.enqueue(encoder.encode(text));
      const stop = onNews(
        (news) => say(`data: ${JSON.stringify(news)}\n\n`),
        () => {
          end();
          controller.close();
        },
      );
      const pulse = setInterval(() => say(': still here\n\n'), PULSE);
      end = () => {
        stop();
        clearInterval(pulse);
        request.signal.removeEventListener('abort', end);
      };
      request.signal.addEventListener('abort', end);
      say(': here\n\n');
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    },
  });
});
