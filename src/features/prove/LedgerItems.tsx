'use client';

import { useMemo } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { samePerson } from '@/core/people/roles';
import type { LedgerLine } from '@/core/job/reduceJob';
import { bypassOf, stillToTakeOut } from '@/core/job/rules/ledgerStanding';
import { PlainKey } from '@/ui/sheet';
import { useNow } from '@/ui/useNow';
import { LEDGER_KINDS } from '@/words/en/ledger';
import { useDesk } from '../desk/desk';
import { SecondPerson } from '../people/SecondPerson';

const MINUTE_MS = 60_000;
const LOOK_MS = 10_000;

/** What stands in the ledger, each with its time and the way out of it: taken out, then shown to be out. */
export function LedgerItems() {
  const { log, speaker } = useDesk();
  const now = useNow(LOOK_MS);
  const lines = useMemo(() => stillToTakeOut(speaker.model, log.state), [speaker, log.state]);
  return (
    <ul>
      {lines.map(({ line, standing, guards }) => (
        <li
          key={`${line.entry.id} ${line.entry.body.item}`}
          className="flex min-h-[48px] flex-wrap items-center gap-x-3 gap-y-1 border-b-[1.5px] border-rule py-1"
          data-testid="ledger-item"
          data-state={standing.state}
        >
          <strong className="font-[700]">{line.entry.body.item}</strong>
          <span className="min-w-[180px] flex-1 text-[16px] text-ink2">
            {guards.length > 0 ? (
              <strong className="block text-stamp">
                ✕ Safety defect: {guards.join(', ')} is out of action until this is gone.
              </strong>
            ) : null}
            <Bypass line={line} />
            <Standing entry={line.entry} now={now} out={standing.state === 'out'} />
          </span>
          {line.out ? (
            <SeenOut line={line} taker={line.out.entry.person} />
          ) : (
            <PlainKey
              className="px-3! text-[16px]!"
              onClick={() => log.write({ type: 'ledgerOut', body: { item: line.entry.body.item } })}
            >
              {line.entry.body.kind === 'lifted' ? 'It is back on' : 'It is out'}
            </PlainKey>
          )}
        </li>
      ))}
    </ul>
  );
}

function Bypass({ line }: { line: LedgerLine }) {
  const { speaker } = useDesk();
  const bypass = bypassOf(speaker.model, line);
  return bypass ? (
    <strong className="block text-stamp">
      ✕ Safety defect: {bypass.part} is bypassed. {bypass.danger}
    </strong>
  ) : null;
}

function Standing({ entry, now, out }: { entry: EntryOf<'ledger'>; now: number; out: boolean }) {
  const { body, person, at } = entry;
  if (out)
    return body.kind === 'lifted' ? (
      <>Said to be back on. A reading that would differ were it off shows it, or a second person.</>
    ) : (
      <>Said to be out. A reading that would differ were it in shows it, or a second person.</>
    );
  const left = body.minutes ? Math.ceil((Date.parse(at) + body.minutes * MINUTE_MS - now) / MINUTE_MS) : null;
  return (
    <span className={left !== null && left <= 0 ? 'font-[700] text-stamp' : ''}>
      {LEDGER_KINDS[body.kind].toLowerCase()}, {body.found ? 'found by' : 'by'} {person}
      {left === null
        ? ''
        : left > 0
          ? `, ${left} min left`
          : ', over its time: the machine is out of service'}
    </span>
  );
}

/** The second pair of eyes: somebody else than who took it out, with a PIN of their own or signed in themselves. */
function SeenOut({ line, taker }: { line: LedgerLine; taker: string }) {
  const { item, kind } = line.entry.body;
  const { log, job } = useDesk();
  const back = kind === 'lifted';
  if (!samePerson(job.me.name, taker))
    return (
      <PlainKey
        className="px-3! text-[16px]!"
        onClick={() => log.write({ type: 'ledgerSeen', body: { item, second: job.me.name } })}
      >
        {back ? 'I see that it is back on' : 'I see that it is out'}
      </PlainKey>
    );
  return (
    <SecondPerson
      label={back ? 'Seen back on as well by' : 'Seen out as well by'}
      done="Both say so"
      people={job.people.map(({ name }) => name)}
      me={job.me.name}
      onGiven={({ witness, name }) =>
        log.write({ type: 'ledgerSeen', witness, body: { item, second: name } })
      }
    />
  );
}
