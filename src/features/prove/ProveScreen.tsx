'use client';

import { Check, X } from 'lucide-react';
import { useMemo, useState, type ReactNode } from 'react';
import type { CircuitModel } from '@/core/circuit/model';
import type { Reading, Test } from '@/core/circuit/schema';
import { mayBeLeft, proofList, proofStanding, proves, type Proof } from '@/core/job/proofList';
import { cautionsOf } from '@/core/diagnosis/cautionsOf';
import { testKey } from '@/core/diagnosis/observations';
import { readPastLimits, type PastLimit } from '@/core/shed/readPastLimit';
import { pastLimitWords } from '@/words/en/trends';
import { windingRead } from '@/core/diagnosis/windingRead';
import { figureOf } from '@/core/kinds/reading';
import { parseCelsius } from '@/core/units/parseCelsius';
import { testGate } from '@/core/job/rules/testGate';
import { LockLine } from '../makesafe/LockLine';
import { locksOff } from '@/core/job/rules/locksOff';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { Heading, Hold, PlainKey, TextField } from '@/ui/sheet';
import { useDesk } from '../desk/desk';
import { FigureForm } from '../desk/FigureForm';
import { WarmAt } from '../desk/WarmAt';
import { SetupSteps } from '../desk/SetupSteps';
import { StepLayout } from '../desk/StepLayout';
import { StepLink } from '../desk/StepLink';
import { LINK } from '@/ui/Link';
import { Ledger } from './Ledger';
import { graveWords, shutWords } from '@/words/en/holds';
import { followedWords, proofWords, stopWords } from '@/words/en/proofs';
import { kindOfPart } from '@/words/en/readings';

const FIRST_CYCLE = 'Area clear, one person at the stop. Try each limit gently, and watch the first cycle.';

/** Everything that is shown before the machine goes back: positions, current, drops, interlocks, codes, wires, locks. */
export function ProveScreen() {
  const { speaker, log, job } = useDesk();
  const proofs = useMemo(() => proofList(speaker.model, log.state), [speaker, log.state]);
  const past = useMemo(
    () => readPastLimits(speaker.model, log.state, job.marks),
    [speaker, log.state, job.marks],
  );
  const pastOf = (proof: Proof) =>
    'test' in proof ? past.find(({ test }) => testKey(test) === testKey(proof.test)) : undefined;
  const standing = proofs.map((proof) => ({ proof, now: proofStanding(proof, log.state) }));
  // What may hurt in anything that is still to be shown.
  const grave = useMemo(
    () =>
      graveWords(
        new Set(
          proofs.flatMap((proof) =>
            'test' in proof && proofStanding(proof, log.state).state === 'open'
              ? cautionsOf(speaker.model, proof.test)
              : [],
          ),
        ),
      ),
    [proofs, log.state, speaker],
  );
  const done = standing.filter(({ now }) => now.state === 'done' || now.state === 'signedOff').length;
  return (
    <StepLayout
      left={
        <section aria-labelledby="proofs">
          <Heading id="proofs" aside={`${done} of ${proofs.length}`}>
            To be shown
          </Heading>
          {log.state.failed ? (
            <p className="py-1.5 text-copper-ink" data-testid="not-mended">
              Something is still wrong. What was read here counts: go on at{' '}
              <StepLink step="test" className={LINK}>
                Test
              </StepLink>
              .
            </p>
          ) : null}
          <div>
            {standing.map(({ proof, now }) => (
              <ProofRow key={proof.id} proof={proof} now={now} past={pastOf(proof)} />
            ))}
          </div>
        </section>
      }
      right={
        <>
          <div className="pt-3">
            <Hold>{[FIRST_CYCLE, ...grave].join(' ')}</Hold>
          </div>
          <Ledger />
          <Locks />
        </>
      }
    />
  );
}

function ProofRow({
  proof,
  now,
  past,
}: {
  proof: Proof;
  now: ReturnType<typeof proofStanding>;
  /** What it read is past a limit that stops no hand-over. */
  past: PastLimit | undefined;
}) {
  const { speaker, log } = useDesk();
  const [signing, setSigning] = useState(false);
  const [reason, setReason] = useState('');
  const text = proofWords(speaker, proof);
  return (
    <div
      className="border-b-[1.5px] border-rule py-1"
      role="group"
      aria-label={text}
      data-state={now.state}
      data-proof={proof.kind}
      data-test={'test' in proof ? JSON.stringify(proof.test) : undefined}
    >
      <div className="flex min-h-[48px] flex-wrap items-center gap-x-3 gap-y-1">
        {now.state === 'done' ? (
          <Check size={20} strokeWidth={3} className="shrink-0 text-verdi" aria-label="done" />
        ) : now.state === 'wrong' ? (
          <X size={20} strokeWidth={3} className="shrink-0 text-stamp" aria-label="not as it should be" />
        ) : (
          <span className="w-5 shrink-0" />
        )}
        <span className="min-w-0 flex-1">
          {text}
          {now.state === 'signedOff' ? (
            <span className="block text-copper-ink">Left, because {now.reason}</span>
          ) : null}
          {now.state === 'wrong' ? <span className="block text-stamp">{now.found}</span> : null}
          {now.state === 'open' && log.state.shownBefore.has(proof.id) ? (
            <span className="block text-ink2">Shown before the last work; show it again.</span>
          ) : null}
          {now.state === 'done' && past ? (
            <span className="block text-copper-ink">Past its limit, {pastLimitWords(speaker, past)}</span>
          ) : null}
        </span>
        {now.state === 'done' ? (
          <span className="fig text-[15.5px] text-verdi">{now.found}</span>
        ) : (
          <ProofAnswer proof={proof} />
        )}
        {now.state === 'done' || now.state === 'signedOff' ? (
          <PlainKey
            className="px-3! text-[15.5px]!"
            onClick={() => {
              const entry = log.state.proofs.get(proof.id);
              if (entry) log.write({ type: 'withdrawal', supersedes: entry.id, body: {} });
            }}
            hidden={!log.state.proofs.has(proof.id)}
          >
            Again
          </PlainKey>
        ) : !mayBeLeft(proof) ? null : (
          <PlainKey
            className="px-3! text-[15.5px]!"
            aria-expanded={signing}
            onClick={() => setSigning(!signing)}
          >
            Leave it
          </PlainKey>
        )}
      </div>
      {signing && now.state !== 'done' && now.state !== 'signedOff' ? (
        <div className="flex items-end gap-3 pb-2">
          <TextField
            label="Left, because"
            className="flex-1"
            value={reason}
            maxLength={500}
            onType={setReason}
          />
          <PlainKey
            disabled={reason.trim() === ''}
            onClick={() => {
              log.write({
                type: 'proof',
                body: { proof: proof.id, done: false, found: '', reason: reason.trim() },
              });
              setSigning(false);
            }}
          >
            Sign it off
          </PlainKey>
        </div>
      ) : null}
    </div>
  );
}

function ProofAnswer({ proof }: { proof: Proof }) {
  const { log, speaker } = useDesk();
  const write = (value: Reading['value'], found: string, more: { celsius?: number } = {}) => {
    const done = proves(proof, value);
    if ('test' in proof) {
      log.write({
        type: 'reading',
        body: {
          reading: { ...proof.test, value, ...more } as Reading,
          typed: found,
          phase: 'fixed',
          check: proof.id,
        },
      });
    }
    log.write({ type: 'proof', body: { proof: proof.id, done, found } });
  };
  const pair = (yes: [string, () => void], no: [string, () => void]) => (
    <span className="flex">
      {[yes, no].map(([label, press]) => (
        <PlainKey key={label} className="-ml-[1.5px] px-3! text-[16px]!" onClick={press}>
          {label}
        </PlainKey>
      ))}
    </span>
  );
  if (proof.kind === 'works' || proof.kind === 'asComplained')
    return pair(['Works', () => write('works', 'works')], ['Does not', () => write('dead', 'dead')]);
  if (proof.kind === 'interlock' || proof.kind === 'withoutPressure') {
    const { stops, goesOn } = stopWords(kindOfPart(speaker, proof.part));
    return pair(
      [stops, () => write('dead', stops.toLowerCase())],
      [goesOn, () => write('works', goesOn.toLowerCase())],
    );
  }
  if (proof.kind === 'tight')
    return pair(['Tight', () => write('none', 'tight')], ['Leaks', () => write('bubbles', 'leaks')]);
  if (proof.kind === 'care')
    return proof.care === 'dated'
      ? null
      : pair(['Done', () => write('none', 'done')], ['Not so', () => write('bubbles', 'not so')]);
  if (proof.kind === 'fuseHolds')
    return pair(['Held', () => write('holds', 'held')], ['Blew', () => write('blows', 'blew')]);
  if (proof.kind === 'code') {
    const code = log.state.codes.find(({ key }) => key === proof.code);
    return code ? (
      <PlainKey
        className="px-3! text-[16px]!"
        onClick={() => log.write({ type: 'code', body: { ...code.entry.body, present: false } })}
      >
        Gone
      </PlainKey>
    ) : null;
  }
  if (proof.kind === 'ledger' || proof.kind === 'isolation' || proof.kind === 'wire') return null;
  if (proof.kind === 'insulation')
    return (
      <DeadWork test={proof.test}>
        <FigureForm
          quantity="ohms"
          label="Insulation"
          takesOverRange
          onPin={({ value, typed }) => write(value, typed)}
        />
      </DeadWork>
    );
  if (proof.kind === 'changesOver')
    return (
      <DeadWork test={proof.test}>
        <FigureForm
          quantity="pressure"
          label="Changes over at"
          takesOverRange
          onPin={({ value, typed }) => write(value, typed)}
        />
      </DeadWork>
    );
  if (proof.kind === 'followed') return <Followed test={proof.test} dead={proof.dead} onRead={write} />;
  if (proof.kind === 'pressure')
    return <FigureForm quantity="pressure" label="Gauge" onPin={({ value, typed }) => write(value, typed)} />;
  return (
    <FigureForm
      quantity={proof.kind === 'current' ? 'amps' : 'volts'}
      label={proof.kind === 'current' ? 'Amps' : 'Volts'}
      onPin={({ value, typed }) => write(value, typed)}
    />
  );
}

/** What of a place changes with its warmth so that it is asked; null where nothing does. */
function warmthOf(model: CircuitModel, test: Test): 'Winding' | 'Insulation' | null {
  if (test.kind === 'insulation') return 'Insulation';
  return windingRead(model, test) === null ? null : 'Winding';
}

/** A place that is followed over the years: its figure, and how warm it is. */
function Followed({
  test,
  dead,
  onRead,
}: {
  test: Test;
  dead: boolean;
  onRead: (value: Reading['value'], found: string, more?: { celsius?: number }) => void;
}) {
  const { speaker } = useDesk();
  const [celsius, setCelsius] = useState('');
  const warmth = useMemo(() => warmthOf(speaker.model, test), [speaker, test]);
  const shows = figureOf(test.kind);
  const warm = celsius.trim() === '' ? undefined : parseCelsius(celsius);
  const form = (
    <>
      {warmth ? <WarmAt what={warmth} typed={celsius} wrong={warm === null} onType={setCelsius} /> : null}
      {warm === null ? null : (
        <FigureForm
          quantity={shows.quantity}
          label={followedWords(speaker, test)}
          takesOverRange={shows.over !== Infinity}
          onPin={({ value, typed }) => onRead(value, typed, warm === undefined ? {} : { celsius: warm })}
        />
      )}
    </>
  );
  return dead ? <DeadWork test={test}>{form}</DeadWork> : form;
}

/** A test on the dead circuit: how it is set up, and its answer only while the plan stands. */
function DeadWork({ test, children }: { test: Test; children: ReactNode }) {
  const { speaker, log, job } = useDesk();
  const plan = useMemo(() => isolationPlan(speaker.model), [speaker]);
  const shut = shutWords(testGate(speaker.model, plan, log.state, test, job.me));
  return (
    <div className="basis-full pb-2 pl-8">
      <SetupSteps test={test} />
      {shut ? (
        <Hold>
          {shut.what} {shut.why}
        </Hold>
      ) : (
        children
      )}
    </div>
  );
}

/** Locks that are still on, to come off in their order, each by its owner. */
function Locks() {
  const { log, speaker } = useDesk();
  const plan = useMemo(() => isolationPlan(speaker.model), [speaker]);
  const points = [...locksOff(speaker.model, log.state, plan).keys()];
  return (
    <section aria-labelledby="locks" className="mt-4">
      <Heading id="locks" aside="off in order, each by its owner">
        Locks still on
      </Heading>
      {points.length === 0 ? <p className="py-3 text-verdi">✓ No lock is left on.</p> : null}
      <ul>
        {points.flatMap((point, at) =>
          (log.state.locks.get(point) ?? []).map((lock) => (
            <LockLine key={lock.id} lock={lock} next={at === 0} reason="work done, put back to service" />
          )),
        )}
      </ul>
    </section>
  );
}
