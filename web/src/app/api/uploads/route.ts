import { ownPagesOnly } from '@/app/api/answers';
import { uploadStep } from '@/data/clip/uploads';

/** A film is announced; the answer says where its pieces go. */
export const POST = ownPagesOnly(uploadStep, 'assistant');
/** What this server can do of the protocol. */
export const OPTIONS = ownPagesOnly(uploadStep, 'assistant');
