'use client';

import { capital } from '@/words/en/capital';
import { Download } from 'lucide-react';
import { Link, LINK } from '@/ui/Link';
import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import type { Template } from '@/core/templates/templates';
import { parseFigure } from '@/core/units/parseFigure';
import { Field, FIELD, Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { classAddress } from '@/words/en/classes';
import { KIND_NAMES } from '@/words/en/drawing';
import { nameMachine, removeFunction } from './actions';
import { sent } from '../sent';
import type { OpenMachine } from './server';
import { Form } from '@/ui/Form';

/** A template as its form needs it: what it asks for, not how it is built. */
export type TemplateChoice = Omit<Template, 'build'>;

/** A machine's library: its functions, what they share, and ways to draw another. */
export function MachineScreen({
  machine,
  equipment,
  defects,
  functions,
  shared,
  differs,
  templates,
}: OpenMachine & { templates: readonly TemplateChoice[] }) {
  const base = `/machines/${encodeURIComponent(machine.code)}`;
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <div className="grid gap-x-9 px-6 pb-8 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_420px]">
      <div className="min-w-0">
        {defects.length > 0 ? (
          <section
            role="alert"
            aria-label="Safety defects"
            className="mt-3 border-l-[6px] border-stamp bg-stamp-t px-4 py-2 text-stamp"
          >
            {defects.map(({ job, text }) => (
              <p key={`${job} ${text}`}>
                <strong>✕ Safety defect.</strong> {capital(text)}.{' '}
                <Link className="underline underline-offset-4" href={`/jobs/${job}?step=prove`}>
                  Job {job}
                </Link>
              </p>
            ))}
          </section>
        ) : null}
        <section aria-labelledby="functions">
          <Heading id="functions" aside={`${functions.length}`}>
            Functions
          </Heading>
          {functions.length === 0 ? (
            <Nothing>
              Nothing is drawn for this machine yet. Draw the first function, or begin from a template.
            </Nothing>
          ) : null}
          {trouble ? <Trouble>{trouble}</Trouble> : null}
          <ul>
            {functions.map(({ id, name, version, alike, parts, works }) => (
              <li
                key={id}
                className="flex min-h-[60px] flex-wrap items-center gap-x-4 gap-y-1 border-b-[1.5px] border-rule py-1.5"
              >
                <span className="min-w-[200px] flex-1">
                  <Link
                    className="text-[18px] font-[700] underline-offset-4 hover:underline"
                    href={`${base}/draw?function=${id}`}
                  >
                    {name}
                  </Link>
                  <span className="block text-[15.5px] text-ink2">
                    {parts} parts, version {version}
                    {alike > 0 ? `, drawn as on ${alike} of its class` : ''}
                    {works.length > 0
                      ? `; ${works.slice(0, 4).join(', ')}${works.length > 4 ? ' …' : ''}`
                      : ''}
                  </span>
                </span>
                <Link className={LINK} href={`${base}/sheet?function=${id}`}>
                  Sheet
                </Link>
                <Link className={LINK} href={`/new?function=${id}`}>
                  New job
                </Link>
                <PlainKey
                  className="px-3! text-[15.5px]!"
                  aria-label={`Take ${name} out`}
                  onClick={async () => setTrouble((await sent(removeFunction(machine.code, id))).trouble)}
                >
                  Take out
                </PlainKey>
              </li>
            ))}
          </ul>
        </section>
        {differs.length > 0 ? (
          <section aria-labelledby="differs" className="mt-6">
            <Heading id="differs" aside="from most machines of its class">
              Differs
            </Heading>
            <ul>
              {differs.map(({ name, machine: other, lines, more }) => (
                <li key={name} className="border-b-[1.5px] border-rule py-2" data-testid="differs">
                  <strong className="font-[700]">{name}</strong>{' '}
                  <span className="text-[15.5px] text-ink2">as on {other} and most others, but</span>
                  {lines.map((line) => (
                    <span key={line} className="block break-words text-[16px]">
                      {line}
                    </span>
                  ))}
                  {more > 0 ? <span className="block text-[15.5px] text-ink2">and {more} more</span> : null}
                </li>
              ))}
            </ul>
          </section>
        ) : null}
        {shared.length > 0 ? (
          <section aria-labelledby="shared" className="mt-6">
            <Heading id="shared" aside="one part, whichever function it is met in">
              Shared parts
            </Heading>
            <ul>
              {shared.map(({ ref, label, kind, functions: names }) => (
                <li
                  key={ref}
                  className="grid min-h-11 grid-cols-[92px_minmax(0,1fr)] items-center gap-x-4 border-b-[1.5px] border-rule py-1"
                >
                  <span className="fig-bold truncate">{ref}</span>
                  <span className="min-w-0 break-words">
                    {label || KIND_NAMES[kind as keyof typeof KIND_NAMES]}
                    <span className="text-[15.5px] text-ink2"> in {names.join(', ')}</span>
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ) : null}
      </div>
      <div className="min-w-0">
        <NewFunction base={base} templates={templates} />
        <section aria-labelledby="more" className="mt-6">
          <Heading id="more">Of this machine</Heading>
          <ul className="text-[16.5px]">
            {machine.equipment ? (
              <li>
                <Link className={LINK} href={classAddress(machine.equipment)}>
                  Its class: {machine.equipment}
                </Link>
              </li>
            ) : null}
            <li>
              <Link className={LINK} href={`${base}/history`}>
                History and drift
              </Link>
            </li>
            <li>
              <Link className={LINK} href={`${base}/drawings`}>
                Drawings, with pins
              </Link>
            </li>
            <li>
              <Link className={LINK} href={`${base}/labels`}>
                Labels to print, with codes
              </Link>
            </li>
            <li>
              <Link className={LINK} href={`${base}/codes`}>
                Code book
              </Link>
            </li>
            <li>
              <Link className={LINK} href={`${base}/bus`}>
                Bus
              </Link>
            </li>
            <li>
              <a className={`${LINK} gap-2`} href={`/api${base}/archive`}>
                <Download size={18} aria-hidden /> The whole machine as one archive
              </a>
            </li>
          </ul>
        </section>
        <Name machine={machine} equipment={equipment} />
      </div>
    </div>
  );
}

/** A function from nothing, or from a template with its few values. */
function NewFunction({ base, templates }: { base: string; templates: readonly TemplateChoice[] }) {
  const [id, setId] = useState('');
  const template = templates.find((one) => one.id === id);
  return (
    <section aria-labelledby="draw">
      <Heading id="draw">Draw a function</Heading>
      <p className="pt-3">
        <Link
          href={`${base}/draw`}
          className="inline-flex min-h-11 items-center bg-pencil px-5 text-[17px] font-[750] text-sheet"
        >
          From an empty sheet
        </Link>
      </p>
      <Field label="Or from a template" className="pt-4">
        <select className={FIELD} value={id} onChange={(event) => setId(event.target.value)}>
          <option value="">choose one</option>
          {templates.map((one) => (
            <option key={one.id} value={one.id}>
              {one.title}
            </option>
          ))}
        </select>
      </Field>
      {template ? <Values key={template.id} base={base} template={template} /> : null}
    </section>
  );
}

function Values({ base, template }: { base: string; template: TemplateChoice }) {
  const usual = Object.fromEntries(template.fields.map(({ key, value }) => [key, String(value)]));
  const { register, control } = useForm<Record<string, string>>({ defaultValues: usual });
  const typed: Readonly<Record<string, string | undefined>> = useWatch({ control });
  const problems = template.fields.flatMap(({ key, label, unit, least, most }) => {
    const own = parseFigure(typed[key] ?? '');
    if (own.is === 'figure' && own.value >= least && own.value <= most) return [];
    return [`${label}: “${typed[key] ?? ''}” is not between ${least} and ${most} ${unit}.`];
  });
  const query = new URLSearchParams({ template: template.id });
  for (const { key } of template.fields)
    if (typed[key] && typed[key] !== usual[key]) query.set(`value.${key}`, typed[key].replace(',', '.'));
  return (
    <div className="grid grid-cols-2 gap-3 pt-3">
      {template.fields.map(({ key, label, unit }) => (
        <Field key={key} label={unit ? `${label}, ${unit}` : label}>
          <input className={FIELD} inputMode="decimal" {...register(key)} />
        </Field>
      ))}
      <div className="col-span-2">
        {problems[0] ? <Trouble>{problems[0]}</Trouble> : null}
        {problems.length === 0 ? (
          <Link
            href={`${base}/draw?${query.toString()}`}
            className="inline-flex min-h-11 items-center border-[1.5px] border-edge bg-sheet px-5 text-[17px] font-[650]"
          >
            Draw it so
          </Link>
        ) : null}
      </div>
    </div>
  );
}

/** What it is called, and what sort of equipment it is: limits may be set for one class alone. */
function Name({ machine, equipment }: Pick<OpenMachine, 'machine' | 'equipment'>) {
  const kept = {
    name: machine.name,
    equipment: machine.equipment ?? '',
    serial: machine.serial ?? '',
    place: machine.place ?? '',
    hours: machine.hours === null ? '' : String(machine.hours),
  };
  const { register, handleSubmit, control } = useForm({ defaultValues: kept });
  const typed = useWatch({ control });
  const [trouble, setTrouble] = useState<string | null>(null);
  const rename = handleSubmit(async (wanted) => {
    const answer = await sent(nameMachine(machine.code, wanted));
    setTrouble(answer.trouble);
  });
  return (
    <Form className="mt-6 grid gap-2" onSubmit={(event) => void rename(event)}>
      <Field label="What it is called">
        <input className={FIELD} maxLength={120} {...register('name')} />
      </Field>
      <div className="grid grid-cols-2 gap-2">
        <Field label="Serial">
          <input className={FIELD} maxLength={60} {...register('serial')} />
        </Field>
        <Field label="Hours">
          <input className={`${FIELD} fig`} inputMode="numeric" {...register('hours')} />
        </Field>
      </div>
      <Field label="Where it stands">
        <input className={FIELD} maxLength={120} {...register('place')} />
      </Field>
      <div className="flex items-end">
        <Field label="Class of equipment, where its limits differ" className="min-w-0 flex-1">
          <input className={FIELD} maxLength={60} list="equipment" {...register('equipment')} />
          <datalist id="equipment">
            {equipment.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </Field>
        <PlainKey
          type="submit"
          className="-ml-[1.5px]"
          disabled={(Object.keys(kept) as (keyof typeof kept)[]).every((key) => typed[key] === kept[key])}
        >
          Keep it
        </PlainKey>
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </Form>
  );
}
