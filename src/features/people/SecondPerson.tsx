'use client';

import { useState } from 'react';
import { samePerson } from '@/core/people/roles';
import { Field, FIELD, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { Form } from '@/ui/Form';
import { askServer, NotAnswered } from '../askServer';

/** A second person who has given their PIN, for the one entry that is written now. */
export interface StoodBy {
  witness: string;
  name: string;
}

/**
 * A second person stands by and says so with their own PIN. That needs the server: nothing else can tell whose PIN it is.
 *
 * @param people who may; who is signed in and whom `not` names are left out
 */
export function SecondPerson({
  label,
  done,
  people,
  me,
  not,
  disabled,
  onGiven,
}: {
  /** Above the name. */
  label: string;
  /** On the key. */
  done: string;
  people: readonly string[];
  me: string;
  not?: string;
  disabled?: boolean;
  onGiven: (given: StoodBy) => void;
}) {
  const [name, setName] = useState('');
  const [pin, setPin] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const others = people.filter((one) => !samePerson(one, me) && !(not !== undefined && samePerson(one, not)));
  const give = async () => {
    setBusy(true);
    setTrouble(null);
    try {
      const given = await askServer<StoodBy>('/api/session/witness', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name, pin }),
      });
      onGiven(given);
      setName('');
    } catch (error) {
      setTrouble(
        error instanceof NotAnswered && error.status > 0
          ? error.message
          : 'The server does not answer, and nothing else can tell whose PIN it is. Try again in range.',
      );
    }
    setPin('');
    setBusy(false);
  };
  return (
    <Form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void give();
      }}
    >
      <Field label={label} className="w-[170px]">
        <select className={FIELD} value={name} onChange={(event) => setName(event.target.value)}>
          <option value="">choose</option>
          {others.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </Field>
      <TextField
        label="Their PIN"
        className="w-[110px]"
        figure
        type="password"
        inputMode="numeric"
        autoComplete="off"
        maxLength={20}
        value={pin}
        onType={setPin}
      />
      <PlainKey
        type="submit"
        className="px-3! text-[16px]!"
        disabled={busy || disabled === true || name === '' || pin === ''}
      >
        {done}
      </PlainKey>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </Form>
  );
}
