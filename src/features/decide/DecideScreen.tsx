'use client';

import { Check } from 'lucide-react';
import { useState } from 'react';
import { parseFigure } from '@/core/units/parseFigure';
import { Field, FIELD, Heading, Hold, MainKey, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { inTwenty, WindingBar } from '@/ui/Turns';
import { useDesk } from '../desk/desk';
import { StepLayout } from '../desk/StepLayout';
import { clearWords, evidenceWords, faultWords } from '@/words/en/findings';
import { partWords, readingWords } from '@/words/en/readings';

/** The part named by evidence, what must be cleared first, repair or replace, and a second opinion. */
export function DecideScreen() {
  const { outlook } = useDesk();
  return (
    <StepLayout
      part={outlook?.diagnosis.verdict.state === 'name' ? outlook.diagnosis.verdict.part : null}
      left={<Evidence />}
      right={
        <>
          <Decision />
          <Opinion />
        </>
      }
    />
  );
}

function Evidence() {
  const { outlook, speaker, failure } = useDesk();
  if (failure) return <Trouble>{failure} Your readings are safe.</Trouble>;
  if (!outlook) return <Nothing>Weighing the readings.</Nothing>;
  const { diagnosis, readings, standings } = outlook;
  const { verdict, suspects } = diagnosis;
  const { parts } = speaker.model.compiled;
  const rows = parts
    .map(({ part, index }) => ({ part, standing: standings[index]! }))
    .filter(({ standing }) => standing.turns > 0)
    .sort((a, b) => b.standing.share - a.standing.share);
  const lead = suspects[0];
  const spared = parts
    .filter(({ index }) => standings[index]!.state === 'spared')
    .map(({ part }) => part.ref);
  return (
    <>
      <section aria-labelledby="verdict">
        <Heading id="verdict">
          {verdict.state === 'name'
            ? `${verdict.part}: proved bad`
            : verdict.state === 'noFault'
              ? 'Nothing wrong found'
              : verdict.state === 'unexplained'
                ? 'Nothing fits these readings'
                : 'Not proved yet'}
        </Heading>
        <div className="space-y-2 py-3 text-[17px]" data-testid="decide-verdict" data-state={verdict.state}>
          {verdict.state === 'name' && lead ? (
            <p className="text-[18px] font-[700]">
              {partWords(speaker, verdict.part)}: {faultWords(lead)}
            </p>
          ) : (
            <p>{verdict.why}</p>
          )}
          {lead ? (
            <>
              <p>
                <strong className="font-[750]">For: </strong>
                {evidenceWords(speaker, lead.for, readings)}
              </p>
              <p>
                <strong className="font-[750]">Against: </strong>
                {evidenceWords(speaker, lead.against, readings)}
              </p>
            </>
          ) : null}
          {verdict.state === 'name' ? (
            <div>
              <strong className="font-[750]">Proved by </strong>
              {verdict.proofs.readings.map((at) => (
                <p key={at} className="pl-4">
                  {readingWords(speaker, readings[at]!)}
                </p>
              ))}
            </div>
          ) : null}
        </div>
      </section>
      <section aria-label="Doubt">
        <Heading aside="20 turns">Where the doubt sits</Heading>
        <ul>
          {rows.slice(0, 5).map(({ part, standing }) => (
            <li key={part.ref} className="flex min-h-11 items-center gap-4 border-b-[1.5px] border-rule">
              <span className="fig-bold w-24 truncate">{part.ref}</span>
              <span className="min-w-0 flex-1 truncate">{part.label}</span>
              <WindingBar count={standing.turns} />
              <span className="w-20 text-right font-[750] text-copper-ink">{inTwenty(standing.turns)}</span>
            </li>
          ))}
        </ul>
        {spared.length > 0 ? (
          <p className="flex items-center gap-2 py-2 text-verdi">
            <Check size={18} strokeWidth={3} aria-hidden /> Spared, and not to be bought: {spared.join(', ')}.
          </p>
        ) : null}
      </section>
    </>
  );
}

function Decision() {
  const { outlook, log, speaker, job } = useDesk();
  const verdict = outlook?.diagnosis.verdict;
  const named = verdict?.state === 'name' ? verdict : null;
  const lead = outlook?.diagnosis.suspects[0];
  const { decision } = log.state;
  const [changing, setChanging] = useState(false);
  const [part, setPart] = useState<string | null>(null);
  const [action, setAction] = useState<'repair' | 'replace' | 'nothing'>('repair');
  const [why, setWhy] = useState('');
  const [against, setAgainst] = useState('');
  const [cleared, setCleared] = useState<string[]>([]);
  const [rate, setRate] = useState(String(job.policy.shopRate));
  const [costs, setCosts] = useState({ repair: ['', ''], replace: ['', ''] });
  const [trouble, setTrouble] = useState<string | null>(null);
  if (decision && !changing) return <DecisionDone onChange={() => setChanging(true)} />;
  const chosen = part ?? named?.part ?? lead?.part ?? '';
  const needsReason = action !== 'nothing' && named?.part !== chosen;
  const clearFirst = (named?.part === chosen ? (named?.clearFirst ?? []) : []).map(clearWords);
  const uncleared = clearFirst.filter((one) => !cleared.includes(one));
  const total = (one: 'repair' | 'replace') => {
    const [minutes, cost, hourly] = [...costs[one], rate].map(parseFigure);
    // A field that is no figure leaves the sum out; nothing is made up for it.
    if (minutes?.is !== 'figure' || cost?.is === 'none' || hourly?.is !== 'figure') return null;
    return Math.round((minutes.value / 60) * hourly.value + (cost?.is === 'figure' ? cost.value : 0));
  };
  const write = () => {
    const [minutes, cost] = (action === 'nothing' ? ['', ''] : costs[action]).map(parseFigure);
    const wrong = [minutes, cost].findIndex(
      (one) => one!.is === 'none' || (one!.is === 'figure' && one!.value < 0),
    );
    if (wrong >= 0)
      return setTrouble(
        `${wrong === 0 ? 'Minutes' : 'Parts cost'}: “${costs[action as 'repair' | 'replace'][wrong]}” is no figure from 0 up. Type one, as 45, or leave it empty.`,
      );
    setTrouble(null);
    log.write({
      type: 'decision',
      body: {
        part: action === 'nothing' ? '' : chosen,
        fault: named?.part === chosen ? named.fault : lead?.part === chosen ? lead.fault : '',
        action,
        why: why.trim(),
        cleared,
        minutes: minutes!.is === 'figure' ? minutes!.value : null,
        cost: cost!.is === 'figure' ? cost!.value : null,
        ...(needsReason ? { against: against.trim() } : {}),
      },
    });
    setChanging(false);
  };
  return (
    <section aria-labelledby="decide">
      <Heading id="decide">Decision</Heading>
      <div className="flex flex-wrap items-end gap-3 py-2">
        <span className="flex" role="group" aria-label="What is done">
          {(['repair', 'replace', 'nothing'] as const).map((one) => (
            <PlainKey
              key={one}
              className="-ml-[1.5px] px-4!"
              aria-pressed={action === one}
              onClick={() => setAction(one)}
            >
              {{ repair: 'Repair', replace: 'Replace', nothing: 'Change nothing' }[one]}
            </PlainKey>
          ))}
        </span>
        {action === 'nothing' ? null : (
          <Field label="Part" className="w-[150px]">
            <select className={FIELD} value={chosen} onChange={(event) => setPart(event.target.value)}>
              {speaker.model.compiled.circuit.parts.map(({ ref }) => (
                <option key={ref}>{ref}</option>
              ))}
            </select>
          </Field>
        )}
      </div>
      {action === 'nothing' ? null : (
        <table className="w-full text-left text-[16px]">
          <thead className="text-[15.5px] text-ink2">
            <tr>
              <th className="font-[600]">By cost and time</th>
              <th className="font-[600]">Minutes</th>
              <th className="font-[600]">Parts cost</th>
              <th className="font-[600]">
                All, at{' '}
                <input
                  aria-label="Shop rate an hour"
                  className="fig h-8 w-14 border-[1.5px] border-edge bg-sheet px-1"
                  value={rate}
                  inputMode="decimal"
                  onChange={(event) => setRate(event.target.value)}
                />{' '}
                an hour
              </th>
            </tr>
          </thead>
          <tbody>
            {(['repair', 'replace'] as const).map((one) => (
              <tr key={one}>
                <td className="py-1">{one === 'repair' ? 'Repair' : 'Replace'}</td>
                {[0, 1].map((at) => (
                  <td key={at} className="py-1 pr-2">
                    <input
                      aria-label={`${one}, ${at === 0 ? 'minutes' : 'parts cost'}`}
                      className={`${FIELD} fig max-w-[110px]`}
                      inputMode="decimal"
                      value={costs[one][at]}
                      onChange={(event) =>
                        setCosts({
                          ...costs,
                          [one]: costs[one].map((text, index) => (index === at ? event.target.value : text)),
                        })
                      }
                    />
                  </td>
                ))}
                <td className="fig py-1">{total(one) ?? ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {clearFirst.length > 0 ? (
        <fieldset className="py-2">
          <legend className="text-[16px] font-[700]">First clear what would do it again</legend>
          {clearFirst.map((one) => (
            <label key={one} className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 accent-pencil"
                checked={cleared.includes(one)}
                onChange={(event) =>
                  setCleared(
                    event.target.checked ? [...cleared, one] : cleared.filter((other) => other !== one),
                  )
                }
              />
              {one}
            </label>
          ))}
        </fieldset>
      ) : null}
      <Field label="In a sentence">
        <input
          className={FIELD}
          maxLength={1000}
          value={why}
          onChange={(event) => setWhy(event.target.value)}
        />
      </Field>
      {needsReason ? (
        <Field label={`The readings do not name ${chosen} yet. Why all the same?`} className="mt-2">
          <input
            className={FIELD}
            maxLength={500}
            value={against}
            onChange={(event) => setAgainst(event.target.value)}
          />
        </Field>
      ) : null}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <div className="flex flex-wrap items-center gap-3 py-3">
        <MainKey disabled={uncleared.length > 0 || (needsReason && against.trim() === '')} onClick={write}>
          Decide
        </MainKey>
        {uncleared.length > 0 ? (
          <span className="text-[16px] text-copper-ink">Not before the list above is clear.</span>
        ) : null}
        {changing ? <PlainKey onClick={() => setChanging(false)}>Leave as it was</PlainKey> : null}
      </div>
      <Hold>Make it dead again before anything is changed.</Hold>
    </section>
  );
}

function DecisionDone({ onChange }: { onChange: () => void }) {
  const { log, speaker } = useDesk();
  const decision = log.state.decision!;
  const { body } = decision;
  return (
    <section aria-labelledby="decided">
      <Heading id="decided" aside={`by ${decision.person}`}>
        Decided
      </Heading>
      <div className="space-y-1 py-3 text-[17px]" data-testid="decided">
        <p className="text-[18px] font-[700]">
          {body.action === 'nothing'
            ? 'Change nothing'
            : `${body.action === 'repair' ? 'Repair' : 'Replace'} ${partWords(speaker, body.part)}`}
        </p>
        {body.why ? <p>{body.why}</p> : null}
        {body.against ? <p className="text-copper-ink">Against the count: {body.against}</p> : null}
        {body.cleared.map((one) => (
          <p key={one} className="text-verdi">
            ✓ {one}
          </p>
        ))}
        <p className="fig text-[15.5px] text-ink2">
          {[
            body.minutes === null ? '' : `${body.minutes} min`,
            body.cost === null ? '' : `parts ${body.cost}`,
          ]
            .filter(Boolean)
            .join(', ')}
        </p>
      </div>
      <PlainKey onClick={onChange}>Decide again</PlainKey>
    </section>
  );
}

function Opinion() {
  const { log } = useDesk();
  const { decision, opinion } = log.state;
  const [note, setNote] = useState('');
  if (!decision) return null;
  const say = (says: 'approve' | 'sendBack') => {
    log.write({ type: 'opinion', body: { decision: decision.id, says, note: note.trim() } });
    setNote('');
  };
  return (
    <section aria-labelledby="opinion" className="mt-4">
      <Heading id="opinion" aside="the lead’s, where the shed wants one">
        Second opinion
      </Heading>
      {opinion ? (
        <p className={`py-2 text-[17px] ${opinion.body.says === 'approve' ? 'text-verdi' : 'text-stamp'}`}>
          {opinion.body.says === 'approve' ? '✓ Approved' : '✕ Sent back'} by {opinion.person}
          {opinion.body.note ? `: ${opinion.body.note}` : ''}
        </p>
      ) : (
        <Nothing>Nobody has looked at it yet.</Nothing>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Note" className="flex-1">
          <input
            className={FIELD}
            maxLength={1000}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </Field>
        <PlainKey onClick={() => say('approve')}>Approve</PlainKey>
        <PlainKey disabled={note.trim() === ''} onClick={() => say('sendBack')}>
          Send back
        </PlainKey>
      </div>
    </section>
  );
}
