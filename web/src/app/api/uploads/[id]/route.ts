import { ownPagesOnly } from '@/app/api/answers';
import { uploadStep } from '@/data/clip/uploads';

/** How much of it is here. */
export const HEAD = ownPagesOnly(uploadStep, 'assistant');
/** A piece of it. */
export const PATCH = ownPagesOnly(uploadStep, 'assistant');
/** It is not to be sent after all. */
export const DELETE = ownPagesOnly(uploadStep, 'assistant');
