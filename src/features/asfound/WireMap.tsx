'use client';

import { Check } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { drawnEnds, endsOn } from '@/core/job/drawnEnds';
import type { EntryOf } from '@/core/job/entries';
import { kindOf } from '@/core/kinds/part';
import { compareWires, type WireCheck } from '@/core/job/restoreCheck';
import { Field, FIELD, Heading, MainKey, Nothing, PlainKey } from '@/ui/sheet';
import { useDesk } from '../desk/desk';
import { Form } from '@/ui/Form';

type Wire = EntryOf<'wire'>['body'];
const THROUGH = { switched: 'switched', straight: 'straight through', unknown: 'not known' } as const;

/** Every wire as it sits on its terminal: before it comes off, and after the fix against that record. */
export function WireMap({ phase }: { phase: Wire['phase'] }) {
  const { job, log, outlook } = useDesk();
  const verdict = outlook?.diagnosis.verdict;
  const wired = endsOn(job.circuit, log.state.decision?.body);
  const parts = useMemo(
    () =>
      job.circuit.parts
        .filter(({ kind }) => !['wire', 'hose', 'diode', 'silencer'].includes(kind))
        .map(({ ref }) => ref),
    [job.circuit],
  );
  const [chosen, setPart] = useState<string>();
  // What is worked on, once that is known: its ends come off.
  const worked = wired?.part ?? (verdict?.state === 'name' ? verdict.part : undefined);
  const part =
    chosen ??
    parts.find((ref) => ref === worked) ??
    job.circuit.parts.find(({ kind }) => kind === 'coil' || kind === 'relay')?.ref ??
    parts[0] ??
    '';
  const checks = compareWires(log.state);
  const { found } = log.state.wires;
  // What a reading had lifted stands in the ledger, not on the map.
  const off = log.state.ledger.flatMap(({ entry, out }) =>
    entry.body.kind === 'lifted' && !out ? [entry.body.item] : [],
  );
  const hoses = job.circuit.parts.some((one) => kindOf(one).traits.fluid);
  const name = hoses ? 'Wire and hose' : 'Wire';
  const drawn = drawnEnds(job.circuit, part).filter(
    ({ terminal, mark }) =>
      !found.some(({ body }) => body.part === part && body.terminal === terminal && body.mark === mark),
  );
  const mapped = wired !== null && found.some(({ body }) => body.part === wired.part);
  const unmapped = phase === 'left' && off.length === 0 && !mapped ? wired : null;
  return (
    <section aria-labelledby={`wires-${phase}`} className="pb-4">
      <Heading
        id={`wires-${phase}`}
        aside={
          phase === 'found'
            ? `before a ${hoses ? 'wire or hose' : 'wire'} comes off`
            : 'back where they were, one by one'
        }
      >
        {phase === 'found' ? `${name} map` : `${hoses ? 'Wires and hoses' : 'Wires'} back by the map`}
      </Heading>
      {checks.length === 0 || unmapped ? (
        <Nothing>
          {phase === 'found'
            ? 'No wire is on the map yet.'
            : unmapped
              ? `No ${unmapped.lines === 'hoses' ? 'hose' : 'wire'} of ${unmapped.part} is on the map. What comes off ${unmapped.part} goes on it first, under As found.`
              : off.length === 0
                ? 'No wire came off: nothing to put back.'
                : `Off for a reading, and to go back as marked: ${off.join('; ')}. Shown back under Prove.`}
        </Nothing>
      ) : null}
      {checks.length === 0 ? null : (
        <ul>
          {checks.map((check) => (
            <WireRow key={check.found.id} check={check} phase={phase} />
          ))}
        </ul>
      )}
      {phase === 'found' ? (
        <>
          <div className="flex flex-wrap items-end gap-3 py-2">
            <Field label="Part" className="w-[150px]">
              <select className={FIELD} value={part} onChange={(event) => setPart(event.target.value)}>
                {parts.map((ref) => (
                  <option key={ref}>{ref}</option>
                ))}
              </select>
            </Field>
            {drawn.length > 0 ? (
              <PlainKey
                onClick={() =>
                  drawn.forEach((wire) =>
                    log.write({ type: 'wire', body: { ...wire, part, through: 'unknown', phase } }),
                  )
                }
              >
                Take {drawn.length} from the drawing
              </PlainKey>
            ) : null}
          </div>
          <WireForm key={part} part={part} />
        </>
      ) : null}
    </section>
  );
}

function WireRow({ check, phase }: { check: WireCheck; phase: Wire['phase'] }) {
  const { log } = useDesk();
  const { body } = check.found;
  const [other, setOther] = useState('');
  return (
    <li
      className="flex min-h-11 flex-wrap items-center gap-x-3 border-b-[1.5px] border-rule py-1 text-[16px]"
      data-testid="wire"
    >
      <span className="fig-bold w-[110px] truncate">
        {body.part}:{body.terminal}
      </span>
      <span className="min-w-0 flex-1">
        <span className="fig">{body.mark || 'no mark'}</span>
        {body.colour ? ` ${body.colour}` : ''}
        {body.to ? <span className="text-ink2">, to {body.to}</span> : null}
        {body.through === 'unknown' ? null : <span className="text-ink2">, {THROUGH[body.through]}</span>}
        {check.differs.length > 0 ? (
          <span className="block text-stamp">✕ {check.differs.join(', ')}</span>
        ) : null}
      </span>
      {phase === 'found' ? (
        <PlainKey
          className="px-3! text-[16px]!"
          onClick={() => log.write({ type: 'withdrawal', supersedes: check.found.id, body: {} })}
        >
          Not on the map
        </PlainKey>
      ) : check.state === 'same' ? (
        <span className="flex min-h-11 items-center gap-1.5 text-verdi">
          <Check size={18} strokeWidth={3} aria-hidden /> as found
        </span>
      ) : (
        <span className="flex items-center gap-2">
          <PlainKey
            className="px-3! text-[16px]!"
            onClick={() =>
              log.write({
                type: 'wire',
                body: { ...body, phase: 'left' },
                ...(check.left && check.left.body.terminal === body.terminal
                  ? { supersedes: check.left.id }
                  : {}),
              })
            }
          >
            It is back
          </PlainKey>
          <input
            aria-label={`Other terminal of wire ${body.mark}`}
            className={`${FIELD} w-[110px]!`}
            placeholder="on another"
            value={other}
            onChange={(event) => setOther(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' || other.trim() === '') return;
              log.write({ type: 'wire', body: { ...body, terminal: other.trim(), phase: 'left' } });
              setOther('');
            }}
          />
        </span>
      )}
    </li>
  );
}

const BLANK_WIRE = { terminal: '', mark: '', colour: '', to: '', through: 'unknown' as Wire['through'] };

function WireForm({ part }: { part: string }) {
  const { log } = useDesk();
  const { register, handleSubmit, reset, watch } = useForm({ defaultValues: BLANK_WIRE });
  const text = (key: 'terminal' | 'mark' | 'colour' | 'to', label: string) => (
    <Field label={label}>
      <input className={FIELD} maxLength={60} {...register(key)} />
    </Field>
  );
  const add = handleSubmit((wire) => {
    if (wire.terminal.trim() === '') return;
    log.write({ type: 'wire', body: { ...wire, terminal: wire.terminal.trim(), part, phase: 'found' } });
    reset(BLANK_WIRE);
  });
  return (
    <Form
      className="grid grid-cols-[1fr_1fr_1fr_1fr_1.5fr_auto] items-end gap-2 max-tablet:grid-cols-2"
      onSubmit={(event) => void add(event)}
    >
      {text('terminal', 'Terminal')}
      {text('mark', 'Mark')}
      {text('colour', 'Colour')}
      {text('to', 'Goes to')}
      <Field label="Contact">
        <select className={FIELD} {...register('through')}>
          {Object.entries(THROUGH).map(([key, label]) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      </Field>
      <MainKey type="submit" disabled={watch('terminal').trim() === ''}>
        Add
      </MainKey>
    </Form>
  );
}
