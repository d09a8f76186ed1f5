import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { StoredBookRow } from '@/db/codeBook';
import { askServer, NotAnswered } from '../askServer';
import { dropBookRow, saveBookRow } from './actions';
import { BookScreen } from './BookScreen';

jest.mock('./actions', () => ({ saveBookRow: jest.fn(), dropBookRow: jest.fn() }));
jest.mock('../askServer', () => ({ ...jest.requireActual('../askServer'), askServer: jest.fn() }));
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: jest.fn() }) }));
const [save, drop, take] = [saveBookRow, dropBookRow, askServer].map((one) => one as jest.Mock);

const row = (id: string, more: Partial<StoredBookRow> = {}): StoredBookRow => ({
  id,
  system: 'J1939',
  code: '523',
  mode: '5',
  means: null,
  text: 'Current below normal',
  function: 'Blade tilt',
  part: 'A1.4',
  sheet: '7 C3',
  note: '',
  ...more,
});
function show(book: StoredBookRow[]) {
  for (const one of [save!, drop!, take!]) one.mockReset().mockResolvedValue({ trouble: null, added: 1 });
  render(
    <BookScreen
      machine={{
        id: '1',
        code: 'G-2',
        name: 'Groomer',
        equipment: null,
        serial: null,
        place: null,
        hours: null,
      }}
      book={book}
      past={[]}
      functions={[{ name: 'Blade tilt', drivers: ['A1.4', 'A1.5'] }]}
    />,
  );
  return userEvent.setup();
}
const list = () => within(screen.getByRole('list', { name: 'Codes of this book' }));

describe('a machine’s code book', () => {
  it('says what to do when it is empty', () => {
    show([]);
    expect(screen.getByText(/No code is in this book yet/)).toBeTruthy();
  });

  it('shows code, words, function, driver and sheet; what is missing is said', () => {
    show([row('1'), row('2', { code: '91', mode: '', text: '', function: '', part: '' })]);
    const [first, second] = list().getAllByRole('button');
    expect(first!.textContent).toMatch(/523-5.*Current below normal.*Blade tilt, A1.4.*7 C3/);
    expect(second!.textContent).toMatch(/no words.*no function/);
  });

  it('a line is added, and a refusal stays with what was typed', async () => {
    const person = show([]);
    save!.mockResolvedValueOnce({
      trouble: 'Code: “52x” is no code of this notation; type a number, as 523.',
    });
    await person.click(screen.getByRole('button', { name: 'Add a code' }));
    const code = screen.getByLabelText<HTMLInputElement>('Code');
    await person.type(code, '52x');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/“52x” is no code/);
    expect(code.value).toBe('52x');
    await person.clear(code);
    await person.type(code, '523');
    await person.selectOptions(screen.getByLabelText('Function'), 'Blade tilt');
    await person.selectOptions(screen.getByLabelText('Driver'), 'A1.5');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(save!.mock.calls[1]![1]).toMatchObject({ code: '523', function: 'Blade tilt', part: 'A1.5' });
    expect(screen.queryByLabelText('Code')).toBeNull();
  });

  it('a mode that is no number is refused with what was typed, and goes as a number where it is one', async () => {
    const person = show([row('1', { means: 5 })]);
    await person.click(list().getByRole('button'));
    const means = screen.getByLabelText<HTMLInputElement>('Amounts to mode (0 to 31)');
    expect(means.value).toBe('5');
    await person.clear(means);
    await person.type(means, '4x');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/“4x” is no mode/);
    expect(save).not.toHaveBeenCalled();
    await person.clear(means);
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(save!.mock.calls[0]![1]).toMatchObject({ means: null });
  });

  it('another function takes the driver of the one before away', async () => {
    const person = show([row('1')]);
    await person.click(list().getByRole('button'));
    await person.selectOptions(screen.getByLabelText('Function'), '');
    expect(screen.getByLabelText<HTMLSelectElement>('Driver').value).toBe('');
  });

  it('a line is taken out, and the form can be left as it was', async () => {
    const person = show([row('1')]);
    await person.click(list().getByRole('button'));
    await person.click(screen.getByRole('button', { name: 'Leave as it was' }));
    expect(drop).not.toHaveBeenCalled();
    await person.click(list().getByRole('button'));
    await person.click(screen.getByRole('button', { name: 'Take out of the book' }));
    expect(drop).toHaveBeenCalledWith('G-2', '1');
  });

  it('a table that is taken in says how many lines came, or what is wrong with it', async () => {
    const person = show([]);
    const file = (text: string) => {
      const one = new File([text], 'codes.csv', { type: 'text/csv' });
      // jsdom's files have no text().
      Object.assign(one, { text: () => Promise.resolve(text) });
      return one;
    };
    take!.mockResolvedValueOnce({ added: 2 });
    await person.upload(screen.getByLabelText('Code table'), file('a'));
    expect(take!.mock.calls[0]).toMatchObject([
      '/api/machines/G-2/codes.csv',
      { method: 'POST', headers: { 'content-type': 'text/csv' }, body: 'a' },
    ]);
    expect(await screen.findByText('2 lines taken in from codes.csv.')).toBeTruthy();
    take!.mockRejectedValueOnce(new NotAnswered('line 3, code: no code. Nothing was changed.', 400));
    await person.upload(screen.getByLabelText('Code table'), file('b'));
    expect((await screen.findByRole('alert')).textContent).toMatch(/line 3, code: no code/);
    expect(screen.queryByText(/taken in/)).toBeNull();
    take!.mockRejectedValueOnce(new NotAnswered('The server does not answer.', 0));
    await person.upload(screen.getByLabelText('Code table'), file('c'));
    expect((await screen.findByRole('alert')).textContent).toMatch(/Bring the table again/);
  });

  it('a server that is away takes nothing that was typed with it', async () => {
    const person = show([]);
    save!.mockRejectedValueOnce(new Error('Failed to fetch'));
    await person.click(screen.getByRole('button', { name: 'Add a code' }));
    const code = screen.getByLabelText<HTMLInputElement>('Code');
    await person.type(code, '523');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/does not answer/);
    expect(code.value).toBe('523');
  });
});
