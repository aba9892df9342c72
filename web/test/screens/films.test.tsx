// @vitest-environment happy-dom
/** Finding films: words looked for as they are typed, and those that come with an address. */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { FilmsFound } from '@/data/clip/findFilms';
import { FilmsScreen } from '@/screens/films/FilmsScreen';

const replace = vi.fn();
vi.mock('next/navigation', () => ({
  useRouter: () => ({ replace, push: vi.fn() }),
  usePathname: () => '/films',
}));

beforeEach(() => {
  vi.useFakeTimers();
  replace.mockClear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
const NONE: FilmsFound = { films: [], total: 0, tags: ['bag'] };
const page = (words: string, found = NONE) => (
  <FilmsScreen asked={{ words, technique: null, order: 'newest' }} pages={1} {...found} />
);
const box = () => screen.getByRole<HTMLInputElement>('searchbox');
const type = (value: string) => fireEvent.change(box(), { target: { value } });
const wait = () => act(() => vi.advanceTimersByTime(300));

it('looks once the typing pauses, and does not take back what is typed meanwhile', () => {
  const { rerender } = render(page(''));
  type('kn');
  type('knee');
  expect(replace).not.toHaveBeenCalled();
  wait();
  expect(replace.mock.calls).toEqual([['/films?words=knee', { scroll: false }]]);
  type('knee s');
  rerender(page('knee'));
  expect(box().value).toBe('knee s');
  wait();
  expect(replace).toHaveBeenLastCalledWith('/films?words=knee+s', { scroll: false });
});

it('takes the words of an address gone to from elsewhere, and stays there', () => {
  const { rerender } = render(page('knee'));
  rerender(page('hook'));
  expect(box().value).toBe('hook');
  wait();
  expect(replace).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole('button', { name: '#bag' }));
  expect(box().value).toBe('#bag');
  expect(replace).toHaveBeenLastCalledWith('/films?words=%23bag', { scroll: false });
});

it('says so where no film is, and where none is found', () => {
  const { rerender } = render(page(''));
  expect(screen.getByRole('heading').textContent).toBe('No film yet.');
  rerender(page('zebra'));
  expect(screen.getByRole('heading').textContent).toBe('No film of which that is said.');
});
