'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { shareChanges } from '@/core/circuit/shareChanges';
import type { Circuit } from '@/core/circuit/schema';
import { Field, FIELD, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { SheetDialog } from '@/ui/SheetDialog';
import type { OpenDrawing } from './schema';
import { keepDrawing } from './actions';
import { Form } from '@/ui/Form';

/** Keeping a drawing: under which name, why, and in which other functions its shared parts change too. */
export function KeepDialog({
  open,
  onOpen,
  desk,
  basedOn,
  circuit,
  onKept,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  desk: OpenDrawing;
  basedOn: number;
  circuit: Circuit;
  onKept: (functionId: string, version: number) => void;
}) {
  const { register, handleSubmit } = useForm<{ name: string; note: string; also: string[] }>({
    defaultValues: {
      name: desk.name || circuit.name,
      note: '',
      also: desk.siblings.map(({ id }) => id),
    },
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const touched = desk.siblings.filter(
    (sibling) => desk.functionId !== null && shareChanges(desk.circuit, circuit, sibling.circuit) !== null,
  );
  const keep = handleSubmit(async ({ name, note, also }) => {
    setBusy(true);
    const answer = await keepDrawing({
      machine: desk.machine.code,
      functionId: desk.functionId,
      basedOn,
      name,
      note,
      circuit,
      also: touched.map(({ id }) => id).filter((id) => also.includes(id)),
    }).catch(() => ({
      trouble: 'The server does not answer. The drawing is safe on this device; try again.',
    }));
    setBusy(false);
    if ('trouble' in answer) setTrouble(answer.trouble);
    else onKept(answer.functionId, answer.version);
  });
  return (
    <SheetDialog
      open={open}
      onOpenChange={onOpen}
      title={`Keep it ${desk.functionId ? `as version ${basedOn + 1}` : `on ${desk.machine.code}`}`}
    >
      <Form className="grid gap-3 p-5 pt-3" onSubmit={(event) => void keep(event)}>
        <Field label="What the function is called">
          <input className={FIELD} maxLength={160} {...register('name')} />
        </Field>
        <Field label="What changed, and why">
          <input className={FIELD} maxLength={300} {...register('note')} />
        </Field>
        {touched.length > 0 ? (
          <fieldset>
            <legend className="text-[15.5px] font-[700]">Shared parts change in these as well</legend>
            {touched.map(({ id, name: other }) => (
              <label key={id} className="flex min-h-11 items-center gap-3">
                <input type="checkbox" className="size-5" value={id} {...register('also')} />
                {other}
              </label>
            ))}
          </fieldset>
        ) : null}
        {desk.functionId ? (
          <p className="text-[15.5px] text-ink2">
            Jobs that are open keep the version they were opened on, until somebody takes the new one.
          </p>
        ) : null}
        {trouble ? <Trouble>{trouble}</Trouble> : null}
        <div className="flex gap-3">
          <MainKey type="submit" disabled={busy}>
            {busy ? 'Keeping' : 'Keep it'}
          </MainKey>
          <PlainKey onClick={() => onOpen(false)}>Not yet</PlainKey>
        </div>
      </Form>
    </SheetDialog>
  );
}
