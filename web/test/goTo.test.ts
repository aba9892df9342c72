/** Going to a student or a screen by a few letters. */
import { describe, expect, it } from 'vitest';
import { entriesFor, filmsOf, meant } from '@/ui/goTo/entries';

const students = [
  { id: 'a', name: 'Maren Voss', classGroup: 'Tuesday' },
  { id: 'b', name: 'Márton Ilves', classGroup: 'Juniors' },
  { id: 'c', name: 'Ilse Kaar', classGroup: 'Juniors' },
];
const entries = entriesFor(students);
const typed = (text: string) => meant(entries, text).map(({ label }) => label);

it('whatever is typed is also looked for among films', () => {
  expect(filmsOf('left knee #bag')).toMatchObject([
    { label: 'Films: “left knee #bag”', href: '/films?words=left%20knee%20%23bag' },
  ]);
  expect(filmsOf(' ')).toEqual([]);
});

describe('what is typed', () => {
  it('finds a student by the beginning of a name, and a page of hers by one letter more', () => {
    expect(typed('mare')[0]).toBe('Maren Voss, films');
    expect(typed('voss w')).toEqual(['Maren Voss, work']);
    expect(meant(entries, 'maren led')[0]!.href).toBe('/students/a/ledger');
    expect(meant(entries, 'kaar film now')[0]!.href).toBe('/capture?student=c');
  });

  it('does not ask for accents or capitals', () => {
    expect(typed('marton t')).toEqual(['Márton Ilves, tests']);
    expect(typed('MÁRTON T')).toEqual(['Márton Ilves, tests']);
  });

  it('offers those whose name begins so before those that only have the word', () => {
    const found = typed('il');
    expect(found[0]).toMatch(/^Ilse/);
    expect(found.some((label) => label.startsWith('Márton'))).toBe(true);
  });

  it('finds a class, and a screen by what it is for', () => {
    expect(typed('juniors card')).toEqual(['Márton Ilves, card', 'Ilse Kaar, card']);
    expect(typed('backup')).toEqual(['Gym']);
  });

  it('offers the screens when nothing is typed, and nothing for nonsense', () => {
    expect(typed('')[0]).toBe('Floor');
    expect(typed('…')[0]).toBe('Floor');
    expect(typed('zzz')).toEqual([]);
  });

  it('never offers more than can be taken in', () => {
    const many = entriesFor(
      Array.from({ length: 200 }, (_, i) => ({
        id: `${i}`,
        name: `Student ${i}`,
        classGroup: '',
      })),
    );
    expect(meant(many, 'student')).toHaveLength(9);
  });
});
