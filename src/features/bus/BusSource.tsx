'use client';

import { useState } from 'react';
import { CAN_BIT_RATES, type CanBitRate } from '@/core/codes/asciiCan';
import { FIELD, PlainKey } from '@/ui/sheet';
import { choosePlug, reachesPlugs } from '../meter/plug';

const RATES = Object.keys(CAN_BIT_RATES).map(Number) as CanBitRate[];
const USUAL: CanBitRate = 250_000;

/** Through what a machine's bus is heard: the server's way, or an adapter at a plug of this device. It only listens. */
export function BusSource({
  plug,
  onPlug,
}: {
  /** Bit rate of the adapter at this device; null for the server's way. */
  plug: CanBitRate | null;
  onPlug: (plug: CanBitRate | null) => void;
}) {
  const [said, setSaid] = useState('');
  if (!reachesPlugs()) return null;
  return (
    <div className="flex flex-wrap items-center gap-3 py-2 text-[16px]">
      <label className="flex items-center gap-2">
        Heard through
        <select
          className={`${FIELD} w-auto!`}
          value={plug === null ? 'server' : 'plug'}
          onChange={({ target }) => onPlug(target.value === 'plug' ? USUAL : null)}
        >
          <option value="server">the server</option>
          <option value="plug">a CAN adapter at this device</option>
        </select>
      </label>
      {plug === null ? null : (
        <>
          <label className="flex items-center gap-2">
            at
            <select
              className={`${FIELD} fig w-auto!`}
              value={plug}
              onChange={({ target }) => onPlug(Number(target.value) as CanBitRate)}
            >
              {RATES.map((rate) => (
                <option key={rate} value={rate}>
                  {rate / 1000} kbit/s
                </option>
              ))}
            </select>
          </label>
          <PlainKey
            onClick={() =>
              void choosePlug().then((chosen) => setSaid(chosen ? 'Chosen.' : 'None was chosen.'))
            }
          >
            Choose the plug
          </PlainKey>
          <span role="status">{said}</span>
          <span className="text-ink2">It listens and sends nothing.</span>
        </>
      )}
    </div>
  );
}
