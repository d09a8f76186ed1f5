'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { useForm } from 'react-hook-form';
import type { PartKind } from '@/core/kinds/part/module';
import { LABELLED, SPARE_MEDIA, type RatingName, type SpareRatings } from '@/core/shed/spares';
import { parseFigure } from '@/core/units/parseFigure';
import type { SpareRow } from '@/db/spares';
import { Form } from '@/ui/Form';
import { Field, FIELD, Heading, MainKey, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { KIND_NAMES } from '@/words/en/drawing';
import { capital } from '@/words/en/capital';
import { MOVE_WORDS, RATING_NAMES } from '@/words/en/spares';
import { askPieces, keepSpare, movePieces } from './actions';
import { sent } from '../sent';
import { useMay } from '@/ui/who';

const RATINGS = Object.keys(RATING_NAMES) as RatingName[];
/** Ratings that are one of a few words. */
const CHOICES: Readonly<Partial<Record<RatingName, readonly string[]>>> = {
  current: ['DC', 'AC'],
  medium: SPARE_MEDIA,
};
const FIGURES = RATINGS.filter(
  (name): name is Exclude<RatingName, 'current' | 'ways' | 'medium'> =>
    name !== 'current' && name !== 'ways' && name !== 'medium',
);

/** Units that a name says already. */
const SELF_SAID: readonly string[] = ['', 'V', 'Ω', 'W', 'VA', 'A', 's'];

interface Typed extends Record<string, string> {
  number: string;
  name: string;
  kind: string;
  current: string;
  ways: string;
  medium: string;
  fitting: string;
  place: string;
  minimum: string;
  price: string;
  leadDays: string;
  supplier: string;
}

/** A spare's card: what its label says, where it lies, and what it costs. */
export function SpareCard({
  spare,
  kinds,
}: {
  spare: SpareRow | null;
  /** Kinds of part, by name. */
  kinds: readonly PartKind[];
}) {
  const router = useRouter();
  const { register, handleSubmit, watch } = useForm<Typed>({ defaultValues: typedOf(spare) });
  const [trouble, setTrouble] = useState<string | null>(null);
  const [kept, setKept] = useState(false);
  const [busy, start] = useTransition();
  const keep = handleSubmit((typed) => {
    const read = factsOf(typed);
    if ('trouble' in read) return setTrouble(read.trouble);
    start(async () => {
      const answer = await sent(keepSpare({ ...read.facts, id: spare?.id ?? null }));
      setTrouble(answer.trouble);
      setKept(answer.trouble === null);
      if (answer.trouble === null && typed.number.trim() !== spare?.number)
        router.push(`/parts/${encodeURIComponent(typed.number.trim())}`);
    });
  });
  // What its kind has on its label, and what was written on this card all the same.
  const typed = watch();
  const own = LABELLED[typed.kind as PartKind];
  const shown = [...own, ...RATINGS.filter((name) => !own.includes(name) && typed[name])];
  const rating = (name: RatingName) => {
    const { name: words, unit } = RATING_NAMES[name];
    const said = capital(words);
    const choices = CHOICES[name];
    return (
      <Field key={name} label={SELF_SAID.includes(unit) ? said : `${said}, ${unit}`}>
        {choices ? (
          <select className={FIELD} {...register(name)}>
            <option value="">not said</option>
            {choices.map((choice) => (
              <option key={choice} value={choice}>
                {choice}
              </option>
            ))}
          </select>
        ) : name === 'ways' ? (
          <input className={FIELD} maxLength={10} placeholder="5/3" {...register(name)} />
        ) : (
          <input className={`${FIELD} fig`} inputMode="decimal" {...register(name)} />
        )}
      </Field>
    );
  };
  return (
    <Form
      className="grid grid-cols-2 gap-3 pt-2 max-tablet:grid-cols-1"
      onSubmit={(event) => void keep(event)}
    >
      <Field label="Number">
        <input className={FIELD} maxLength={60} {...register('number')} />
      </Field>
      <Field label="What it is">
        <input className={FIELD} maxLength={160} {...register('name')} />
      </Field>
      <Field label="Kind of part">
        <select className={FIELD} {...register('kind')}>
          {kinds.map((kind) => (
            <option key={kind} value={kind}>
              {KIND_NAMES[kind]}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Plug, thread, ports">
        <input className={FIELD} maxLength={200} {...register('fitting')} />
      </Field>
      <div className="col-span-full">
        <Heading aside="what stands there; empty where it says nothing">Its label</Heading>
      </div>
      {shown.map(rating)}
      <div className="col-span-full">
        <Heading>The shelf</Heading>
      </div>
      <Field label="Where it lies">
        <input className={FIELD} maxLength={120} {...register('place')} />
      </Field>
      <Field label="Never fewer than">
        <input className={`${FIELD} fig`} inputMode="numeric" {...register('minimum')} />
      </Field>
      <Field label="Price">
        <input className={`${FIELD} fig`} inputMode="decimal" {...register('price')} />
      </Field>
      <Field label="Days until it comes">
        <input className={`${FIELD} fig`} inputMode="numeric" {...register('leadDays')} />
      </Field>
      <Field label="Supplier" className="col-span-full">
        <input className={FIELD} maxLength={160} {...register('supplier')} />
      </Field>
      {trouble ? (
        <div className="col-span-full">
          <Trouble>{trouble}</Trouble>
        </div>
      ) : null}
      <div className="col-span-full flex items-center gap-4">
        <MainKey type="submit" disabled={busy}>
          Keep it
        </MainKey>
        <span role="status" className="text-verdi">
          {kept ? '✓ Kept.' : ''}
        </span>
      </div>
    </Form>
  );
}

/** Pieces that come and go by hand, and asking for more. */
export function MovePieces({ number }: { number: string }) {
  const keepsStock = useMay('stock');
  const [count, setCount] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, start] = useTransition();
  const act = (work: (count: number) => Promise<{ trouble: string | null }>) => {
    const typed = parseFigure(count);
    if (typed.is !== 'figure' || !Number.isInteger(typed.value))
      return setTrouble(`“${count}” is no number of pieces; type a whole one.`);
    start(async () => {
      const answer = await work(typed.value);
      setTrouble(answer.trouble);
      if (answer.trouble === null) setCount('');
    });
  };
  return (
    <div className="py-2">
      <div className="flex flex-wrap items-end gap-3">
        <TextField
          label="Pieces"
          className="w-[110px]"
          figure
          inputMode="numeric"
          value={count}
          onType={setCount}
        />
      </div>
      <div className="flex flex-wrap gap-2 pt-2">
        {keepsStock ? (
          <>
            <PlainKey disabled={busy} onClick={() => act((by) => sent(movePieces(number, by, 'counted')))}>
              Counted, more or fewer
            </PlainKey>
            <PlainKey
              disabled={busy}
              onClick={() => act((by) => sent(movePieces(number, -Math.abs(by), 'sentBack')))}
            >
              {capital(MOVE_WORDS.sentBack)}
            </PlainKey>
          </>
        ) : null}
        <PlainKey disabled={busy} onClick={() => act((by) => sent(askPieces(number, by)))}>
          Ask for so many
        </PlainKey>
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </div>
  );
}

function typedOf(spare: SpareRow | null): Typed {
  const words = (value: number | string | null | undefined) =>
    value === null || value === undefined ? '' : String(value);
  return {
    number: spare?.number ?? '',
    name: spare?.name ?? '',
    kind: spare?.kind ?? 'coil',
    current: words(spare?.ratings.current),
    ways: words(spare?.ratings.ways),
    medium: words(spare?.ratings.medium),
    ...Object.fromEntries(FIGURES.map((name) => [name, words(spare?.ratings[name])])),
    fitting: spare?.fitting ?? '',
    place: spare?.place ?? '',
    minimum: words(spare?.minimum ?? 0),
    price: words(spare?.price),
    leadDays: words(spare?.lead_days),
    supplier: spare?.supplier ?? '',
  };
}

type Facts = Omit<Parameters<typeof keepSpare>[0], 'id'>;

/** The card as it was typed; what is no figure is named, and nothing is made of it. */
function factsOf(typed: Typed): { facts: Facts } | { trouble: string } {
  const wrong: string[] = [];
  const figure = (text: string | undefined, label: string): number | undefined => {
    const read = parseFigure(text ?? '');
    if (read.is === 'none')
      wrong.push(`${label}: “${read.typed}” is no figure; type one such as 24, or nothing.`);
    return read.is === 'figure' ? read.value : undefined;
  };
  const ratings: Record<string, unknown> = {};
  for (const name of FIGURES) {
    const value = figure(typed[name], RATING_NAMES[name].name);
    if (value !== undefined) ratings[name] = value;
  }
  if (typed.current) ratings.current = typed.current;
  if (typed.ways.trim()) ratings.ways = typed.ways.trim();
  if (typed.medium) ratings.medium = typed.medium;
  const minimum = figure(typed.minimum, 'Never fewer than') ?? 0;
  const price = figure(typed.price, 'Price') ?? null;
  const leadDays = figure(typed.leadDays, 'Days until it comes') ?? null;
  if (wrong[0]) return { trouble: wrong[0] };
  const { number, name, kind, fitting, place, supplier } = typed;
  return {
    facts: {
      number,
      name,
      kind: kind as PartKind,
      ratings: ratings as SpareRatings,
      fitting,
      place,
      minimum,
      price,
      leadDays,
      supplier,
    },
  };
}
