/** The part of a file an HTTP `Range` header asks for, or what is wrong with the header. */
export type ByteRange =
  | { readonly kind: 'whole' }
  | { readonly kind: 'part'; readonly from: number; readonly to: number }
  | { readonly kind: 'unsatisfiable' };

/**
 * Source: RFC 9110, section 14. One range only; a list of ranges is answered with the whole file,
 * as the standard allows.
 *
 * @param size bytes of the file
 */
export function byteRange(header: string | null, size: number): ByteRange {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header?.trim() ?? '');
  if (!match || (match[1] === '' && match[2] === '')) return { kind: 'whole' };
  const [first, last] = [match[1]!, match[2]!];
  const from = first === '' ? Math.max(0, size - Number(last)) : Number(first);
  const to = first === '' || last === '' ? size - 1 : Math.min(Number(last), size - 1);
  if (from >= size || (first === '' && Number(last) === 0)) return { kind: 'unsatisfiable' };
  if (to < from) return { kind: 'whole' };
  return { kind: 'part', from, to };
}
