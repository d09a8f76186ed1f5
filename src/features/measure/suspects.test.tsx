import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import { CircuitModel } from '@/core/circuit/model';
import { findLanes } from '@/core/path/lanes';
import { twoWayPair } from '@/core/templates/electrical';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { justDrawn } from '@/workers/protocol';
import { SuspectList } from './SuspectList';

const circuit = twoWayPair();
const model = new CircuitModel(circuit);
const speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
const service = makeDiagnosisService();
const machine = new MachineUnderTest(circuit, 'Y1', 'open');
const TESTS: Test[] = [
  { kind: 'function', part: 'Y1', setup: { controls: { lever: 'forward' } } },
  { kind: 'function', part: 'Y2', setup: { controls: { lever: 'reverse' } } },
  { kind: 'volts', from: 'X1.1:2', to: 'Y1:2', setup: { controls: { lever: 'forward' } } },
  { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { isolated: ['G1'], unplugged: ['X1'] } },
];
const read = (count: number): Reading[] =>
  TESTS.slice(0, count).map((test) => ({ ...test, value: machine.value(test) }) as Reading);
function outlookOf(readings: Reading[]) {
  const answer = service.weigh(justDrawn(circuit), readings, {});
  if (!answer.ok) throw new Error(answer.message);
  return answer.value;
}

function Bench({ count, ...more }: { count: number } & Partial<Parameters<typeof SuspectList>[0]>) {
  const [open, setOpen] = useState<string | null>(null);
  const readings = read(count);
  return (
    <SuspectList
      speaker={speaker}
      outlook={outlookOf(readings)}
      readings={readings}
      stale={false}
      openPart={open}
      onOpen={setOpen}
      {...more}
    />
  );
}

describe('where the doubt sits', () => {
  it('the twenty turns are spread over all rows, the most first, and the first is open with what speaks for it', async () => {
    render(<Bench count={2} />);
    const more = screen.queryByRole('button', { name: /more/ });
    if (more) await userEvent.click(more);
    const counts = screen.getAllByText(/^\d+ in 20$/).map((one) => Number.parseInt(one.textContent!));
    expect(counts.reduce((sum, one) => sum + one, 0)).toBeLessThanOrEqual(20);
    expect([...counts].sort((a, b) => b - a)).toEqual(counts);
    expect(screen.getByText('For')).toBeTruthy();
  });

  it('a row that is opened shows its own evidence, and only one is open', async () => {
    const person = userEvent.setup();
    render(<Bench count={2} />);
    const rows = screen
      .getAllByRole('button', { expanded: false })
      .filter((row) => /in 20/.test(row.textContent!));
    await person.click(rows[0]!);
    expect(screen.getAllByRole('button', { expanded: true }).length).toBe(1);
    expect(rows[0]!.getAttribute('aria-expanded')).toBe('true');
  });

  it('parts that carried current are spared by name', () => {
    render(<Bench count={2} />);
    expect(screen.getByText(/Spared:/).textContent).toMatch(/F1.*Y2/);
  });

  it('a part that is proved bad says so, with how many of its proofs are there', () => {
    render(<Bench count={4} />);
    const list = within(screen.getByRole('region', { name: 'Where the doubt sits' }));
    expect(list.getAllByText(/Y1/).length).toBeGreaterThan(0);
    expect(list.getByText('Proved bad')).toBeTruthy();
  });

  it('says what is only supposed, and that it is not pinned', () => {
    render(<Bench count={2} supposed="0 V" />);
    expect(screen.getByText('if it read 0 V: not pinned')).toBeTruthy();
  });

  it('says that it is working before the first answer, and while a newer one is on its way', () => {
    const { unmount } = render(<Bench count={0} outlook={null} />);
    expect(screen.getByText('working out every fault on this path')).toBeTruthy();
    unmount();
    render(<Bench count={1} stale />);
    expect(screen.getByText(/trying \d+ faults, pin on meanwhile/)).toBeTruthy();
  });
});
