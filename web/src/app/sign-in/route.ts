import { refuseForeign } from '@/app/api/answers';
import { asPage, comeIn, deviceOf, toldOf, within } from '@/app/api/entry';
import { accessDb } from '@/data/access/accessDb';
import { cookieOf } from '@/data/access/cookies';
import { signIn, whoseToken } from '@/data/access/signIns';
import { addressOf } from '@/data/door/byDoor';
import { signInPage, type SignInShown } from '@/screens/entry/signInPage';

export const dynamic = 'force-dynamic';

async function isPaired(request: Request): Promise<boolean> {
  const token = cookieOf(request.headers, 'phone');
  return token !== null && (await whoseToken(await accessDb(), token, 'phone')) !== null;
}

async function page(request: Request, shown: Omit<SignInShown, 'isPaired'>, status?: number) {
  return asPage(signInPage({ ...shown, isPaired: await isPaired(request) }), status);
}

/** Who is it? */
export const GET = (request: Request): Promise<Response> =>
  page(request, {
    to: within(new URL(request.url).searchParams.get('to')),
    name: '',
    message: null,
  });

/** Name and passcode. */
export async function POST(request: Request): Promise<Response> {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const form = await request.formData().catch(() => new FormData());
  const text = (name: string) => String(form.get(name) ?? '').slice(0, 300);
  const to = within(text('to'));
  const name = text('name');
  try {
    const isRemembered = text('remember') === 'yes' && (await isPaired(request));
    const begun = await signIn(
      await accessDb(),
      { name, passcode: text('passcode') },
      addressOf(request.headers),
      deviceOf(request.headers),
      isRemembered,
    );
    return comeIn(request, to, 'passcode', begun);
  } catch (error) {
    const { status, message } = toldOf(error);
    return page(request, { to, name, message }, status);
  }
}
