'use client';

import { useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { Heading, Nothing, PlainKey, TextField } from '@/ui/sheet';
import { isUnseen } from '@/core/job/rules/signing';
import { isSecondEyes, samePerson } from '@/core/people/roles';
import { opinionBy } from '@/words/en/opinion';
import { useDesk } from '../desk/desk';

/** What somebody else says of a decision. */
export function Opinion({ decision }: { decision: EntryOf<'decision'> }) {
  const { log, job } = useDesk();
  const unseen = isUnseen(decision, log.state.opinion);
  // A learner is nobody's second pair of eyes, and nobody is their own.
  const mayAnswer =
    isSecondEyes(job.me) && !(decision.body.learner && samePerson(job.me.name, decision.person));
  const { opinion } = log.state;
  const [note, setNote] = useState('');
  const say = (says: 'approve' | 'sendBack') => {
    log.write({ type: 'opinion', body: { decision: decision.id, says, note: note.trim() } });
    setNote('');
  };
  return (
    <section aria-labelledby="opinion" className="mt-4">
      <Heading id="opinion" aside="somebody else’s, where the shed wants one">
        Second opinion
      </Heading>
      {opinion ? (
        <p className={`py-2 text-[17px] ${opinion.body.says === 'approve' ? 'text-verdi' : 'text-stamp'}`}>
          {opinion.body.says === 'approve' ? '✓ Approved' : '✕ Sent back'} by {opinionBy(opinion, decision)}
          {opinion.body.note ? `: ${opinion.body.note}` : ''}
        </p>
      ) : (
        <Nothing>Nobody has looked at it yet.</Nothing>
      )}
      {unseen ? (
        <p className="py-1 text-[16.5px] text-copper-ink">
          {decision.person} decided it as a learner: nothing is fitted before a technician or a lead approves
          it.
        </p>
      ) : null}
      <div className="flex flex-wrap items-end gap-3" hidden={!mayAnswer}>
        <TextField label="Note" className="flex-1" maxLength={1000} value={note} onType={setNote} />
        <PlainKey onClick={() => say('approve')}>Approve</PlainKey>
        <PlainKey disabled={note.trim() === ''} onClick={() => say('sendBack')}>
          Send back
        </PlainKey>
      </div>
    </section>
  );
}
