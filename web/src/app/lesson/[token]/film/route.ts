import { servedMedia } from '../shown';

export const dynamic = 'force-dynamic';
export const GET = servedMedia('film', 'video/mp4');
