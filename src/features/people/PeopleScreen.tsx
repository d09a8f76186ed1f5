'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { LICENCES, ROLES, type Licence, type Role } from '@/core/people/roles';
import { FIELD, Heading, MainKey, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { LICENCE_WORDS, personWords, ROLE_MEANS, ROLE_WORDS } from '@/words/en/people';
import { Form } from '@/ui/Form';
import { changePerson, giveNewWord, makeAccount } from './actions';
import { sent } from '../sent';
import type { PersonRow } from './server';

const SILENT = { trouble: 'The server does not answer. Look whether it was kept, then try again.' };

/** Who works here, what each may do, and the word for a first sign-in. */
export function PeopleScreen({ people, me }: { people: readonly PersonRow[]; me: string }) {
  const [words, setWords] = useState<readonly { name: string; word: string }[]>([]);
  // Until the page is left all of them stay: one that nobody wrote down is gone for good.
  const keepWord: GiveWord = (given) =>
    setWords((before) => [given, ...before.filter(({ name }) => name !== given.name)]);
  return (
    <div className="grid gap-x-9 px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_400px]">
      <section aria-labelledby="people">
        <Heading id="people" aside={`${people.filter(({ closed }) => !closed).length} may sign in`}>
          People
        </Heading>
        {words.map(({ name, word }) => (
          <p
            key={name}
            role="status"
            className="my-2 border-l-[6px] border-verdi bg-film px-4 py-2.5 text-[17px]"
            data-testid="first-word"
          >
            First word for {name}: <span className="fig-bold">{word}</span>
            <span className="block text-[15.5px] text-ink2">
              Shown this once, good for three days and one sign-in. Hand it over in person.
            </span>
          </p>
        ))}
        <ul>
          {people.map((one) => (
            <PersonLine
              key={`${one.name} ${one.role} ${one.licences.join()} ${String(one.closed)}`}
              person={one}
              me={me}
              onWord={keepWord}
            />
          ))}
        </ul>
      </section>
      <div>
        <NewPerson onWord={keepWord} />
        <section aria-labelledby="roles" className="pt-4">
          <Heading id="roles">What each may do</Heading>
          <dl className="text-[16px]">
            {ROLES.map((role) => (
              <div
                key={role}
                className="flex min-h-11 items-baseline gap-3 border-b-[1.5px] border-rule py-2"
              >
                <dt className="w-[100px] shrink-0 font-[720]">{ROLE_WORDS[role]}</dt>
                <dd>{ROLE_MEANS[role]}</dd>
              </div>
            ))}
          </dl>
          <p className="py-2 text-[15.5px] text-ink2">
            Work on a refrigerant circuit, and readings and locks at line voltage, are written down by who is
            licensed for them alone, whatever their role.
          </p>
        </section>
      </div>
    </div>
  );
}

type GiveWord = (given: { name: string; word: string }) => void;

function PersonLine({ person, me, onWord }: { person: PersonRow; me: string; onWord: GiveWord }) {
  const router = useRouter();
  const [role, setRole] = useState<Role>(person.role);
  const [licences, setLicences] = useState<readonly Licence[]>(person.licences);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const [busy, start] = useTransition();
  const change = (closed: boolean) =>
    start(async () => {
      const answer = await sent(changePerson(person.name, { role, licences: [...licences], closed }), SILENT);
      setTrouble(answer.trouble);
      router.refresh();
    });
  const reset = () =>
    start(async () => {
      const answer: { trouble: string | null; word?: string } = await sent(giveNewWord(person.name), SILENT);
      setTrouble(answer.trouble);
      if (answer.word) onWord({ name: person.name, word: answer.word });
      router.refresh();
    });
  const own = person.name === me;
  const changed = role !== person.role || licences.join() !== person.licences.join();
  return (
    <li className="border-b-[1.5px] border-rule" data-testid="person">
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex min-h-[56px] w-full flex-wrap items-baseline gap-x-3 py-2 text-left"
      >
        <strong className="font-[720] break-words">{person.name}</strong>
        <span className="text-[15.5px] text-ink2">
          {person.closed ? 'account closed' : personWords(person.role, person.licences)}
          {person.wordUntil ? ', has a first word that is not used yet' : ''}
          {!person.closed && !person.hasPin ? ', no PIN yet' : ''}
        </span>
      </button>
      {open ? (
        <div className="flex flex-wrap items-center gap-3 pb-3">
          {own ? (
            <span className="text-[16px] text-ink2">You: another lead changes what you may.</span>
          ) : person.closed ? (
            <PlainKey disabled={busy} onClick={() => change(false)}>
              Open the account again
            </PlainKey>
          ) : (
            <>
              <Rights
                role={role}
                licences={licences}
                onRole={setRole}
                onLicences={setLicences}
                of={person.name}
              />
              <PlainKey disabled={busy || !changed} onClick={() => change(false)}>
                Change
              </PlainKey>
              <PlainKey disabled={busy} onClick={reset}>
                New first word
              </PlainKey>
              <PlainKey disabled={busy} onClick={() => change(true)}>
                Close the account
              </PlainKey>
            </>
          )}
        </div>
      ) : null}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </li>
  );
}

function Rights({
  of,
  role,
  licences,
  onRole,
  onLicences,
}: {
  of: string;
  role: Role;
  licences: readonly Licence[];
  onRole: (role: Role) => void;
  onLicences: (licences: readonly Licence[]) => void;
}) {
  return (
    <>
      <select
        aria-label={`Role of ${of}`}
        className={`${FIELD} w-[140px]!`}
        value={role}
        onChange={(event) => onRole(ROLES.find((one) => one === event.target.value) ?? role)}
      >
        {ROLES.map((one) => (
          <option key={one} value={one}>
            {ROLE_WORDS[one]}
          </option>
        ))}
      </select>
      {LICENCES.map((one) => (
        <label key={one} className="flex min-h-11 items-center gap-2 text-[16px]">
          <input
            type="checkbox"
            className="size-5 accent-pencil"
            checked={licences.includes(one)}
            onChange={(event) =>
              // In one order, so that what did not change is the same.
              onLicences(
                LICENCES.filter((held) => (held === one ? event.target.checked : licences.includes(held))),
              )
            }
          />
          {LICENCE_WORDS[one]}
        </label>
      ))}
    </>
  );
}

function NewPerson({ onWord }: { onWord: GiveWord }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('technician');
  const [licences, setLicences] = useState<readonly Licence[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, start] = useTransition();
  return (
    <section aria-labelledby="new-person">
      <Heading id="new-person">Somebody new</Heading>
      <Form
        deed="people"
        className="flex flex-wrap items-end gap-3 py-2"
        onSubmit={(event) => {
          event.preventDefault();
          start(async () => {
            const answer: { trouble: string | null; word?: string } = await sent(
              makeAccount({ name, role, licences: [...licences] }),
              SILENT,
            );
            setTrouble(
              answer.trouble === null
                ? null
                : /^(is|has|holds) /.test(answer.trouble)
                  ? `The name ${answer.trouble}.`
                  : answer.trouble,
            );
            if (answer.word) {
              onWord({ name: name.trim(), word: answer.word });
              setName('');
            }
            router.refresh();
          });
        }}
      >
        <TextField
          label="Name, as it signs"
          className="w-full"
          maxLength={60}
          value={name}
          onType={setName}
        />
        <Rights of="the new one" role={role} licences={licences} onRole={setRole} onLicences={setLicences} />
        <MainKey type="submit" disabled={busy || name.trim() === ''}>
          Make the account
        </MainKey>
      </Form>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </section>
  );
}
