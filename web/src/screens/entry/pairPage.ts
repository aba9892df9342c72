/** Where a phone comes in by the code that a coach shows. */
import { answerLine, escaped, plainPage } from '@/ui/plainPage';

/** @param code as it stood in the address, to be sent on by a press: whoever looks ahead uses nothing up */
export const pairPage = (code: string, message: string | null): string =>
  plainPage(
    'Pair this phone.',
    `${answerLine(message)}
<p>It will film for this gym and send its clips to the bench, in the name of the coach who showed you the code. It sees no leaks, no notes and no injuries. It can be unpaired at any time.</p>
<form method="post" action="/pair">
<label>Code
<input class="code" name="code" value="${escaped(code)}" autocomplete="off" autocapitalize="characters" spellcheck="false" maxlength="20" required></label>
<button class="main large">Pair this phone</button>
</form>`,
  );
