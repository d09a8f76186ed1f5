'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { parseFigure } from '@/core/units/parseFigure';
import { Field, FIELD, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { SheetDialog } from '@/ui/SheetDialog';
import { USUAL_METER, type MeterInHand } from './meterProfile';
import { Form } from '@/ui/Form';
import type { LiveSource } from '../meter/liveSource';
import { SourceFields } from '../meter/SourceFields';

const FIELDS = [
  ['accuracyPercent', 'Accuracy, % of reading', 0, 20],
  ['counts', 'Counts of the last digit', 0, 100],
  ['leadOhms', 'Leads held together read, Ω', 0, 20],
  ['loadMegohms', 'Own resistance on volts, MΩ', 0.001, 10_000],
] as const;

export function MeterDialog({
  open,
  meter,
  source,
  onOpenChange,
  onKeep,
  onSource,
}: {
  open: boolean;
  meter: MeterInHand;
  source: LiveSource;
  onOpenChange: (open: boolean) => void;
  onKeep: (meter: MeterInHand) => void;
  onSource: (source: LiveSource) => void;
}) {
  return (
    <SheetDialog open={open} onOpenChange={onOpenChange} title="The meter in your hand">
      <MeterForm
        meter={meter}
        onKeep={(next) => {
          onKeep(next);
          onOpenChange(false);
        }}
      />
      <SourceFields source={source} onSource={onSource} />
    </SheetDialog>
  );
}

function MeterForm({ meter, onKeep }: { meter: MeterInHand; onKeep: (meter: MeterInHand) => void }) {
  const { register, handleSubmit } = useForm({
    defaultValues: {
      name: meter.name,
      over: meter.over,
      accuracyPercent: String(meter.accuracyPercent),
      counts: String(meter.counts),
      leadOhms: String(meter.leadOhms),
      loadMegohms: String(meter.loadMegohms),
    },
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  const keep = handleSubmit((text) => {
    const figures: Partial<Record<(typeof FIELDS)[number][0], number>> = {};
    for (const [key, label, least, most] of FIELDS) {
      const read = parseFigure(text[key]);
      const value = read.is === 'figure' ? read.value : NaN;
      if (!(value >= least && value <= most)) {
        return setTrouble(`${label}: “${text[key]}” is not between ${least} and ${most}.`);
      }
      figures[key] = value;
    }
    onKeep({ ...meter, ...figures, name: text.name.trim() || USUAL_METER.name, over: text.over.trim() });
  });
  return (
    <Form className="grid grid-cols-2 gap-x-4 gap-y-2 p-5 pt-3" onSubmit={(event) => void keep(event)}>
      <Field label="Name" className="col-span-2">
        <input className={FIELD} maxLength={60} {...register('name')} />
      </Field>
      {FIELDS.map(([key, label]) => (
        <Field key={key} label={label}>
          <input className={`${FIELD} fig`} inputMode="decimal" {...register(key)} />
        </Field>
      ))}
      <Field label="Shows for over-range">
        <input className={`${FIELD} fig`} maxLength={8} {...register('over')} />
      </Field>
      {trouble ? (
        <div className="col-span-2">
          <Trouble>{trouble}</Trouble>
        </div>
      ) : null}
      <div className="col-span-2 flex gap-3 pt-2">
        <MainKey type="submit">Keep it</MainKey>
        <PlainKey onClick={() => onKeep(USUAL_METER)}>A usual meter</PlainKey>
      </div>
    </Form>
  );
}
