// @vitest-environment happy-dom
/** A coach's words on a strike: kept as they are typed, undone as one. */
import { act, cleanup, screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { NotesHere } from '@/screens/bench/panel/film/NotesHere';
import { benchWith, documentIn, onBench } from './kit';

afterEach(cleanup);
const field = (name: string) => screen.getByLabelText<HTMLTextAreaElement>(name);

it('are in the document at each letter, blanks between them too, and go with one undo', async () => {
  const { user, store } = onBench(benchWith(), () => <NotesHere />);
  await user.type(field('Note on this strike'), 'left knee ');
  expect(field('Note on this strike').value).toBe('left knee ');
  expect(documentIn(store).strikes[0]!.note).toBe('left knee');
  await user.type(field('Note on this strike'), 'sore #bag');
  expect(documentIn(store).strikes[0]!.note).toBe('left knee sore #bag');
  await user.type(field('Note on the film'), 'Tuesday');
  expect(documentIn(store).note).toBe('Tuesday');
  act(() => store.getState().undo());
  expect(documentIn(store)).not.toHaveProperty('note');
  expect(field('Note on the film').value).toBe('');
  act(() => store.getState().undo());
  expect(documentIn(store).strikes[0]).not.toHaveProperty('note');
  expect(field('Note on this strike').value).toBe('');
});
