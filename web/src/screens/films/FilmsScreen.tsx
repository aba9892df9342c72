'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import type { FilmOrder, FilmsAsked, FilmsFound, FoundFilm } from '@/data/clip/findFilms';
import { pastTime } from '@/data/database/today';
import { useCommands } from '@/ui/commands/registry';
import { SelectField } from '@/ui/field';
import { MainBar } from '@/ui/mainBar';
import { filmOf, Thumb } from '@/ui/thumb';

type Asked = Omit<FilmsAsked, 'most'>;

const ORDER_WORDS: Record<FilmOrder, string> = {
  newest: 'newest first',
  oldest: 'oldest first',
  student: 'by student',
};

/** A pause in the typing, ms. */
const PAUSE = 250;

function addressOf({ words, technique, order }: Asked, pages = 1): string {
  const asked = new URLSearchParams({
    ...(words && { words }),
    ...(technique && { technique }),
    ...(order !== 'newest' && { order }),
    ...(pages > 1 && { pages: String(pages) }),
  });
  return asked.size > 0 ? `/films?${asked}` : '/films';
}

/** The films of the whole gym, found by anything that is said of them. */
export function FilmsScreen({
  asked,
  pages,
  films,
  total,
  tags,
}: FilmsFound & { asked: Asked; pages: number }) {
  const router = useRouter();
  const [words, setWords] = useState(asked.words);
  /** The words that were last looked for from here, and those the page was last made for. */
  const [sent, setSent] = useState(asked.words);
  const [made, setMade] = useState(asked.words);
  if (made !== asked.words) {
    setMade(asked.words);
    // Gone to from elsewhere: by Back, or by Go to.
    if (asked.words !== sent) {
      setSent(asked.words);
      setWords(asked.words);
    }
  }
  const box = useRef<HTMLInputElement>(null);
  const look = (change: Partial<Asked>) => {
    const wanted = { ...asked, words, ...change };
    setSent(wanted.words);
    router.replace(addressOf(wanted), { scroll: false });
  };
  const lookForTyped = useEffectEvent(() => look({ words }));
  useEffect(() => {
    if (words === sent) return;
    const timer = setTimeout(() => lookForTyped(), PAUSE);
    return () => clearTimeout(timer);
  }, [words, sent]);
  useCommands(() => [
    {
      id: 'find',
      keys: ['/'],
      words: 'find films by what is said of them',
      group: 'Films',
      run: () => box.current?.focus(),
    },
  ]);
  const choose = (tag: string) => {
    setWords(`#${tag}`);
    look({ words: `#${tag}` });
  };
  return (
    <>
      <MainBar here="Films" />
      <main className="mx-auto max-w-[1280px] px-4 pt-7 pb-16 sm:px-8">
        <h1 className="font-serif text-[2.6rem] leading-none">{headline(total, asked)}</h1>
        <div className="mt-5 grid gap-4 sm:grid-cols-[minmax(0,1fr)_14rem_12rem]">
          <label>
            <span className="mb-1 block text-sm font-semibold">What is said of it</span>
            <input
              ref={box}
              type="search"
              value={words}
              maxLength={200}
              placeholder="Voss cross side, left knee, #sparring"
              onChange={(event) => setWords(event.target.value)}
              className="h-10 w-full border border-soft bg-field px-3 text-base placeholder:text-soft/70"
            />
          </label>
          <SelectField
            label="Strike"
            value={asked.technique ?? ''}
            onChange={(event) => look({ technique: event.target.value || null })}
          >
            <option value="">any</option>
            {TECHNIQUES.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
          <SelectField
            label="Order"
            value={asked.order}
            onChange={(event) => look({ order: event.target.value as FilmOrder })}
          >
            {Object.entries(ORDER_WORDS).map(([order, name]) => (
              <option key={order} value={order}>
                {name}
              </option>
            ))}
          </SelectField>
        </div>
        {tags.length > 0 && (
          <p className="mt-3 flex flex-wrap gap-x-4 gap-y-1" aria-label="Tags">
            {tags.map((tag) => (
              <button
                key={tag}
                type="button"
                onClick={() => choose(tag)}
                className="min-h-7 underline decoration-rule underline-offset-4 hover:decoration-ink"
              >
                #{tag}
              </button>
            ))}
          </p>
        )}
        <ul className="mt-5 border-t-2 border-ink">
          {films.map((film) => (
            <FilmRow key={film.id} film={film} />
          ))}
        </ul>
        {films.length < total && (
          <Link
            href={addressOf(asked, pages + 1)}
            scroll={false}
            className="mt-5 inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
          >
            {total - films.length} more
          </Link>
        )}
      </main>
    </>
  );
}

function headline(total: number, { words, technique }: Asked): string {
  if (total > 0) return total === 1 ? 'One film.' : `${total} films.`;
  return words || technique ? 'No film of which that is said.' : 'No film yet.';
}

function FilmRow({ film }: { film: FoundFilm }) {
  const { id, student, shows, filmed, notes, isPurged } = film;
  const bench = `/bench/${id}`;
  return (
    <li className="flex items-center gap-4 border-b border-rule py-2.5 [contain-intrinsic-height:5.5rem] [content-visibility:auto]">
      {isPurged ? (
        <span className="aspect-video w-28 shrink-0 bg-tint" />
      ) : (
        <Link href={bench} tabIndex={-1} aria-hidden>
          <Thumb film={filmOf(id)} time={film.contactAt} />
        </Link>
      )}
      <div className="min-w-0 flex-1">
        <p className="sm:truncate">
          <Link href={`/students/${student.id}`} className="font-semibold hover:underline">
            <bdi>{student.name}</bdi>
          </Link>
          {', '}
          {isPurged ? (
            shows || film.fileName
          ) : (
            <Link href={bench} className="underline underline-offset-4">
              {shows || 'nothing marked yet'}
            </Link>
          )}
        </p>
        {notes.length > 0 && <p className="line-clamp-2 font-serif text-lg">{notes.join(' · ')}</p>}
        <p className="truncate text-sm text-soft">
          <span className="sm:hidden">{pastTime(film.createdAt)}, </span>
          {filmed}, <bdi>{film.fileName}</bdi>
          {isPurged && ': the film went with the consent'}
        </p>
      </div>
      <span className="text-sm whitespace-nowrap text-soft max-sm:hidden">
        {pastTime(film.createdAt)}
      </span>
    </li>
  );
}
