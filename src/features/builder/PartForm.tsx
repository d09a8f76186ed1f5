'use client';

import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { changePart, insertBefore, removePart, twoEnds } from '@/core/draw/editCircuit';
import type { Known } from '@/core/draw/layChain';
import { InputError } from '@/core/circuit/inputError';
import type { Circuit, Part } from '@/core/circuit/schema';
import { Field, FIELD, PlainKey, Trouble } from '@/ui/sheet';
import { fieldHint, fieldText, fieldValue, partFields, type PartField } from './partFields';
import type { DrawingState } from './useDrawing';
import { KIND_NAMES } from '@/words/en/drawing';
import { Form } from '@/ui/Form';

/** Every figure and word of one part; each is taken when its field is left, or on Enter. */
export function PartForm({
  part,
  state,
  known,
  sharedWith,
  onChosen,
}: {
  part: Part;
  state: DrawingState;
  known: Known;
  /** Names of other functions that have this very part. */
  sharedWith: readonly string[];
  onChosen: (ref: string | null) => void;
}) {
  const { circuit } = state.drawing;
  const [trouble, setTrouble] = useState<string | null>(null);
  const before = useForm({ defaultValues: { chain: '' } });
  const chain = useWatch({ control: before.control, name: 'chain' });
  const attempt = (work: () => Circuit): boolean => {
    try {
      const next = work();
      setTrouble(null);
      if (JSON.stringify(next) !== JSON.stringify(circuit)) state.change(next);
      return true;
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      setTrouble(
        `${error.field.replace(/^parts\[\d+\]\.?|^circuit\.parts\[\d+\]\.?/, `${part.ref} `)}: ${error.problem}.`,
      );
      return false;
    }
  };
  const set = (field: PartField, typed: string) =>
    attempt(() => changePart(circuit, part.ref, { [field.key]: fieldValue(field, typed) }));
  return (
    <div data-testid="part-form">
      <div className="flex flex-wrap items-baseline gap-x-3 py-2">
        <span className="fig-bold text-[19px]">{part.ref}</span>
        <span className="text-[15.5px] text-ink2">
          {KIND_NAMES[part.kind]}
          {sharedWith.length > 0 ? `, also in ${sharedWith.join(', ')}` : ''}
        </span>
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <div className="grid grid-cols-2 gap-x-4 gap-y-2 desk:grid-cols-3">
        <Typed
          key={`${part.ref} ref`}
          label="Reference"
          text={part.ref}
          onTake={(typed) => {
            const ref = typed.trim();
            const done = attempt(() => changePart(circuit, part.ref, { ref }));
            if (done) onChosen(ref);
            return done;
          }}
        />
        {partFields(part.kind).map((field) =>
          field.choices ? (
            <Field key={field.key} label={field.label}>
              <select
                className={FIELD}
                value={fieldText(part, field)}
                onChange={(event) => set(field, event.target.value)}
              >
                {fieldText(part, field) === '' ? <option value="">not said</option> : null}
                {field.choices.map((choice) => (
                  <option key={choice}>{choice}</option>
                ))}
              </select>
            </Field>
          ) : (
            <Typed
              key={`${part.ref} ${field.key}`}
              label={field.unit ? `${field.label}, ${field.unit}` : field.label}
              text={fieldText(part, field)}
              hint={fieldHint(part, field)}
              onTake={(typed) => set(field, typed)}
            />
          ),
        )}
        {Object.entries(part.nodes as Record<string, string>).map(([key, node]) => (
          <Typed
            key={`${part.ref} node ${key}`}
            label={`End ${key} at`}
            text={node}
            list="nodes"
            onTake={(typed) =>
              attempt(() => changePart(circuit, part.ref, { nodes: { ...part.nodes, [key]: typed.trim() } }))
            }
          />
        ))}
      </div>
      <WhenClosed part={part} circuit={circuit} attempt={attempt} />
      <div className="flex flex-wrap items-end gap-3 py-3">
        {twoEnds(part) ? (
          <Form
            className="flex min-w-[280px] flex-1 items-end"
            onSubmit={(event) =>
              void before.handleSubmit(({ chain: typed }) => {
                if (attempt(() => insertBefore(state.drawing, part.ref, typed, known).circuit))
                  before.reset();
              })(event)
            }
          >
            <Field label={`Put in before ${part.ref}`} className="flex-1">
              <input className={FIELD} placeholder="wire, plug" {...before.register('chain')} />
            </Field>
            <PlainKey type="submit" className="-ml-[1.5px]" disabled={chain.trim() === ''}>
              Put in
            </PlainKey>
          </Form>
        ) : null}
        <PlainKey
          onClick={() => {
            state.change(removePart(circuit, part.ref));
            onChosen(null);
          }}
        >
          Take {part.ref} out
        </PlainKey>
      </div>
    </div>
  );
}

/** Nodes to choose an end's place from, once for all fields. */
export function FieldLists({ circuit }: { circuit: Circuit }) {
  const nodes = [...new Set(circuit.parts.flatMap((part) => Object.values(part.nodes) as string[]))];
  return (
    <datalist id="nodes">
      {nodes.map((node) => (
        <option key={node} value={node} />
      ))}
    </datalist>
  );
}

/** A field that keeps what was typed until it is taken; a refused value stays to be mended. */
function Typed({
  label,
  text,
  hint,
  list,
  onTake,
}: {
  label: string;
  text: string;
  hint?: string | undefined;
  list?: string;
  onTake: (typed: string) => boolean;
}) {
  // Changed elsewhere, by undo or through another field, it shows what stands there now.
  const { register, handleSubmit, reset, setError, formState } = useForm({ values: { typed: text } });
  const refused = formState.errors.typed !== undefined;
  const take = handleSubmit(({ typed }) => {
    // Going back to what stood there clears the refusal too.
    if ((typed !== text || refused) && !onTake(typed)) setError('typed', {});
  });
  return (
    <Field label={label}>
      <input
        className={FIELD}
        aria-invalid={refused}
        placeholder={hint ?? ''}
        {...(list ? { list } : {})}
        {...register('typed', { onBlur: () => void take() })}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void take();
          if (event.key === 'Escape') reset({ typed: text });
        }}
      />
    </Field>
  );
}

/** In which positions of which controls a contact or an output is on: every named control must match. */
function WhenClosed({
  part,
  circuit,
  attempt,
}: {
  part: Part;
  circuit: Circuit;
  attempt: (work: () => Circuit) => boolean;
}) {
  const key = part.kind === 'driver' ? 'onWhen' : 'closedWhen';
  const when = part.kind === 'driver' ? part.onWhen : 'closedWhen' in part ? part.closedWhen : null;
  if (when === null) return null;
  const set = (control: string, positions: string[]) =>
    attempt(() => {
      const others = Object.entries(when).filter(([name]) => name !== control);
      const next = Object.fromEntries(positions.length > 0 ? [...others, [control, positions]] : others);
      return changePart(circuit, part.ref, { [key]: next });
    });
  return (
    <fieldset className="mt-3 border-t-[1.5px] border-rule pt-2">
      <legend className="sr-only">When {part.ref} is closed</legend>
      <p className="text-[15.5px] font-[700]">{part.kind === 'driver' ? 'On' : 'Closed'} when</p>
      {Object.entries(circuit.controls).map(([control, positions]) => (
        <div
          key={control}
          role="group"
          aria-label={control}
          className="flex flex-wrap items-center gap-x-3 py-1"
        >
          <span className="w-36 truncate">{control}</span>
          <span className="flex flex-wrap">
            {positions.map((position) => {
              const own = when[control] ?? [];
              const on = own.includes(position);
              return (
                <PlainKey
                  key={position}
                  aria-pressed={on}
                  className="-ml-[1.5px] px-3! text-[16px]!"
                  onClick={() =>
                    set(control, on ? own.filter((one) => one !== position) : [...own, position])
                  }
                >
                  {position}
                </PlainKey>
              );
            })}
          </span>
        </div>
      ))}
    </fieldset>
  );
}
