'use client';

import { useState } from 'react';
import type { Test } from '@/core/circuit/schema';
import { lookUp, meansOf } from '@/core/codes/codeBook';
import type { LiveCode } from '@/core/codes/liveCodes';
import type { StoredBookRow } from '@/db/codeBook';
import { PlainKey } from '@/ui/sheet';
import { useDesk } from '../desk/desk';
import { handleMachine } from './tellBus';
import { useBus } from './useBus';

/** Failure modes of one driver among the live codes, by the machine's code book. */
export function modesOfDriver(
  codes: readonly LiveCode[],
  book: readonly StoredBookRow[],
  functionName: string,
  part: string,
): number[] {
  const modes = codes.flatMap((code) => {
    const match = lookUp(book, code).find(({ row }) => row.function === functionName && row.part === part);
    const means = match ? (match.means ?? meansOf(code)) : null;
    return means === null ? [] : [means];
  });
  return [...new Set(modes)].sort((a, b) => a - b);
}

/** What the bus says to a test of a driver's code, and the simulated machine put into the test's set-up. */
export function BusAnswer({
  test,
  onTake,
}: {
  test: Extract<Test, { kind: 'code' }>;
  onTake: (modes: number[]) => void;
}) {
  const { job } = useDesk();
  const { bus } = useBus(job.machineCode, true);
  const [stands, setStands] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const known = job.book.some((row) => row.function === job.functionName && row.part === test.part);
  if (bus.adapter === null || !known) return null;
  const modes = modesOfDriver(bus.codes, job.book, job.functionName, test.part);
  const said = modes.length === 0 ? 'no code' : `code ${modes.join(', ')}`;
  return (
    <div
      className="flex min-h-[48px] shrink-0 flex-wrap items-center gap-3 border-t-[1.5px] border-rule px-4 py-1"
      data-testid="bus-answer"
      data-said={bus.lost === null ? said : ''}
    >
      <p className={`min-w-0 flex-1 text-[16px] ${bus.lost === null ? '' : 'text-stamp'}`} role="status">
        {trouble ??
          (bus.lost === null ? (
            <>
              The bus says of {test.part}: <strong className="fig-bold">{said}</strong>
            </>
          ) : (
            `Bus lost: ${bus.lost}.`
          ))}
      </p>
      {bus.simulated ? (
        <PlainKey
          className="px-3! text-[16px]!"
          aria-pressed={stands}
          onClick={async () => {
            const problem = await handleMachine(job.machineCode, job.functionName, test.setup);
            setTrouble(problem);
            setStands(problem === null);
          }}
        >
          {stands ? 'Simulated machine stands so' : 'Set the simulated machine so'}
        </PlainKey>
      ) : null}
      <PlainKey
        className="px-3! text-[16px]!"
        disabled={bus.lost !== null || (bus.simulated && !stands)}
        onClick={() => onTake(modes)}
      >
        Take it from the bus
      </PlainKey>
    </div>
  );
}
