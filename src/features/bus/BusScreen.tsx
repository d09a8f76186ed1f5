'use client';

import { machineAddress } from '@/ui/machineAddress';
import { Link, LINE_LINK } from '@/ui/Link';
import { useMemo, useState } from 'react';
import { codeKey } from '@/core/codes/codeBook';
import type { LiveCode } from '@/core/codes/liveCodes';
import type { StoredBookRow } from '@/db/codeBook';
import { Heading, Hold, Nothing } from '@/ui/sheet';
import { codeName } from '@/words/en/codes';
import type { CanBitRate } from '@/core/codes/asciiCan';
import { BusSource } from './BusSource';
import { CodeRow } from './CodeRow';
import { EarlierCodes } from './EarlierCodes';
import { Heartbeat } from './Heartbeat';
import { SimulatedControls, type SimulatedFunctionFacts } from './SimulatedControls';
import { useBus } from './useBus';

/** A machine's bus as it is now: heartbeat, who speaks, which codes are there. */
export function BusScreen({
  machineCode,
  book,
  functions,
}: {
  machineCode: string;
  book: StoredBookRow[];
  functions: SimulatedFunctionFacts[];
}) {
  const [plug, setPlug] = useState<CanBitRate | null>(null);
  const { bus, ask } = useBus(machineCode, true, plug);
  const gone = useGone(bus.codes, bus.lost !== null);
  return (
    <div className="grid gap-x-9 px-6 pb-8 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-labelledby="live" className="min-w-0">
        <Heading id="live" aside={bus.adapter ?? 'no bus'}>
          On the bus now
        </Heading>
        <BusSource plug={plug} onPlug={setPlug} />
        <Heartbeat bus={bus} />
        {bus.lost === null && bus.codes.length === 0 ? <Nothing>No code is active.</Nothing> : null}
        <ul aria-label="Active codes">
          {bus.codes.map((code) => (
            <CodeRow key={`${code.sourceAddress}-${codeKey(code)}`} code={code} book={book} />
          ))}
        </ul>
        {gone.length > 0 ? (
          <p className="py-2 text-[16px] text-ink2">
            Was here and is gone: <span className="fig">{gone.join(', ')}</span>
          </p>
        ) : null}
        <EarlierCodes bus={bus} book={book} ask={ask} />
        <p className="flex flex-wrap gap-x-5 text-[16px]">
          <Link className={LINE_LINK} href={machineAddress(machineCode, 'codes')}>
            Code book of {machineCode}
          </Link>
          <Link className={LINE_LINK} href="/codes">
            Read a bus log
          </Link>
        </p>
      </section>
      {bus.simulated ? (
        <section aria-labelledby="machine" className="min-w-0">
          <Heading id="machine" aside="a stand-in that ships with Spiraxis">
            The simulated machine
          </Heading>
          <Hold>
            On a real machine a plug is pulled by hand, dead where it can be. The load may move when its coil
            drops.
          </Hold>
          {functions.map((one) => (
            <SimulatedControls key={one.name} machineCode={machineCode} of={one} />
          ))}
          {functions.length === 0 ? <Nothing>No circuit has been drawn for this machine.</Nothing> : null}
        </section>
      ) : null}
    </div>
  );
}

/** Names of codes that were seen since the page was opened and are not there now. */
function useGone(codes: readonly LiveCode[], lost: boolean): string[] {
  const now = useMemo(() => new Set(codes.map(codeName)), [codes]);
  const [seen, setSeen] = useState<ReadonlySet<string>>(now);
  const fresh = [...now].filter((name) => !seen.has(name));
  if (fresh.length > 0) setSeen(new Set([...seen, ...fresh]));
  return lost ? [] : [...seen].filter((name) => !now.has(name));
}
