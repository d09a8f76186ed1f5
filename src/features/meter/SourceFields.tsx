'use client';

import { useState } from 'react';
import { Field, FIELD, PlainKey } from '@/ui/sheet';
import { BAUD_RATES, SPEECHES, TYPED, type LiveSource, type Speech } from './liveSource';
import { choosePlug, reachesPlugs } from './plug';

const SOURCES: Readonly<Record<LiveSource['from'], string>> = {
  typed: 'I type them',
  shop: 'The shop’s meter, over the server',
  plug: 'A meter plugged into this device',
};
const SPEECH_WORDS: Readonly<Record<Speech, string>> = {
  lines: 'Sends lines such as “27.4 V”',
  scpi: 'Answers questions (SCPI)',
};

/** Where the figures come from. A live meter fills the keyline; pinning stays with the person. */
export function SourceFields({
  source,
  onSource,
}: {
  source: LiveSource;
  onSource: (source: LiveSource) => void;
}) {
  const [said, setSaid] = useState('');
  const plugs = reachesPlugs();
  const plug = source.from === 'plug' ? source : ({ from: 'plug', speech: 'lines', baudRate: 9600 } as const);
  const choose = async () => setSaid((await choosePlug()) ? 'The plug is chosen.' : 'No plug was chosen.');
  return (
    <fieldset className="border-t-2 border-ink px-5 py-3">
      <legend className="sr-only">Where the figures come from</legend>
      <p className="pb-1 text-[17px] font-[750]" aria-hidden>
        Where the figures come from
      </p>
      {(Object.keys(SOURCES) as LiveSource['from'][]).map((from) => (
        <label key={from} className="flex min-h-11 items-center gap-3 text-[16.5px]">
          <input
            type="radio"
            name="live-source"
            className="size-5"
            checked={source.from === from}
            disabled={from === 'plug' && !plugs}
            onChange={() => onSource(from === 'plug' ? plug : from === 'shop' ? { from } : TYPED)}
          />
          {SOURCES[from]}
        </label>
      ))}
      {plugs ? null : (
        <p className="text-[15.5px] text-ink2">
          This browser reaches no serial plug: use another one on a computer, or type.
        </p>
      )}
      {source.from === 'plug' ? (
        <div className="grid grid-cols-2 gap-x-4 gap-y-2 pb-2">
          <Field label="It">
            <select
              className={FIELD}
              value={source.speech}
              onChange={({ target }) => onSource({ ...source, speech: target.value as Speech })}
            >
              {SPEECHES.map((one) => (
                <option key={one} value={one}>
                  {SPEECH_WORDS[one]}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Bits a second">
            <select
              className={`${FIELD} fig`}
              value={source.baudRate}
              onChange={({ target }) => onSource({ ...source, baudRate: Number(target.value) })}
            >
              {BAUD_RATES.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </Field>
          <PlainKey onClick={() => void choose()}>Choose the plug</PlainKey>
          <p role="status" className="self-center text-[15.5px]">
            {said}
          </p>
        </div>
      ) : null}
      <p className="text-[15.5px] text-ink2">
        A live value stands in the keyline once the display is at rest. Nothing is pinned until you pin it.
      </p>
    </fieldset>
  );
}
