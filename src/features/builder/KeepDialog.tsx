'use client';

import { useState } from 'react';
import { useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { shareChanges } from '@/core/circuit/shareChanges';
import type { Circuit } from '@/core/circuit/schema';
import { Field, FIELD, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { SheetDialog } from '@/ui/SheetDialog';
import type { OpenDrawing } from './schema';
import { keepDrawing } from './actions';
import { sent } from '../sent';
import { Form } from '@/ui/Form';

interface Wanted {
  name: string;
  note: string;
  also: string[];
  onto: string[];
}

/** Machines of the class that were drawn the same: which of them are built as the new drawing says, nobody but who looks can tell. */
function AlikeMachines({
  alike,
  register,
  control,
  setValue,
}: { alike: OpenDrawing['alike'] } & Pick<UseFormReturn<Wanted>, 'register' | 'control' | 'setValue'>) {
  const onto = useWatch({ control, name: 'onto' });
  const all = onto.length === alike.length;
  return (
    <fieldset>
      <legend className="text-[15.5px] font-[700]">
        Drawn the same until now on {alike.length === 1 ? 'this machine' : 'these machines'} of its class
      </legend>
      <p className="text-[15.5px] text-ink2">
        Tick those that are built so too. The others keep their drawing, and show where they differ.
      </p>
      {alike.length > 3 ? (
        <PlainKey
          className="mt-1 px-3! text-[15.5px]!"
          onClick={() => setValue('onto', all ? [] : alike.map(({ id }) => id))}
        >
          {all ? 'None of them' : `All ${alike.length}`}
        </PlainKey>
      ) : null}
      <div className="grid max-h-[180px] grid-cols-3 gap-x-4 overflow-y-auto max-phone:grid-cols-2">
        {alike.map(({ id, machine }) => (
          <label key={id} className="flex min-h-11 min-w-0 items-center gap-3">
            <input type="checkbox" className="size-5 shrink-0" value={id} {...register('onto')} />
            <span className="min-w-0 break-words">{machine}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

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
  const { register, handleSubmit, control, setValue } = useForm<Wanted>({
    defaultValues: {
      name: desk.name || circuit.name,
      note: '',
      also: desk.siblings.map(({ id }) => id),
      onto: [],
    },
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const touched = desk.siblings.filter(
    (sibling) => desk.functionId !== null && shareChanges(desk.circuit, circuit, sibling.circuit) !== null,
  );
  const keep = handleSubmit(async ({ name, note, also, onto }) => {
    setBusy(true);
    const answer = await sent(
      keepDrawing({
        machine: desk.machine.code,
        functionId: desk.functionId,
        basedOn,
        name,
        note,
        circuit,
        also: touched.map(({ id }) => id).filter((id) => also.includes(id)),
        onto,
      }),
      { trouble: 'The server does not answer. The drawing is safe on this device; try again.' },
    );
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
        {desk.alike.length > 0 ? (
          <AlikeMachines alike={desk.alike} register={register} control={control} setValue={setValue} />
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
