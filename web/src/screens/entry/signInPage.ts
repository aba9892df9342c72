/** Where somebody says who they are. */
import { answerLine, escaped, plainPage } from '@/ui/plainPage';

export interface SignInShown {
  /** Where they wanted to go. */
  readonly to: string;
  readonly name: string;
  /** What was wrong with the last try, or null. */
  readonly message: string | null;
  /** On a paired phone the sign-in may be remembered. */
  readonly isPaired: boolean;
}

export const signInPage = ({ to, name, message, isPaired }: SignInShown): string =>
  plainPage(
    'Who is it?',
    `${answerLine(message)}
<form method="post" action="/sign-in">
<input type="hidden" name="to" value="${escaped(to)}">
<label>Name
<input name="name" value="${escaped(name)}" autocomplete="username" autocapitalize="words" maxlength="60" required${name ? '' : ' autofocus'}></label>
<label>Passcode
<input name="passcode" type="password" autocomplete="current-password" maxlength="200" required${name ? ' autofocus' : ''}></label>
${
  isPaired
    ? '<label class="tick"><input type="checkbox" name="remember" value="yes"> Remember me on this phone for thirty days</label>'
    : ''
}
<button class="main large">Sign in</button>
</form>
<p>You have forgotten it? The gym’s owner gives you a new one under <em>Who comes in</em>. The owner’s own is set anew on the machine itself, with <code>npm run owner</code>.</p>`,
  );
