import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Entry } from '@/core/job/entries';
import { singleCoil } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { FixScreen } from './FixScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../desk/StepLink', () => ({
  StepLink: ({ children }: { children: string }) => <a>{children}</a>,
}));
const asked = useDesk as unknown as jest.Mock;

const decided = (action: 'repair' | 'replace', write = entryWriter()): Entry[] => [
  write('decision', {
    part: 'Y1',
    fault: 'open',
    action,
    why: '',
    cleared: [],
    minutes: null,
    cost: null,
  }),
];
function show(entries: readonly Entry[]) {
  const desk = openDesk(singleCoil({ ohms: 24 }), entries);
  asked.mockImplementation(desk.useDesk);
  render(<FixScreen />);
  return { desk, person: userEvent.setup() };
}

describe('the fix', () => {
  it('waits for a decision', () => {
    show([]);
    expect(screen.getByText('Decide first')).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('a spare is read before it is fitted: another unit is refused, an open one is not fitted', async () => {
    const { desk, person } = show(decided('replace'));
    const write = screen.getByRole<HTMLButtonElement>('button', { name: 'Write it down' });
    await person.type(screen.getByRole('textbox', { name: 'What was done' }), 'Coil changed');
    expect(write.disabled).toBe(true);
    const field = screen.getByLabelText('Spare, ohms of the winding');
    await person.type(field, '24 V{Enter}');
    expect(screen.getByRole('alert').textContent).toMatch(/“24 V” is no resistance/);
    expect(desk.log.view().state.spareTests).toEqual([]);
    await person.clear(field);
    await person.type(field, 'OL{Enter}');
    expect(screen.getByTestId('spare-test').textContent).toMatch(/OL.*do not fit it/);
    expect(write.disabled).toBe(true);
    await person.type(field, '24.3{Enter}');
    expect(screen.getAllByTestId('spare-test')[1]!.textContent).toMatch(/24.3 Ω.*as it should be/);
    expect(desk.log.view().state.spareTests.map(({ body }) => body.good)).toEqual([false, true]);
    expect(write.disabled).toBe(false);
  });

  it('what was done is written down, and no date that nobody typed', async () => {
    const { desk, person } = show(decided('replace'));
    const write = screen.getByRole<HTMLButtonElement>('button', { name: 'Write it down' });
    await person.type(screen.getByLabelText('Spare, ohms of the winding'), '24{Enter}');
    await person.type(screen.getByRole('textbox', { name: 'What was done' }), 'Coil changed');
    await person.type(screen.getByLabelText('Torque'), '8 Nm');
    await person.click(write);
    expect(desk.last().body).toMatchObject({ work: 'Coil changed', torque: '8 Nm', dated: '', part: 'Y1' });
    expect(desk.last().body).not.toHaveProperty('untested');
    expect(screen.getByTestId('fix').textContent).toMatch(/Coil changed.*torque 8 Nm, Tove/);
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'What was done' }).value).toBe('');
  });

  it('fitted without a reading needs a reason, and the reason stands in the record', async () => {
    const { desk, person } = show(decided('replace'));
    const write = screen.getByRole<HTMLButtonElement>('button', { name: 'Write it down' });
    await person.type(screen.getByRole('textbox', { name: 'What was done' }), 'Coil changed');
    expect(screen.getByText(/not yet read on the bench: ohms of the winding/)).toBeTruthy();
    await person.type(screen.getByLabelText('Fitted without that reading, because'), 'sealed unit');
    await person.click(write);
    expect(desk.last().body).toMatchObject({ work: 'Coil changed', untested: 'sealed unit' });
    expect(screen.getByTestId('fix').textContent).toMatch(/not read on the bench, because sealed unit/);
  });

  it('a fuse that went is renewed with its own rating, whatever took it', () => {
    const setup = { controls: { key: 'on' } };
    const write = entryWriter();
    const blew = write('reading', {
      reading: { kind: 'fuse', part: 'F1', setup, value: 'blows' },
      typed: 'blows',
    });
    show([blew, ...decided('repair', write)]);
    expect(screen.getByTestId('blown').textContent).toMatch(
      /^F1 .*blew: a new one of \d+(\.\d+)? A goes in, of the same kind and never larger\.$/,
    );
  });

  it('begins with how the work stands: nothing is changed before it is made safe', () => {
    show(decided('repair'));
    expect(screen.getByRole('form').textContent).toMatch(/Make it safe before anything is changed\./);
  });

  it('a repair asks for no spare', () => {
    show(decided('repair'));
    expect(screen.queryByLabelText('Spare, ohms of the winding')).toBeNull();
    expect(screen.queryByLabelText('Spare, part number')).toBeNull();
  });
});
