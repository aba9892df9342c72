import { refuseForeign } from '@/app/api/answers';
import { asPage, comeIn, deviceOf, toldOf } from '@/app/api/entry';
import { accessDb } from '@/data/access/accessDb';
import { noteDeed } from '@/data/access/deeds';
import { pair } from '@/data/access/pairings';
import { database } from '@/data/database/database';
import { addressOf } from '@/data/door/byDoor';
import { pairPage } from '@/screens/entry/pairPage';

export const dynamic = 'force-dynamic';

/** Asks before it uses the code up: messengers look at addresses ahead of people. */
export const GET = async (request: Request): Promise<Response> =>
  asPage(pairPage((new URL(request.url).searchParams.get('code') ?? '').slice(0, 20), null));

export async function POST(request: Request): Promise<Response> {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const form = await request.formData().catch(() => new FormData());
  const code = String(form.get('code') ?? '').slice(0, 40);
  const { headers } = request;
  try {
    const begun = await pair(await accessDb(), code, addressOf(headers), deviceOf(headers));
    await noteDeed(await database(), begun.asker.name, 'paired-phone', {
      detail: deviceOf(headers),
    });
    return comeIn(request, '/phone', 'phone', begun);
  } catch (error) {
    const { status, message } = toldOf(error);
    return asPage(pairPage(code, message), status);
  }
}
