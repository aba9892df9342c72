'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Person, PersonInput } from '@/data/access/people';
import { reaches, ROLE_WORDS, type Asker, type Role } from '@/data/access/roles';
import { AskDialog, LOST } from '@/ui/askDialog';
import { Button } from '@/ui/button';
import { SelectField, TextField } from '@/ui/field';
import { addSomebody, changeRole, handOnTo, letGo, newPasscode } from './actions';
import { PairPhone } from './PairPhone';

type Asked =
  | { readonly kind: 'add' }
  | { readonly kind: 'passcode' | 'let-go' | 'hand-on' | 'pair'; readonly person: Person };

/** Everybody who may come in, and what the owner can do about it. */
export function PeopleList({
  people,
  asker,
  isOpen,
}: {
  people: readonly Person[];
  asker: Asker;
  isOpen: boolean;
}) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const isOwner = reaches(asker.role, 'owner');
  const close = () => setAsked(null);
  return (
    <section aria-label="Who coaches here">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Who coaches here</h2>
      <ul>
        {people.map((person) => (
          <li key={person.id} className="border-b border-rule py-2">
            <div className="flex flex-wrap items-baseline gap-x-4">
              <strong>{person.name}</strong>
              <span className="text-soft">
                {person.role}: {ROLE_WORDS[person.role]}
              </span>
            </div>
            <div className="flex flex-wrap gap-x-5">
              {isOpen && (isOwner || person.id === asker.personId) && (
                <Quiet onClick={() => setAsked({ kind: 'pair', person })}>Pair a phone</Quiet>
              )}
              {(isOwner || person.id === asker.personId) && (
                <Quiet onClick={() => setAsked({ kind: 'passcode', person })}>New passcode</Quiet>
              )}
              {isOwner && person.role !== 'owner' && (
                <>
                  <Quiet
                    onClick={() =>
                      void changeRole(person.id, person.role === 'coach' ? 'assistant' : 'coach')
                        .catch(() => LOST)
                        .then((wrong) => toast(wrong ?? 'Changed.'))
                    }
                  >
                    {person.role === 'coach' ? 'Make an assistant' : 'Make a coach'}
                  </Quiet>
                  {person.role === 'coach' && (
                    <Quiet onClick={() => setAsked({ kind: 'hand-on', person })}>Make owner</Quiet>
                  )}
                  <Quiet onClick={() => setAsked({ kind: 'let-go', person })}>Remove</Quiet>
                </>
              )}
            </div>
          </li>
        ))}
      </ul>
      {isOwner && (
        <Button className="mt-3" onClick={() => setAsked({ kind: 'add' })}>
          Add somebody
        </Button>
      )}
      {asked?.kind === 'add' && <AddDialog onDone={close} />}
      {asked?.kind === 'passcode' && <PasscodeDialog person={asked.person} onDone={close} />}
      {asked?.kind === 'pair' && <PairPhone person={asked.person} onDone={close} />}
      {asked?.kind === 'let-go' && (
        <AskDialog
          title={`${asked.person.name} comes in no more?`}
          action="Remove"
          onSave={() => letGo(asked.person.id)}
          onDone={close}
        >
          <p>
            Every browser and phone of theirs is signed out at once. What they marked and wrote
            stays, under their name.
          </p>
        </AskDialog>
      )}
      {asked?.kind === 'hand-on' && (
        <AskDialog
          title={`${asked.person.name} owns the gym?`}
          action="Make owner"
          onSave={() => handOnTo(asked.person.id)}
          onDone={close}
        >
          <p>You are a coach from then on, and no longer say who comes in.</p>
        </AskDialog>
      )}
    </section>
  );
}

function Quiet({ onClick, children }: { onClick: () => void; children: string }) {
  return (
    <Button weight="quiet" className="min-h-11" onClick={onClick}>
      {children}
    </Button>
  );
}

const NOBODY: PersonInput = { name: '', role: 'coach', passcode: '' };

function AddDialog({ onDone }: { onDone: () => void }) {
  const [given, setGiven] = useState(NOBODY);
  const write = (part: Partial<PersonInput>) => setGiven((old) => ({ ...old, ...part }));
  return (
    <AskDialog title="Who is it?" action="Add" onSave={() => addSomebody(given)} onDone={onDone}>
      <TextField
        label="Name"
        autoComplete="off"
        value={given.name}
        maxLength={60}
        onChange={(event) => write({ name: event.target.value })}
      />
      <SelectField
        label="May do"
        value={given.role}
        onChange={(event) => write({ role: event.target.value as Role })}
      >
        <option value="coach">coach: {ROLE_WORDS.coach}</option>
        <option value="assistant">assistant: {ROLE_WORDS.assistant}</option>
      </SelectField>
      <TextField
        label="First passcode"
        type="password"
        autoComplete="new-password"
        value={given.passcode}
        hint="At least eight letters or digits; they can change it here themselves."
        onChange={(event) => write({ passcode: event.target.value })}
      />
    </AskDialog>
  );
}

function PasscodeDialog({ person, onDone }: { person: Person; onDone: () => void }) {
  const [passcode, setPasscode] = useState('');
  return (
    <AskDialog
      title={`A new passcode for ${person.name}`}
      action="Keep"
      onSave={() => newPasscode(person.id, passcode)}
      onDone={onDone}
    >
      <TextField
        label="New passcode"
        type="password"
        autoComplete="new-password"
        value={passcode}
        hint="Other browsers that were signed in by the old one are signed out. Paired phones stay paired."
        onChange={(event) => setPasscode(event.target.value)}
      />
    </AskDialog>
  );
}
