import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Test } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { singleCoil, stopSolenoid, winchPack } from '@/core/templates/electrical';
import { CircuitModel } from '@/core/circuit/model';
import { proofList } from '@/core/job/proofList';
import { reduceJob } from '@/core/job/reduceJob';
import { entryWriter, fitted } from '@/core/testing/entryWriter';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { ProveScreen } from './ProveScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;

function show(circuit = singleCoil(), entries: readonly Entry[] = []) {
  const desk = openDesk(circuit, entries);
  asked.mockImplementation(desk.useDesk);
  render(<ProveScreen />);
  return { desk, person: userEvent.setup() };
}
const rows = (kind: string) =>
  screen.getAllByRole('group').filter((row) => row.getAttribute('data-proof') === kind);
const state = (row: HTMLElement) => row.getAttribute('data-state');

describe('what is shown before the machine goes back', () => {
  it('a function that works is a reading after the fix, and done', async () => {
    const { desk, person } = show();
    const [works] = rows('works');
    await person.click(within(works!).getByRole('button', { name: 'Works' }));
    expect(state(works!)).toBe('done');
    const { after } = desk.log.view().state;
    expect(after.map(({ reading }) => reading.value)).toEqual(['works']);
  });

  it('one that does not stays in the way', async () => {
    const { person } = show();
    const [works] = rows('works');
    expect(screen.queryByTestId('not-mended')).toBeNull();
    await person.click(within(works!).getByRole('button', { name: 'Does not' }));
    expect(state(works!)).toBe('wrong');
    expect(screen.getByTestId('not-mended').textContent).toMatch(/go on at Test/);
    await person.click(within(works!).getByRole('button', { name: 'Works' }));
    expect(state(works!)).toBe('done');
  });

  it('a current is typed in amps: volts are refused, a wrong one is told, the right one is done', async () => {
    const { desk, person } = show();
    const [current] = rows('current');
    const field = within(current!).getByLabelText('Amps');
    await person.type(field, '1.4 V{Enter}');
    expect(within(current!).getByRole('alert').textContent).toMatch(/“1.4 V” is no current/);
    expect(desk.log.view().entries).toHaveLength(0);
    await person.clear(field);
    await person.type(field, '0.2{Enter}');
    expect(state(current!)).toBe('wrong');
    const test = JSON.parse(current!.getAttribute('data-test')!) as Test;
    const sound = new MachineUnderTest(singleCoil()).answer(test);
    await person.type(within(current!).getByLabelText('Amps'), `${sound} A{Enter}`);
    expect(state(current!)).toBe('done');
    expect(within(current!).getByText(`${sound} A`)).toBeTruthy();
  });

  it('a drop that stops nothing and is past the shop’s limit says so on its line', async () => {
    const { person } = show(winchPack());
    const read = async (volts: string) => {
      const row = rows('followed')[0]!;
      await person.type(within(row).getByRole('textbox'), `${volts}{Enter}`);
      return rows('followed')[0]!.textContent;
    };
    const drop = { kind: 'volts', from: 'P', to: 'M1', setup: { controls: { pendant: 'out' } } };
    cleanup();
    show(winchPack(), [entryWriter()('retest', { tests: [drop] })]);
    expect(await read('0.31')).toMatch(/Past its limit, above 0\.2 V/);
    await person.click(within(rows('followed')[0]!).getByRole('button', { name: 'Again' }));
    expect(await read('0.05')).not.toMatch(/Past its limit/);
  });

  it('what was shown before the last work is to be shown again, and says so', async () => {
    const circuit = singleCoil();
    const write = entryWriter();
    const [works] = proofList(new CircuitModel(circuit), reduceJob([])).filter(
      ({ kind }) => kind === 'works',
    );
    const { person } = show(circuit, [
      write('retest', { tests: [] }),
      write('proof', { proof: works!.id, done: true, found: 'works' }),
      write('fix', fitted('Y1')),
    ]);
    const [row] = rows('works');
    expect(state(row!)).toBe('open');
    expect(row!.textContent).toContain('Shown before the last work; show it again.');
    await person.click(within(row!).getByRole('button', { name: 'Works' }));
    expect(state(row!)).toBe('done');
    expect(row!.textContent).not.toContain('before the last work');
  });

  it('what may be left needs a reason, and the reason stands there', async () => {
    const { desk, person } = show();
    const [drop] = rows('drop');
    await person.click(within(drop!).getByRole('button', { name: 'Leave it' }));
    const sign = within(drop!).getByRole<HTMLButtonElement>('button', { name: 'Sign it off' });
    expect(sign.disabled).toBe(true);
    await person.type(within(drop!).getByLabelText('Left, because'), 'no reach without lifting the cab');
    await person.click(sign);
    expect(state(drop!)).toBe('signedOff');
    expect(drop!.textContent).toMatch(/Left, because no reach/);
    expect(desk.last().body).toMatchObject({ done: false, reason: 'no reach without lifting the cab' });
  });

  it('a guard that protects a person can only be shown to stop, never left', async () => {
    const { person } = show(stopSolenoid());
    const interlock = rows('interlock').find((row) => row.textContent?.includes('seat'));
    expect(within(interlock!).queryByRole('button', { name: 'Leave it' })).toBeNull();
    await person.click(within(interlock!).getByRole('button', { name: 'Holds' }));
    expect(state(interlock!)).toBe('wrong');
    await person.click(within(interlock!).getByRole('button', { name: 'Lets go' }));
    expect(state(interlock!)).toBe('done');
  });

  it('a proof can be taken again', async () => {
    const { person } = show();
    const [works] = rows('works');
    await person.click(within(works!).getByRole('button', { name: 'Works' }));
    await person.click(within(works!).getByRole('button', { name: 'Again' }));
    expect(state(works!)).toBe('open');
  });

  it('locks come off one after the other, what no plan knows first', async () => {
    const entry = entryWriter();
    const lock = (point: string) =>
      entry('isolation', { point, energy: 'battery', how: '', lock: point, tag: '', released: '' });
    const { desk, person } = show(singleCoil(), [lock('G1'), lock('G2')]);
    const [first, second] = screen.getAllByRole<HTMLButtonElement>('button', { name: 'Lock is off' });
    expect([first!.disabled, second!.disabled]).toEqual([false, true]);
    await person.click(first!);
    expect(desk.last()).toMatchObject({ type: 'reopened', body: { point: 'G2' } });
    await person.click(screen.getByRole('button', { name: 'Lock is off' }));
    expect(screen.getByText('✓ No lock is left on.')).toBeTruthy();
  });
});
