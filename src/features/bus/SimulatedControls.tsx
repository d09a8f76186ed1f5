'use client';

import { useState } from 'react';
import type { Setup } from '@/core/circuit/schema';
import { PlainKey, Trouble } from '@/ui/sheet';
import { handleMachine } from './tellBus';

/** What of a function can be handled on the simulated machine. */
export interface SimulatedFunctionFacts {
  name: string;
  controls: Record<string, string[]>;
  connectors: string[];
  /** Set-up that the simulated machine starts in. */
  setup: Setup;
}

/** Controls and plugs of one function of the simulated machine. */
export function SimulatedControls({ machineCode, of }: { machineCode: string; of: SimulatedFunctionFacts }) {
  const [setup, setSetup] = useState<Setup>(of.setup);
  const [trouble, setTrouble] = useState<string | null>(null);
  const put = async (next: Setup) => {
    const problem = await handleMachine(machineCode, of.name, next);
    setTrouble(problem);
    if (problem === null) setSetup(next);
  };
  const unplugged = setup.unplugged ?? [];
  return (
    <div className="border-b-[1.5px] border-rule py-2">
      <h3 className="text-[17px] font-[750]">{of.name}</h3>
      {Object.entries(of.controls).map(([control, positions]) => (
        <div
          key={control}
          role="group"
          aria-label={control}
          className="flex flex-wrap items-center gap-x-3 py-1"
        >
          <span className="w-24">{control}</span>
          {positions.map((position, at) => (
            <PlainKey
              key={position}
              className="-mr-3 px-4!"
              aria-pressed={(setup.controls?.[control] ?? positions[0]) === position}
              onClick={() => void put({ ...setup, controls: { ...setup.controls, [control]: position } })}
            >
              {position}
              {at === 0 ? <span className="sr-only"> (at rest)</span> : null}
            </PlainKey>
          ))}
        </div>
      ))}
      <div role="group" aria-label="plugs" className="flex flex-wrap items-center gap-x-3 py-1">
        <span className="w-24">plugs</span>
        {of.connectors.map((connector) => {
          const off = unplugged.includes(connector);
          return (
            <PlainKey
              key={connector}
              className="px-4!"
              aria-pressed={off}
              onClick={() =>
                void put({
                  ...setup,
                  unplugged: off ? unplugged.filter((one) => one !== connector) : [...unplugged, connector],
                })
              }
            >
              <span className="fig">{connector}</span> {off ? 'is off' : 'plugged'}
            </PlainKey>
          );
        })}
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </div>
  );
}
