import { ownPagesOnly, there } from '@/app/api/answers';
import { ask } from '@/data/threads/ask';

interface Context {
  params: Promise<{ id: string }>;
}

/** A student's ledger as JSON, or its readings as CSV. */
export const GET = ownPagesOnly(async (request, { params }: Context) => {
  const { id } = await params;
  const isCsv = new URL(request.url).searchParams.get('as') === 'csv';
  const { student, text } = there(await ask('ledgerText', id, isCsv ? 'csv' : 'json'), {
    happened: 'This student is not in the list any more.',
  });
  const name = `ledger-${student.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}`;
  const plain = name.normalize('NFKD').replace(/[^\x20-\x7e]/g, '');
  return new Response(text, {
    headers: {
      'content-type': isCsv ? 'text/csv; charset=utf-8' : 'application/json',
      'content-disposition': `attachment; filename="${plain}.${isCsv ? 'csv' : 'json'}"`,
    },
  });
});
