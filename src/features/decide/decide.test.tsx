import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Test } from '@/core/circuit/schema';
import { twoWayPair } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { DecideScreen } from './DecideScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;

/** What a machine with a dead coil reads where it matters, as a technician would have pinned it. */
const READ: Test[] = [
  { kind: 'function', part: 'Y1', setup: { controls: { lever: 'forward' } } },
  { kind: 'function', part: 'Y2', setup: { controls: { lever: 'reverse' } } },
  { kind: 'volts', from: 'X1.1:2', to: 'Y1:2', setup: { controls: { lever: 'forward' } } },
  { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { isolated: ['G1'], unplugged: ['X1'] } },
];

function show(fault?: [part: string, name: string], tests: Test[] = READ) {
  const circuit = twoWayPair();
  const entry = entryWriter();
  const machine = new MachineUnderTest(circuit, ...(fault ?? []));
  const entries = tests.map((test) =>
    entry('reading', { reading: { ...test, value: machine.value(test) }, typed: machine.answer(test) }),
  );
  const desk = openDesk(circuit, entries);
  asked.mockImplementation(desk.useDesk);
  render(<DecideScreen />);
  return { desk, person: userEvent.setup() };
}
/** Presses Decide and waits until it is decided: a form is judged a moment later. */
async function decide(person: ReturnType<typeof userEvent.setup>) {
  await person.click(decideKey());
  await screen.findByTestId('decided');
}
const decideKey = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Decide' });

describe('the decision', () => {
  it('proposes no part before the readings name one, and asks why one is changed all the same', async () => {
    const { desk, person } = show(undefined, READ.slice(0, 2));
    expect(screen.getByTestId('decide-verdict').dataset.state).not.toBe('name');
    expect(screen.getByLabelText<HTMLSelectElement>('Part').value).toBe('');
    await person.selectOptions(screen.getByLabelText('Part'), 'Y1');
    expect(decideKey().disabled).toBe(true);
    await person.type(screen.getByLabelText(/do not name Y1 yet/), 'The driver wants it changed');
    await decide(person);
    expect(desk.last().body).toMatchObject({
      part: 'Y1',
      action: 'repair',
      against: 'The driver wants it changed',
    });
    expect(screen.getByTestId('decided').textContent).toMatch(/Against the count: The driver/);
  });

  it('a cost that is no figure is refused with its field and value, and what was typed stays', async () => {
    const { desk, person } = show(undefined, READ.slice(0, 1));
    await person.click(screen.getByRole('button', { name: 'Replace' }));
    await person.click(decideKey());
    expect(await screen.findByText(/Part: none is chosen/)).toBeTruthy();
    await person.selectOptions(screen.getByLabelText('Part'), 'Y2');
    await person.type(screen.getByLabelText(/Why all the same/), 'known weak');
    await person.type(screen.getByLabelText('replace, parts cost'), '60 a piece');
    await person.click(decideKey());
    expect(await screen.findByText(/Parts cost: “60 a piece” is no figure/)).toBeTruthy();
    expect(desk.log.view().state.decision).toBeNull();
    const field = screen.getByLabelText<HTMLInputElement>('replace, parts cost');
    expect(field.value).toBe('60 a piece');
    await person.clear(field);
    await person.type(field, '60');
    await person.type(screen.getByLabelText('replace, minutes'), '45');
    // At the shop's usual 60 an hour.
    expect(screen.getByText('105')).toBeTruthy();
    await decide(person);
    expect(desk.last().body).toMatchObject({ action: 'replace', minutes: 45, cost: 60 });
  });

  it('changing nothing needs no part, no cost and no reason', async () => {
    const { desk, person } = show(undefined, READ.slice(0, 2));
    await person.click(screen.getByRole('button', { name: 'Change nothing' }));
    expect(screen.queryByLabelText('Part')).toBeNull();
    await decide(person);
    expect(desk.last().body).toMatchObject({ action: 'nothing', part: '', minutes: null, cost: null });
  });

  it('a second person approves, or sends it back with a reason only', async () => {
    const { desk, person } = show(undefined, READ.slice(0, 2));
    expect(screen.queryByRole('button', { name: 'Approve' })).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Change nothing' }));
    await decide(person);
    const opinion = within(screen.getByRole('region', { name: /Second opinion/ }));
    const back = opinion.getByRole<HTMLButtonElement>('button', { name: 'Send back' });
    expect(back.disabled).toBe(true);
    await person.type(opinion.getByLabelText('Note'), 'measure the return first');
    await person.click(back);
    expect(desk.last().body).toMatchObject({ says: 'sendBack', note: 'measure the return first' });
    expect(
      screen.getByText(/Sent back by Tove, who decided it as well: measure the return first/),
    ).toBeTruthy();
  });
});

describe('a part that the readings name', () => {
  it('is proposed with its proofs; no reason is asked for, and the parts that are cleared are said', async () => {
    const { desk, person } = show(['Y1', 'open']);
    expect(screen.getByRole('heading', { name: 'Y1: proved bad' })).toBeTruthy();
    expect(screen.getByText(/Spared, and not to be bought:/).textContent).toMatch(/Y2/);
    expect(screen.queryByLabelText(/Why all the same/)).toBeNull();
    const boxes = screen.queryAllByRole<HTMLInputElement>('checkbox');
    expect(decideKey().disabled).toBe(boxes.length > 0);
    for (const box of boxes) await person.click(box);
    await decide(person);
    expect(desk.last().body).toMatchObject({
      part: 'Y1',
      fault: 'open',
      cleared: boxes.map((box) => box.value),
    });
    await person.click(screen.getByRole('button', { name: 'Decide again' }));
    await person.click(screen.getByRole('button', { name: 'Leave as it was' }));
    expect(screen.getByTestId('decided')).toBeTruthy();
  });
});
