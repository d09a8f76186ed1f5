import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { parseCircuit } from '@/core/circuit/parse';
import { emptyDrawing, layChains } from '@/core/draw/layChain';
import { useDesk } from '../desk/desk';
import type { JobLog } from '../desk/log/JobLog';
import { deskOf, logOf } from '../desk/testing/deskOf';
import { Ledger } from './Ledger';
import { askServer, NotAnswered } from '../askServer';

jest.mock('../askServer', () => ({
  ...jest.requireActual<object>('../askServer'),
  askServer: jest.fn(),
}));
const given = askServer as unknown as jest.Mock;
jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;

const circuit = parseCircuit(
  layChains(emptyDrawing('Fan'), 'battery 24, fuse 5, seat switch, key switch, plug X1, coil 30, ground')
    .circuit,
);

function show(log: JobLog, found = false, drawn = circuit) {
  asked.mockImplementation(() => deskOf(drawn, log));
  const shown = render(<Ledger found={found} />);
  return () => shown.rerender(<Ledger found={found} />);
}

describe('the ledger', () => {
  it('a bridge found across a contact is a safety defect until it is shown out', async () => {
    const person = userEvent.setup();
    const log = logOf();
    const again = show(log, true);
    await person.selectOptions(screen.getByLabelText('Across the contact'), 'S1');
    await person.click(screen.getByRole('button', { name: 'I found it' }));
    again();
    const line = screen.getByTestId('ledger-item');
    expect(line.textContent).toMatch(/Bridge across S1.*Safety defect: S1 is out of action/);
    await person.click(screen.getByRole('button', { name: 'It is out' }));
    again();
    expect(screen.getByTestId('ledger-item').textContent).toMatch(/Said to be out/);
    // The same person's word is no second one, and the other one's comes with a PIN.
    const second = screen.getByLabelText<HTMLSelectElement>('Seen out as well by');
    expect([...second.options].map(({ text }) => text)).toEqual(['choose', 'Ilse']);
    await person.selectOptions(second, 'Ilse');
    const both = screen.getByRole<HTMLButtonElement>('button', { name: 'Both say so' });
    expect(both.disabled).toBe(true);
    await person.type(screen.getByLabelText('Their PIN'), '3190');
    given.mockRejectedValueOnce(new NotAnswered('That is not the PIN of anybody here.', 401));
    await person.click(both);
    expect((await screen.findByRole('alert')).textContent).toContain('not the PIN of anybody');
    await person.type(screen.getByLabelText('Their PIN'), '3190');
    given.mockResolvedValueOnce({ witness: '01900000-0000-7000-8000-0000000000ff', name: 'Ilse' });
    await person.click(both);
    await waitFor(() => expect(log.view().waiting).toHaveLength(3));
    again();
    expect(screen.queryByTestId('ledger-item')).toBeNull();
    expect(log.view().waiting.map(({ type }) => type)).toEqual(['ledger', 'ledgerOut', 'ledgerSeen']);
  });

  it('a part that is led past is a safety defect where the drawing says what harm that does', async () => {
    const person = userEvent.setup();
    const log = logOf();
    const harm = 'The fan cannot be stopped.';
    const parts = circuit.parts.map((part) =>
      part.kind === 'coil' ? { ...part, bypassDanger: harm } : part,
    );
    const again = show(log, true, { ...circuit, parts });
    const coil = parts.find(({ kind }) => kind === 'coil')!.ref;
    await person.selectOptions(screen.getByLabelText('What'), 'other');
    await person.selectOptions(screen.getByLabelText('Across, or past'), coil);
    await person.click(screen.getByRole('button', { name: 'I found it' }));
    again();
    expect(screen.getByTestId('ledger-item').textContent).toContain(
      `Safety defect: ${coil} is bypassed. ${harm}`,
    );
  });

  it.each([
    ['', '10', /Where: nothing is said/],
    ['Clamp on L2', 'soon', /Minutes: “soon” is no whole number/],
    ['Clamp on L2', '900', /not between 1 and 480/],
  ])('item %j for %j minutes gets one sentence, and nothing is written', async (item, minutes, words) => {
    const person = userEvent.setup();
    const log = logOf();
    show(log);
    if (item) await person.type(screen.getByLabelText('Where'), item);
    await person.clear(screen.getByLabelText('Minutes'));
    await person.type(screen.getByLabelText('Minutes'), minutes);
    await person.click(screen.getByRole('button', { name: 'It is in' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(words);
    expect(log.view().waiting).toEqual([]);
    // What was typed stands there still.
    expect((screen.getByLabelText('Where') as HTMLInputElement).value).toBe(item);
  });
});
