'use client';

import type { Reading } from '@/core/circuit/schema';
import type { JobSheet } from '@/core/sheets/onCircuit/jobSheet';
import type { PastedLine } from '@/core/sheets/onCircuit/pastedColumn';
import { MainKey, PlainKey } from '@/ui/sheet';
import { valueWords } from '@/words/en/readings';
import { cellTitle } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';

type Taken<T> = Extract<PastedLine<T>, { is: 'taken' }>;

/** A column that was copied from a spreadsheet, shown where it would go before any of it is written. */
export function PastedColumn<T extends { value: Reading['value'] }>({
  sheet,
  lines,
  onPin,
  onLeave,
}: {
  sheet: JobSheet;
  lines: readonly PastedLine<T>[];
  onPin: (taken: readonly Taken<T>[]) => void;
  onLeave: () => void;
}) {
  const { speaker } = useDesk();
  const taken = lines.filter((line) => line.is === 'taken');
  const beyond = lines.filter(({ is }) => is === 'noCell').length;
  return (
    <div className="flex flex-col gap-2" data-testid="pasted-column">
      <ul className="max-h-[40vh] overflow-auto text-[16px]">
        {lines.map((line) =>
          line.is === 'noCell' ? null : (
            <li
              key={line.at.join()}
              className="flex min-h-9 items-baseline justify-between gap-3 border-b border-rule"
            >
              <span>{cellTitle(speaker, sheet, line.at)}</span>
              {line.is === 'taken' ? (
                <strong className="fig whitespace-nowrap">
                  {valueWords(line.test.kind, line.figure.value, speaker.gaugeUnit)}
                </strong>
              ) : (
                <span className="text-right text-ink2">left out: it is held by something else</span>
              )}
            </li>
          ),
        )}
      </ul>
      {beyond > 0 ? (
        <p className="text-[16px] text-ink2">
          {beyond === 1 ? 'One figure has' : `${beyond} figures have`} no cell here and{' '}
          {beyond === 1 ? 'is' : 'are'} left out.
        </p>
      ) : null}
      <div className="flex gap-2">
        <MainKey onClick={() => onPin(taken)} disabled={taken.length === 0}>
          Pin {taken.length === 1 ? 'this reading' : `these ${taken.length} readings`}
        </MainKey>
        <PlainKey onClick={onLeave}>Leave it</PlainKey>
      </div>
    </div>
  );
}
