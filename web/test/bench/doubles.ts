/** What stands in for the server and the worker of the bench. It must import none of the bench's parts. */
import { vi } from 'vitest';
import { costedFindings } from '@sinew/core/analysis/analyze';
import { fit } from '@sinew/core/judge/simulate/fit';
import { observe } from '@sinew/core/judge/simulate/observe';
import { simulateStrike } from '@sinew/core/judge/simulate/strike';
import { changed, worthOfLinks } from '@sinew/core/judge/simulate/whatIf';

/** In place of `panel/what-if/chainModel`: the model in this thread. */
export const chainModelHere = () => ({
  chainModel: () => ({
    costedFindings: async (...asked: Parameters<typeof costedFindings>) => costedFindings(...asked),
    observe: async (...asked: Parameters<typeof observe>) => observe(...asked),
    fit: async (...asked: Parameters<typeof fit>) => fit(...asked),
    worthOfLinks: async (...asked: Parameters<typeof worthOfLinks>) => worthOfLinks(...asked),
    whatIf: async (...asked: Parameters<typeof changed>) => simulateStrike(changed(...asked)),
  }),
});

/** In place of `document/actions`: a server that keeps everything. */
export const actionsThatKeep = () => ({
  accept: vi.fn(async () => ({ kind: 'accepted' })),
  dismiss: vi.fn(async () => true),
  notNow: vi.fn(async () => true),
  reopen: vi.fn(async () => undefined),
  rewordCue: vi.fn(async () => null),
  keepSetup: vi.fn(async () => null),
  forgetSetup: vi.fn(async () => undefined),
});

/** In place of `sonner`: what was said in passing. */
export const toasts = () => ({ toast: vi.fn() });
