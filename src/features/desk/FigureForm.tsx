'use client';

import { useState } from 'react';
import { readAs } from '@/core/units/readAs';
import { baseUnit, type Quantity } from '@/core/units/quantities';
import { FIELD, MainKey, Trouble } from '@/ui/sheet';
import { figureTrouble } from '@/words/en/figures';
import { useDesk } from './desk';
import { Form } from '@/ui/Form';

/** What was typed, in the unit that is kept; `OL` only where a form takes it. */
export interface TypedFigure {
  value: number | 'OL';
  /** As it was typed, with the usual unit where none was. */
  typed: string;
}

/**
 * One figure of one quantity, typed and pinned. A unit that was typed counts; another quantity is refused with a sentence
 * and stays in the field.
 */
export function FigureForm({
  quantity,
  label,
  takesOverRange = false,
  onPin,
}: {
  quantity: Quantity;
  label: string;
  /** Over range is an answer here: an open coil on the bench. */
  takesOverRange?: boolean;
  onPin: (figure: TypedFigure) => void;
}) {
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  // Unit that counts where none is typed, and how it is written.
  const { gaugeUnit } = useDesk().speaker;
  const usual = quantity === 'pressure' ? gaugeUnit : baseUnit(quantity);
  const sign = usual === 'ohm' ? 'Ω' : usual;
  const pin = () => {
    const read = readAs(quantity, text, usual);
    const over = !read.ok && read.why === 'overRange' && takesOverRange;
    if (!read.ok && !over) {
      setTrouble(figureTrouble(quantity, text, read, gaugeUnit));
      return;
    }
    setTrouble(null);
    setText('');
    const typed = text.trim();
    if (read.ok) onPin({ value: read.value, typed: read.typed.unit ? typed : `${typed} ${sign}` });
    else onPin({ value: 'OL', typed });
  };
  return (
    <Form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        pin();
      }}
    >
      <input
        aria-label={label}
        className={`${FIELD} fig w-[92px]!`}
        inputMode="decimal"
        placeholder={sign}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <MainKey type="submit" className="px-3! text-[16px]!" disabled={text.trim() === ''}>
        Pin
      </MainKey>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </Form>
  );
}
