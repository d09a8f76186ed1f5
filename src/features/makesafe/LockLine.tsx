'use client';

import { useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { isSecondEyes, samePerson } from '@/core/people/roles';
import { PlainKey, TextField } from '@/ui/sheet';
import { pointTitle } from '@/words/en/energies';
import { useDesk } from '../desk/desk';
import { SecondPerson } from '../people/SecondPerson';

/**
 * One lock that is on. Its owner takes it off; for an owner who is gone a lead does, with a reason and a second person.
 *
 * @param next whether it is its turn
 * @param reason written where its owner takes it off; null where the owner says why
 */
export function LockLine({
  lock,
  next,
  reason,
}: {
  lock: EntryOf<'isolation'>;
  next: boolean;
  reason: string | null;
}) {
  const { log, job } = useDesk();
  const [forcing, setForcing] = useState(false);
  const [why, setWhy] = useState('');
  const { body, person } = lock;
  const own = samePerson(person, job.me.name);
  const said = why.trim();
  return (
    <li className="flex min-h-[52px] flex-wrap items-center gap-x-3 gap-y-1 border-b-[1.5px] border-rule py-1">
      <strong className="fig-bold">{pointTitle(body.point)}</strong>
      <span className="min-w-0 flex-1 text-[16px] text-ink2">
        lock {body.lock || '–'}, put on by {person}
      </span>
      {own ? (
        <>
          {reason === null ? (
            <TextField
              label="Opened again, because"
              className="min-w-[180px] flex-1"
              maxLength={500}
              value={why}
              onType={setWhy}
            />
          ) : null}
          <PlainKey
            className="px-3! text-[16px]!"
            disabled={!next || (reason === null && said === '')}
            onClick={() =>
              log.write({ type: 'reopened', body: { point: body.point, reason: reason ?? said } })
            }
          >
            {reason === null ? 'Open this point' : 'Lock is off'}
          </PlainKey>
        </>
      ) : job.me.role === 'lead' ? (
        <PlainKey
          className="px-3! text-[16px]!"
          disabled={!next}
          aria-expanded={forcing}
          onClick={() => setForcing(!forcing)}
        >
          {person} is gone
        </PlainKey>
      ) : (
        <span className="text-[15.5px] text-ink2">
          {person} takes it off, or a lead with a second person.
        </span>
      )}
      {forcing && !own ? (
        <div className="basis-full border-l-[6px] border-stamp bg-stamp-t px-4 py-2">
          <p className="text-[16px]">
            Look for {person} first, and make sure that nobody is at the work. What is written here stands in
            the job and in the trail.
          </p>
          <div className="flex flex-wrap items-end gap-2 pt-2">
            <TextField
              label="Why somebody else takes it off"
              className="min-w-[220px] flex-1"
              maxLength={500}
              value={why}
              onType={setWhy}
            />
            <SecondPerson
              label="Stands by"
              done="Take the lock off"
              people={job.people.filter(isSecondEyes).map(({ name }) => name)}
              me={job.me.name}
              not={person}
              disabled={said === ''}
              onGiven={({ witness, name }) =>
                log.write({
                  type: 'reopened',
                  witness,
                  body: { point: body.point, reason: said, owner: person, second: name },
                })
              }
            />
          </div>
        </div>
      ) : null}
    </li>
  );
}
