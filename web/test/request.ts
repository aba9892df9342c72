/** Pages and actions of a test are asked for by somebody who sits at the machine. */
import { vi } from 'vitest';

vi.mock('next/headers', () => ({
  headers: async () => new Headers({ host: '127.0.0.1:4000' }),
  cookies: async () => ({ get: () => undefined, getAll: () => [], set: () => undefined }),
}));
