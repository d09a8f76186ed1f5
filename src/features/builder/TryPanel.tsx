'use client';

import { useState } from 'react';
import { setControl } from '@/core/draw/editCircuit';
import type { Setup } from '@/core/circuit/schema';
import { Hold, Nothing, PlainKey, TextField } from '@/ui/sheet';
import type { DrawingState } from './useDrawing';
import { Form } from '@/ui/Form';

/** The controls pressed as on the machine; their positions can be added to here. */
export function TryPanel({
  state,
  setup,
  onSetup,
  chatters,
  blown,
}: {
  state: DrawingState;
  setup: Setup;
  onSetup: (setup: Setup) => void;
  chatters: boolean;
  blown: readonly string[];
}) {
  const { circuit } = state.drawing;
  const controls = Object.entries(circuit.controls);
  const [adding, setAdding] = useState('');
  const sources = circuit.parts.filter(
    ({ kind }) => kind === 'source' || kind === 'airSupply' || kind === 'pump',
  );
  const off = setup.isolated ?? [];
  return (
    <div data-testid="try">
      {controls.length === 0 ? (
        <Nothing>No control yet. A switch, button, driver or timer in a chain brings its own.</Nothing>
      ) : null}
      {controls.map(([control, positions]) => {
        const now = setup.controls?.[control] ?? positions[0]!;
        return (
          <div
            key={control}
            role="group"
            aria-label={control}
            className="flex flex-wrap items-center gap-3 py-1"
          >
            <span className="w-40 truncate font-[650]" title={control}>
              {control}
            </span>
            <span className="flex flex-wrap">
              {positions.map((position) => (
                <PlainKey
                  key={position}
                  aria-pressed={position === now}
                  className="-ml-[1.5px] px-4!"
                  onClick={() => onSetup({ ...setup, controls: { ...setup.controls, [control]: position } })}
                >
                  {position}
                </PlainKey>
              ))}
            </span>
          </div>
        );
      })}
      {sources.length > 0 ? (
        <div role="group" aria-label="Supplies" className="flex flex-wrap items-center gap-3 py-1">
          <span className="w-40 font-[650]">Supplies</span>
          <span className="flex flex-wrap">
            {sources.map(({ ref }) => {
              const isolated = off.includes(ref);
              return (
                <PlainKey
                  key={ref}
                  aria-pressed={!isolated}
                  className="-ml-[1.5px] px-4!"
                  onClick={() =>
                    onSetup({
                      ...setup,
                      isolated: isolated ? off.filter((one) => one !== ref) : [...off, ref],
                    })
                  }
                >
                  {ref} {isolated ? 'off' : 'on'}
                </PlainKey>
              );
            })}
          </span>
        </div>
      ) : null}
      {blown.length > 0 ? (
        <p role="status" className="mt-2 border-l-[6px] border-stamp bg-stamp-t px-4 py-2 text-stamp">
          {blown.join(', ')} blows in this position: what is shown is after that.
        </p>
      ) : null}
      {chatters ? (
        <p role="status" className="mt-2 border-l-[6px] border-stamp bg-stamp-t px-4 py-2 text-stamp">
          It finds no rest in this position: a relay opens its own feed.
        </p>
      ) : null}
      <Form
        className="mt-3 flex max-w-[460px] items-end"
        onSubmit={(event) => {
          event.preventDefault();
          const [name = '', list = ''] = adding.split('=').map((one) => one.trim());
          const positions = list.split(/[|,]/).map((one) => one.trim());
          if (!name || positions.filter(Boolean).length === 0) return;
          state.change(setControl(circuit, name, [...new Set(positions.filter(Boolean))]));
          setAdding('');
        }}
      >
        <TextField
          label="A control and its positions, rest first"
          className="flex-1"
          value={adding}
          placeholder="lever=rest, left, right"
          onType={setAdding}
        />
        <PlainKey type="submit" className="-ml-[1.5px]" disabled={!/^[^=]+=.*\S/.test(adding)}>
          Set
        </PlainKey>
      </Form>
      <div className="mt-4">
        <Hold>This is a drawing that is tried, not the machine.</Hold>
      </div>
    </div>
  );
}
