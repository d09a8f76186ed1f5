import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { singleCoil, winchPack } from '@/core/templates/electrical';
import { airClamp } from '@/core/templates/fluid';
import type { Circuit } from '@/core/circuit/schema';
import { entryWriter } from '@/core/testing/entryWriter';
import { USUAL_POLICY } from '../policy/policy';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { AsFoundScreen } from './AsFoundScreen';
import { WireMap } from './WireMap';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;

function show(
  circuit: Circuit,
  screenOf = <AsFoundScreen />,
  entries: Parameters<typeof openDesk>[1] = [],
  more: Parameters<typeof openDesk>[2] = {},
) {
  const desk = openDesk(circuit, entries, more);
  asked.mockImplementation(desk.useDesk);
  const { unmount } = render(screenOf);
  return { desk, person: userEvent.setup(), unmount };
}

describe('as found', () => {
  it('a gauge is read in bar or in the unit typed; another quantity is refused', async () => {
    const { desk, person } = show(airClamp());
    const [gauge] = screen.getAllByLabelText(/^Bar at /);
    await person.type(gauge!, '5.2 V{Enter}');
    expect(screen.getByRole('alert').textContent).toMatch(/“5.2 V” is no pressure/);
    await person.clear(gauge!);
    await person.type(gauge!, '75 psi{Enter}');
    const [reading] = desk.readings();
    expect(reading).toMatchObject({ kind: 'pressure' });
    expect(reading!.value).toBeCloseTo(517.1, 1);
    // Typed again it replaces the first; both stay in the record.
    await person.type(gauge!, '5.0{Enter}');
    expect(desk.readings().map(({ value }) => value)).toEqual([500]);
    expect(desk.log.view().state.history).toHaveLength(2);
  });

  it('a shed whose gauges are marked in psi types and reads psi', async () => {
    const policy = { ...USUAL_POLICY, gaugeUnit: 'psi' as const };
    const { desk, person } = show(airClamp(), <AsFoundScreen />, [], { policy });
    await person.type(screen.getAllByLabelText(/^psi at /)[0]!, '75{Enter}');
    expect(desk.last()).toMatchObject({
      body: { typed: '75 psi', reading: { value: expect.closeTo(517.1, 1) } },
    });
    expect(screen.getByText('75.0 psi')).toBeTruthy();
  });

  it('what is only looked at is said good, bad or not seen', async () => {
    const { desk, person } = show(singleCoil());
    const [check] = screen.getAllByRole('group').filter((row) => within(row).queryByText('good'));
    await person.click(within(check!).getByRole('button', { name: 'good' }));
    expect(desk.last()).toMatchObject({ type: 'looked', body: { finding: 'good' } });
  });
});

describe('the wire map', () => {
  it('takes the wires from the drawing once, and says which came back elsewhere', async () => {
    const { desk, person, unmount } = show(singleCoil(), <WireMap phase="found" />);
    await person.click(screen.getByRole('button', { name: /from the drawing/ }));
    const wires = screen.getAllByTestId('wire');
    expect(wires.length).toBeGreaterThan(0);
    expect(screen.queryByRole('button', { name: /from the drawing/ })).toBeNull();
    const entries = desk.log.view().entries;
    unmount();
    const after = show(singleCoil(), <WireMap phase="left" />, entries);
    const [row] = screen.getAllByTestId('wire');
    await after.person.click(within(row!).getByRole('button', { name: 'It is back' }));
    expect(after.desk.last()).toMatchObject({ type: 'wire', body: { phase: 'left' } });
  });

  it('a wire that the drawing does not have is typed, and the form is empty for the next', async () => {
    const { desk, person } = show(singleCoil(), <WireMap phase="found" />);
    const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add' });
    expect(add.disabled).toBe(true);
    await person.type(screen.getByLabelText('Terminal'), ' 86 ');
    await person.type(screen.getByLabelText('Colour'), 'blue');
    await person.selectOptions(screen.getByLabelText('Contact'), 'switched');
    await person.click(add);
    expect(desk.last().body).toMatchObject({
      terminal: '86',
      colour: 'blue',
      through: 'switched',
      phase: 'found',
    });
    expect(screen.getByLabelText<HTMLInputElement>('Terminal').value).toBe('');
  });

  it('has nothing to put back where nothing came off', () => {
    show(singleCoil(), <WireMap phase="left" />);
    expect(screen.getByText('No wire came off: nothing to put back.')).toBeTruthy();
  });

  it('what is fitted with wires on it wants them on the map first; what is plugged in does not', () => {
    const decision = (part: string) =>
      entryWriter()('decision', {
        part,
        fault: 'open',
        action: 'replace',
        why: '',
        cleared: [],
        minutes: null,
        cost: null,
      });
    const first = show(winchPack(), <WireMap phase="left" />, [decision('K1')]);
    expect(
      screen.getByText(/^No wire of K1 is on the map\. What comes off K1 goes on it first/),
    ).toBeTruthy();
    first.unmount();
    // Wires of another part do not stand in for it, and its own are what is offered.
    const wire = { part: 'K2', terminal: '1', mark: 'W2', colour: '', to: '', through: 'unknown' };
    const mapped = entryWriter()('wire', { ...wire, phase: 'found' });
    const second = show(winchPack(), <WireMap phase="left" />, [decision('K1'), mapped]);
    expect(screen.getByText(/^No wire of K1 is on the map/)).toBeTruthy();
    second.unmount();
    const third = show(winchPack(), <WireMap phase="found" />, [decision('K1')]);
    expect(screen.getByLabelText<HTMLSelectElement>('Part').value).toBe('K1');
    third.unmount();
    show(winchPack(), <WireMap phase="left" />, [decision('F1')]);
    expect(screen.getByText('No wire came off: nothing to put back.')).toBeTruthy();
  });

  it('a wire back on another terminal is told in red', () => {
    const entry = entryWriter();
    const wire = { part: 'Y1', terminal: '1', mark: 'W2', colour: '', to: '', through: 'unknown' };
    show(singleCoil(), <WireMap phase="left" />, [
      entry('wire', { ...wire, phase: 'found' }),
      entry('wire', { ...wire, mark: 'W3', phase: 'left' }),
    ]);
    expect(screen.getByTestId('wire').textContent).toMatch(/✕/);
  });
});
