'use client';

import { useRef, useState, type ClipboardEvent } from 'react';
import { pastedRows } from '@/formats/table';
import { readAs } from '@/core/units/readAs';
import { middleShown, WANDERS } from '@/core/units/wandering';
import { baseUnit, type Quantity } from '@/core/units/quantities';
import { FIELD, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { figureTrouble } from '@/words/en/figures';
import { useDesk } from './desk';
import { FigureKeys } from '@/ui/FigureKeys';
import { Form } from '@/ui/Form';
import { useMedia } from '@/ui/useMedia';

const PLAIN_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '.', '-', 'm', 'k', 'M'] as const;

/** What was typed, in the unit that is kept; `OL` only where a form takes it. */
export interface TypedFigure {
  value: number | 'OL';
  /** As it was typed, with the usual unit where none was. */
  typed: string;
  /** Every value of a display that wandered; what counts is their middle. */
  wandered?: readonly (number | 'OL')[];
}

/**
 * One figure of one quantity, typed and pinned. A unit that was typed counts; another quantity is refused with a sentence
 * and stays in the field.
 */
export function FigureForm({
  quantity,
  label,
  takesOverRange = false,
  takesWandering = false,
  largeKeys = false,
  onPin,
  onColumn,
}: {
  quantity: Quantity;
  label: string;
  /** Over range is an answer here: an open coil on the bench. */
  takesOverRange?: boolean;
  /** Several values of a display that wanders may be typed, with `~` between. */
  takesWandering?: boolean;
  /** With keys for gloves under it, where it has the room and a finger is what it is filled with. */
  largeKeys?: boolean;
  onPin: (figure: TypedFigure) => void;
  /** Several figures at once, copied from a spreadsheet; null for a line that was blank. */
  onColumn?: (figures: (TypedFigure | null)[]) => void;
}) {
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const touched = useMedia('(pointer: coarse)', false) && largeKeys;
  // Unit that counts where none is typed, and how it is written.
  const { gaugeUnit } = useDesk().speaker;
  const usual = quantity === 'pressure' ? gaugeUnit : baseUnit(quantity);
  const sign = usual === 'ohm' ? 'Ω' : usual;
  /** A figure as it is kept, or the sentence that refuses it. */
  const readOne = (piece: string): TypedFigure | string => {
    const read = readAs(quantity, piece, usual);
    const typed = piece.trim();
    if (read.ok) return { value: read.value, typed: read.typed.unit ? typed : `${typed} ${sign}` };
    if (read.why === 'overRange' && takesOverRange) return { value: 'OL', typed };
    return figureTrouble(quantity, piece, read, gaugeUnit);
  };
  const paste = (event: ClipboardEvent) => {
    const rows = onColumn ? pastedRows(event.clipboardData.getData('text')) : null;
    if (!onColumn || rows === null) return;
    event.preventDefault();
    const wide = rows.findIndex((cells) => cells.length > 1);
    if (wide >= 0)
      return setTrouble(
        `Line ${wide + 1} of what was pasted has ${rows[wide]!.length} columns; copy the one with the figures.`,
      );
    const figures = rows.map(([cell = '']) => (cell === '' ? null : readOne(cell)));
    const refused = figures.findIndex((one) => typeof one === 'string');
    if (refused >= 0) return setTrouble(`Line ${refused + 1}: ${figures[refused] as string}`);
    setTrouble(null);
    setText('');
    onColumn(figures as (TypedFigure | null)[]);
  };
  const pin = () => {
    const shown: TypedFigure[] = [];
    for (const piece of takesWandering ? text.split(WANDERS).filter((one) => one.trim() !== '') : [text]) {
      const read = readOne(piece);
      if (typeof read === 'string') return setTrouble(read);
      shown.push(read);
    }
    if (shown.length === 0) return;
    setTrouble(null);
    setText('');
    if (shown.length === 1) return onPin(shown[0]!);
    const wandered = shown.map(({ value }) => value);
    onPin({
      value: middleShown(wandered),
      typed: shown.map(({ typed }) => typed).join(WANDERS),
      wandered,
    });
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
        ref={field}
        data-answer
        aria-label={label}
        className={`${FIELD} fig w-[92px]!`}
        // Under a finger the large keys stand instead of the device's own, which have no OL and no k.
        inputMode={touched ? 'none' : 'decimal'}
        placeholder={sign}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onPaste={paste}
      />
      {takesWandering ? (
        <PlainKey
          type="button"
          aria-label="wanders, next value"
          disabled={text.trim() === '' || text.endsWith(WANDERS)}
          onClick={() => {
            setText(`${text}${WANDERS}`);
            field.current?.focus();
          }}
        >
          {WANDERS}
        </PlainKey>
      ) : null}
      <MainKey type="submit" className="px-3! text-[16px]!" disabled={text.trim() === ''}>
        Pin
      </MainKey>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      {touched ? (
        <FigureKeys
          keys={[...PLAIN_KEYS, ...(takesOverRange ? ['OL'] : [])]}
          onKey={(key) => setText(key === 'OL' ? key : `${text}${key}`)}
          onErase={() => setText(text === 'OL' ? '' : [...text].slice(0, -1).join(''))}
        />
      ) : null}
    </Form>
  );
}
