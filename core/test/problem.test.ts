import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { firstWrong, Problem, problemOut, problemSchema } from '../src/foundation/problem/problem';

describe('a problem', () => {
  it('says what happened, what is safe and what to do, in one line too', () => {
    const problem = new Problem('conflict', {
      happened: 'This was changed in another tab.',
      safe: 'What is on disk is the other tab’s.',
      todo: 'Reload.',
    });
    expect(problem.message).toBe(
      'This was changed in another tab. What is on disk is the other tab’s. Reload.',
    );
    expect(problemSchema.parse(problemOut(problem))).toMatchObject({ code: 'conflict' });
  });
});

describe('what a validator finds wrong', () => {
  const schema = z.object({
    name: z.string().trim().min(1).max(5),
    height: z.number().min(0.8).max(2.5),
    stance: z.enum(['orthodox', 'southpaw']),
    born: z.string().refine(() => false, 'A birth date lies in the past.'),
  });
  const good = { name: 'a', height: 1.7, stance: 'orthodox', born: '' };
  const said = (change: object, names = { name: 'The name', height: 'The height' }) => {
    const result = schema.safeParse({ ...good, ...change });
    return firstWrong(result.error!, names);
  };

  it.each([
    [{ name: 'too long a name' }, 'The name is too long: 5 letters at most.'],
    [{ name: '  ' }, 'The name is missing.'],
    [{ height: 9 }, 'The height is too large: 2.5 at most.'],
    [{ height: 0.1 }, 'The height is too small: 0.8 at least.'],
    [{ height: 'tall' }, 'The height is missing, or of another kind.'],
    [{ stance: 'square' }, '“stance” is none of the choices.'],
    [{}, 'A birth date lies in the past.'],
  ])('of %j is said in a coach’s words', (change, sentence) => {
    expect(said(change)).toBe(sentence);
  });

  it('never shows a validator’s own message', () => {
    for (const change of [{ name: 5 }, { height: null }, { stance: 1 }, { born: 2 }]) {
      expect(said(change, {} as never)).not.toMatch(/expected|invalid|<=|>=/i);
    }
  });
});
