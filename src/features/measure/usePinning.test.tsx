import { act, renderHook } from '@testing-library/react';
import { singleCoil } from '@/core/templates/electrical';
import { reduceJob } from '@/core/job/reduceJob';
import { entryWriter } from '@/core/testing/entryWriter';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { justDrawn } from '@/workers/protocol';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { USUAL_METER } from './meterProfile';
import type { useHold } from './useHold';
import { usePinning } from './usePinning';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));

const circuit = singleCoil();
const answer = makeDiagnosisService().evaluate(justDrawn(circuit), [], {
  kind: 'volts',
  from: 'X1.1:2',
  to: 'GND',
  setup: { controls: { key: 'on' } },
});
if (!answer.ok) throw new Error(answer.message);
const ranked = answer.value;
const OPEN = { blocked: false } as ReturnType<typeof useHold>;
const SILENT = { text: '', instrument: '' };

function pinning(live: { text: string; instrument: string }) {
  const write = jest.fn();
  const desk = openDesk(circuit);
  (useDesk as unknown as jest.Mock).mockImplementation(() => {
    const own = desk.useDesk();
    return { ...own, log: { ...own.log, write } };
  });
  const hook = renderHook((now: typeof live) => usePinning(ranked, USUAL_METER, OPEN, now, jest.fn()), {
    initialProps: live,
  });
  const pinned = () =>
    write.mock.calls.map(([{ body }]: [{ body: { typed: string; instrument?: string } }]) => body);
  return { ...hook, pinned };
}

describe('whose a value is', () => {
  it('is the instrument’s where it was shown live, also when it was asked for twice while the display flickered on', () => {
    const { result, rerender, pinned } = pinning({ text: '12.4 V', instrument: 'Bench' });
    act(() => result.current.onPin());
    expect(pinned()).toEqual([expect.objectContaining({ typed: '12.4 V', instrument: 'Bench' })]);
    // Below nothing: it fits no answer, and is asked for again.
    rerender({ text: '-11 V', instrument: 'Bench' });
    act(() => result.current.onPin());
    rerender({ text: '-11.1 V', instrument: 'Bench' });
    expect(result.current.text).toBe('-11 V');
    act(() => result.current.onPin());
    expect(pinned()[1]).toMatchObject({ typed: '-11 V', instrument: 'Bench' });
  });
  it('is the person’s where it was typed, whatever the display showed before', () => {
    const { result, rerender, pinned } = pinning({ text: '-11V', instrument: 'Bench' });
    act(() => result.current.onPin());
    act(() => result.current.clear());
    rerender(SILENT);
    for (const key of ['-', '1', '1', 'V']) act(() => result.current.onKey(key));
    act(() => result.current.onPin());
    act(() => result.current.onPin());
    expect(pinned()).toHaveLength(1);
    expect(pinned()[0]).not.toHaveProperty('instrument');
  });
  it('that is typed goes before the display, and is gone once it is taken back', () => {
    const { result } = pinning({ text: '12.4 V', instrument: 'Bench' });
    act(() => result.current.onKey('9'));
    expect(result.current.text).toBe('9');
    act(() => result.current.onErase());
    expect(result.current.text).toBe('12.4 V');
  });
});

describe('a test that is taken without what an earlier one put in', () => {
  it('says that it is out, before its reading', () => {
    const write = jest.fn();
    const desk = openDesk(circuit);
    const bridge = ['X1.1:2', 'GND'] as [string, string];
    const before = entryWriter()('reading', {
      typed: '0.2',
      reading: { kind: 'ohms', from: 'X1.1:2', to: 'GND', value: 0.2, setup: { jumpers: [bridge] } },
    });
    (useDesk as unknown as jest.Mock).mockImplementation(() => {
      const own = desk.useDesk();
      return { ...own, log: { ...own.log, state: reduceJob([before]), write } };
    });
    const { result } = renderHook(() =>
      usePinning(ranked, USUAL_METER, OPEN, { text: '12.4 V', instrument: 'Bench' }, jest.fn()),
    );
    act(() => result.current.onPin());
    expect(write.mock.calls.map(([entry]) => entry)).toEqual([
      { type: 'ledgerOut', body: { item: 'Bridge X1.1:2 to GND' } },
      expect.objectContaining({ type: 'reading' }),
    ]);
  });
});
