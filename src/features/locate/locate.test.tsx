import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { twoWayPair } from '@/core/templates/electrical';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { findOnMachine } from './actions';
import { LocateScreen } from './LocateScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('./actions', () => ({ findOnMachine: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;
const find = findOnMachine as jest.Mock;

function show(more: Parameters<typeof openDesk>[2] = {}) {
  const circuit = twoWayPair();
  const placed = {
    ...circuit,
    parts: circuit.parts.map((part) =>
      part.ref === 'Y1'
        ? { ...part, place: 'Behind the left step', sheet: '4', square: 'C7', accessMinutes: 6 }
        : part,
    ),
  };
  const desk = openDesk(placed, [], { openedOnVersion: 1, newestVersion: 1, ...more });
  asked.mockImplementation(desk.useDesk);
  find.mockReset().mockResolvedValue([]);
  render(<LocateScreen />);
  return { desk, person: userEvent.setup() };
}

const parts = () => within(screen.getByRole('region', { name: /Parts on this path/ }));

describe('where everything is', () => {
  it('a part says its place, sheet and minutes, and what is not written down is said to be so', async () => {
    const { person } = show();
    const row = parts().getByRole('button', { name: /^Y1/ });
    expect(row.textContent).toMatch(/Behind the left step · sheet 4, square C7 · 6 min to reach/);
    expect(parts().getByRole('button', { name: /^Y2/ }).textContent).toMatch(/place not written down/);
    await person.click(row);
    const sheet = screen.getByRole('region', { name: /^Y1/ });
    expect(sheet.textContent).toMatch(/Behind the left step/);
    expect(within(sheet).getAllByRole('listitem').length).toBe(2);
  });

  it('kinds go by their names, never by the format’s words', () => {
    show();
    expect(parts().getByRole('button', { name: /^X1.1/ }).textContent).toMatch(/plug pin/);
    for (const row of screen.getAllByRole('button'))
      expect(row.textContent).not.toMatch(/pressureSwitch|sensor3/);
  });

  it('a part that was found on the machine is kept so, and can be taken back', async () => {
    const { desk, person } = show();
    await person.click(parts().getByRole('button', { name: /^Y1/ }));
    await person.click(screen.getByRole('button', { name: 'Found on the machine' }));
    expect(desk.last()).toMatchObject({ type: 'looked', body: { check: 'found Y1', finding: 'good' } });
    await person.click(screen.getByRole('button', { name: 'Found on the machine' }));
    expect(desk.last()).toMatchObject({ body: { check: 'found Y1', finding: 'notSeen' } });
  });

  it('a newer drawing is offered, and taken only when somebody says so', async () => {
    const { desk, person } = show({ newestVersion: 3 });
    expect(screen.getByTestId('newer-drawing').textContent).toMatch(/version 1 .* version 3/);
    await person.click(screen.getByRole('button', { name: 'Take the new drawing' }));
    expect(desk.last()).toMatchObject({ type: 'redrawn', body: { version: 3 } });
  });

  it('the legend is searched on the server, a moment after typing; a server that is away is said', async () => {
    jest.useFakeTimers();
    const { person } = { ...show(), person: userEvent.setup({ advanceTimers: jest.advanceTimersByTime }) };
    find.mockResolvedValueOnce([
      { ref: 'Y14', label: 'Auger coil', place: 'Rear', sheet: '9', square: 'B2', function: 'Auger' },
    ]);
    const field = screen.getByLabelText('Part, word or grid square');
    await person.type(field, 'auger');
    await act(async () => jest.advanceTimersByTimeAsync(400));
    expect(screen.getByRole('list', { name: 'Found in the legend' }).textContent).toMatch(
      /Y14.*Auger coil.*Rear · sheet 9, square B2 · Auger/,
    );
    find.mockRejectedValueOnce(new Error('away'));
    await person.type(field, 's');
    await act(async () => jest.advanceTimersByTimeAsync(400));
    expect(screen.getByText(/The server does not answer/)).toBeTruthy();
    jest.useRealTimers();
  });
});
