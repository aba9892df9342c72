/** As what a film may be sent to a browser. */

const SERVED = ['video/mp4', 'video/quicktime', 'video/webm', 'video/x-matroska'];

/** The type of a film without its parameters; anything else than a film is only bytes. */
export function servedType(mimeType: string): string {
  const type = mimeType.split(';')[0]!.trim().toLowerCase();
  return SERVED.includes(type) ? type : 'application/octet-stream';
}
