import { toast } from 'sonner';

/** What went wrong, told to the coach. */
export function said(error: unknown): void {
  toast(error instanceof Error ? error.message : String(error));
}
