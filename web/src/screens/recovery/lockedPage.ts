/** What a browser sees that was never opened by the address with the key in it. No script, no data. */
import { plainPage } from '@/ui/plainPage';

export const lockedPage = (): string =>
  plainPage(
    'This gym is locked.',
    `<p>Other people may use this machine, so Sinew opens only by the address that its terminal shows, with <code>?key=</code> in it. Open that address once; this browser remembers it.</p>
<p>The terminal is the window in which <code>npm start</code> runs. The key stands in the file <code>key</code> of the data folder too, which only its owner can read.</p>
<p class="ways"><a class="main" href="/">Look again</a></p>`,
  );
