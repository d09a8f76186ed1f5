'use client';

import { useState } from 'react';
import { compareCircuits, type Difference } from '@/core/draw/compareCircuits';
import type { Circuit } from '@/core/circuit/schema';
import { Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import type { OpenDrawing } from './schema';
import { openVersion } from './actions';
import { sent } from '../sent';
import { differenceWords } from '@/words/en/drawing';

/** Earlier versions of a function, and what is different on the desk. */
export function VersionsPanel({
  functionId,
  versions,
  circuit,
  onBack,
  onChanged,
}: {
  functionId: string | null;
  versions: OpenDrawing['versions'];
  circuit: Circuit;
  /** Puts an earlier version on the desk again; it is kept as a new one, like any change. */
  onBack: (circuit: Circuit) => void;
  /** Parts that differ from the version compared with. */
  onChanged: (parts: readonly string[]) => void;
}) {
  const [chosen, setChosen] = useState<{ version: number; circuit: Circuit } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState<number | null>(null);
  if (functionId === null || versions.length === 0)
    return <Nothing>No version is kept yet. “Keep it” makes the first.</Nothing>;
  const differences = chosen ? compareCircuits(chosen.circuit, circuit) : [];
  const open = async (version: number) => {
    setBusy(version);
    const found = await sent(openVersion(functionId, version));
    setBusy(null);
    if (!found || 'trouble' in found) {
      setTrouble(`Version ${version} could not be read. Try again when the server answers.`);
      return;
    }
    setTrouble(null);
    setChosen({ version, circuit: found });
    onChanged(partsOf(compareCircuits(found, circuit)));
  };
  return (
    <div className="grid gap-x-6 desk:grid-cols-[minmax(0,380px)_minmax(0,1fr)]">
      <ul aria-label="Versions">
        {versions.map(({ version, person, note, at, day }) => (
          <li
            key={version}
            className="flex min-h-[52px] flex-wrap items-center gap-x-3 border-b-[1.5px] border-rule py-1"
          >
            <span className="fig-bold w-8">{version}</span>
            <span className="min-w-0 flex-1 break-words">
              {note || 'Changed'}
              <span className="block text-[15.5px] text-ink2">
                {person ? `${person}, ` : ''}
                <time dateTime={at}>{day}</time>
              </span>
            </span>
            <PlainKey
              aria-pressed={chosen?.version === version}
              disabled={busy === version}
              onClick={() => void open(version)}
            >
              Compare
            </PlainKey>
          </li>
        ))}
      </ul>
      <div>
        {trouble ? <Trouble>{trouble}</Trouble> : null}
        {chosen ? (
          <section aria-labelledby="differences">
            <Heading id="differences" aside={`version ${chosen.version} and what is on the desk`}>
              What is different
            </Heading>
            {differences.length === 0 ? <Nothing>Nothing: they are the same.</Nothing> : null}
            <ul className="text-[16px]">
              {differences.map((difference) => (
                <li
                  key={JSON.stringify(difference)}
                  className="border-b-[1.5px] border-rule py-1.5 break-words"
                >
                  {differenceWords(difference)}
                </li>
              ))}
            </ul>
            {differences.length > 0 ? (
              <PlainKey className="mt-3" onClick={() => onBack(chosen.circuit)}>
                Put version {chosen.version} on the desk
              </PlainKey>
            ) : null}
          </section>
        ) : (
          <Nothing>Choose a version to see what changed since.</Nothing>
        )}
      </div>
    </div>
  );
}

export function partsOf(differences: readonly Difference[]): string[] {
  return [
    ...new Set(differences.flatMap((one) => ('part' in one && one.is !== 'removed' ? [one.part] : []))),
  ];
}
