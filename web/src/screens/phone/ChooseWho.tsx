'use client';

import Link from 'next/link';
import { useState } from 'react';

export interface PhoneStudent {
  readonly id: string;
  readonly name: string;
  readonly classGroup: string;
  readonly hasConsent: boolean;
}

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Whom the next clips show. */
export function ChooseWho({ students }: { students: readonly PhoneStudent[] }) {
  const [typed, setTyped] = useState('');
  const found = students.filter(({ name, classGroup }) =>
    plain(`${name} ${classGroup}`).includes(plain(typed.trim())),
  );
  return (
    <>
      <h1 className="font-serif text-[2rem] leading-tight">Who is filmed?</h1>
      {students.length > 8 && (
        <input
          type="search"
          aria-label="Find a student"
          placeholder="Find a name or a class"
          value={typed}
          className="mt-4 h-12 w-full border border-soft bg-field px-3"
          onChange={(event) => setTyped(event.target.value)}
        />
      )}
      <ul className="mt-4 border-t border-ink">
        {found.map(({ id, name, classGroup, hasConsent }) => (
          <li key={id} className="border-b border-rule">
            <Link href={`/phone/${id}`} className="flex min-h-14 items-center gap-3 py-2">
              <strong className="min-w-0 flex-1">{name}</strong>
              <span className="text-sm text-soft">
                {hasConsent ? classGroup : 'no consent yet'}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {found.length === 0 && (
        <p className="mt-4 text-soft">
          {students.length === 0
            ? 'Nobody trains here yet: add students on the gym’s machine.'
            : 'Nobody is called so.'}
        </p>
      )}
    </>
  );
}
