'use client';

import { Command } from 'cmdk';
import { useMemo, useRef, useState } from 'react';
import { layChains, type Drawing, type Known } from '@/core/draw/layChain';
import { CHAIN_WORDS } from '@/core/draw/words';
import { InputError } from '@/core/circuit/inputError';
import { FIELD } from '@/ui/sheet';

/** What can be picked with a finger, in the order a run is usually drawn. */
const PICKS = [
  'battery',
  'fuse',
  'wire',
  'switch',
  'relay',
  'driver',
  'plug',
  'coil',
  'lamp',
  'motor',
  'diode',
  'ground',
];
const MOST_OFFERS = 8;

/**
 * The line a run is typed into, as a chain from where one stands. It sits where the keyline sits: what is typed is
 * tried as it grows, and drawn on Enter.
 */
export function ChainLine({
  drawing,
  known,
  onDrawing,
}: {
  drawing: Drawing;
  known: Known;
  onDrawing: (drawing: Drawing) => void;
}) {
  const [text, setText] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const tried = useMemo(() => {
    if (text.trim() === '') return null;
    try {
      return { next: layChains(drawing, text, known) };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { problem: error.problem };
    }
  }, [text, drawing, known]);
  const draw = () => {
    if (!tried) return;
    if ('problem' in tried) {
      setRefused(tried.problem ?? null);
      return;
    }
    onDrawing(tried.next);
    setText('');
    setRefused(null);
    input.current?.focus();
  };
  const nodes = useMemo(
    () => [...new Set(drawing.circuit.parts.flatMap((part) => Object.values(part.nodes) as string[]))],
    [drawing.circuit],
  );
  const last = text
    .split(/[,;\n]/)
    .at(-1)!
    .trimStart();
  const offers = offersFor(last, drawing, known, nodes);
  const append = (word: string) => {
    const begin = text.slice(0, text.length - last.length);
    // A pick that does not go on from what is typed begins the next item.
    const goesOn = last === '' || word.toLowerCase().startsWith(last.toLowerCase());
    setText(goesOn ? `${begin}${word}` : `${text.trimEnd()}, ${word}`);
    setRefused(null);
    input.current?.focus();
  };
  const shown = last === '' ? PICKS : offers;
  const added =
    tried && 'next' in tried && tried.next
      ? tried.next.circuit.parts.length - drawing.circuit.parts.length
      : 0;
  return (
    <Command
      shouldFilter={false}
      disablePointerSelection
      label="Chain of parts"
      vimBindings={false}
      className="shrink-0 border-t-2 border-ink bg-film print:hidden"
    >
      <Command.List
        label="To pick"
        className="px-6 pt-1.5 max-tablet:px-3 [&>div]:flex [&>div]:min-h-[50px] [&>div]:flex-wrap [&>div]:items-center [&>div]:gap-x-2"
      >
        {/* What is typed stands before every offer, unseen: Enter draws it until an arrow key has gone on to an offer. */}
        <Command.Item value="as it is typed" hidden onSelect={draw} />
        {shown.map((word) => (
          <Command.Item
            key={word}
            value={word}
            className="flex min-h-11 cursor-pointer items-center px-2.5 text-[16px] font-[650] text-pencil underline decoration-1 underline-offset-4 aria-selected:bg-pencil aria-selected:text-sheet"
            onSelect={() => append(word)}
          >
            {word}
          </Command.Item>
        ))}
      </Command.List>
      <form
        className="flex items-stretch gap-4 px-6 pb-1.5 max-tablet:flex-wrap max-tablet:gap-2 max-tablet:px-3"
        onSubmit={(event) => {
          event.preventDefault();
          draw();
        }}
      >
        <label
          className="flex min-w-[170px] flex-col justify-center text-[15.5px] text-ink2"
          // Its arrow keys are its own, not those of the offers.
          onKeyDown={(event) => event.stopPropagation()}
        >
          You stand at
          <select
            className="fig-bold max-w-[210px] bg-transparent text-[17px] text-ink"
            aria-label="You stand at"
            value={drawing.at ?? ''}
            onChange={(event) => onDrawing({ ...drawing, at: event.target.value || null })}
          >
            {nodes.length === 0 ? <option value="">an empty sheet</option> : null}
            {nodes.length > 0 && drawing.at === null ? <option value="">the supply</option> : null}
            {nodes.map((node) => (
              <option key={node} value={node}>
                {node}
              </option>
            ))}
          </select>
        </label>
        <div className="min-w-0 flex-1 max-tablet:order-2 max-tablet:basis-full">
          <Command.Input
            ref={input}
            className={`${FIELD} h-[52px] text-[19px]!`}
            aria-describedby="chain-said"
            placeholder="battery 12.6, fuse 10, wire, seat switch, plug X31, coil 7.4, plug X31, wire, ground"
            value={text}
            data-chain
            onValueChange={(typed) => {
              setText(typed);
              setRefused(null);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Escape') setText('');
              // These move within the line, not among the offers.
              if (event.key === 'Home' || event.key === 'End') event.stopPropagation();
            }}
          />
          <p
            id="chain-said"
            role="status"
            className={`mt-1.5 min-h-5 text-[15.5px] ${refused ? 'text-stamp' : 'text-ink2'}`}
          >
            {refused
              ? `✕ ${refused}.`
              : tried && 'problem' in tried
                ? `${tried.problem}.`
                : tried
                  ? `${added === 1 ? '1 part' : `${added} parts`}; Enter draws it.`
                  : 'Commas between parts; “ground” or “@node” ends a run; “after F1” begins a branch.'}
          </p>
        </div>
        <button
          type="submit"
          className="h-[52px] min-w-[130px] max-tablet:order-1 max-tablet:ml-auto bg-pencil px-5 text-[19px] font-[750] text-sheet disabled:opacity-55"
          disabled={!tried}
        >
          Draw it
        </button>
      </form>
    </Command>
  );
}

function offersFor(last: string, { circuit }: Drawing, known: Known, nodes: readonly string[]): string[] {
  const typed = last.toLowerCase();
  const own = new Set(circuit.parts.map(({ ref }) => ref));
  const words = [
    ...CHAIN_WORDS,
    ...known.parts.filter(({ ref }) => !own.has(ref)).map(({ ref }) => ref),
    ...circuit.parts.map(({ ref }) => `after ${ref}`),
    ...nodes.map((node) => `@${node}`),
  ];
  return [...new Set(words.filter((word) => word.toLowerCase().startsWith(typed)))].slice(0, MOST_OFFERS);
}
