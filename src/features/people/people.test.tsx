import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { somebody } from '@/core/testing/signedAs';
import { Form } from '@/ui/Form';
import { WhoProvider } from '@/ui/who';
import { askServer, NotAnswered } from '../askServer';
import { AccountScreen } from './AccountScreen';
import {
  callDevice,
  changeOwn,
  changePerson,
  giveNewWord,
  makeAccount,
  newFeedKey,
  setUpCode,
  takeCodeOff,
  turnCodeOn,
} from './actions';
import { PeopleScreen } from './PeopleScreen';
import { SecondPerson } from './SecondPerson';
import type { PersonRow } from './server';
import { SignInScreen } from './SignInScreen';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: jest.fn() }) }));
jest.mock('../askServer', () => ({ ...jest.requireActual<object>('../askServer'), askServer: jest.fn() }));
jest.mock('./actions', () => ({
  changeOwn: jest.fn(),
  callDevice: jest.fn(),
  forgetDevice: jest.fn(),
  newFeedKey: jest.fn(),
  makeAccount: jest.fn(),
  changePerson: jest.fn(),
  giveNewWord: jest.fn(),
  setUpCode: jest.fn(),
  takeCodeOff: jest.fn(),
  turnCodeOn: jest.fn(),
}));
const asked = askServer as unknown as jest.Mock;
const answers = (action: unknown) => action as jest.Mock;
beforeEach(() => {
  asked.mockReset();
  for (const action of [
    changeOwn,
    callDevice,
    newFeedKey,
    makeAccount,
    changePerson,
    giveNewWord,
    takeCodeOff,
  ])
    answers(action).mockReset().mockResolvedValue({ trouble: null });
});
const sent = (call = 0) =>
  JSON.parse((asked.mock.calls[call] as [string, { body: string }])[1].body) as object;

describe('who is here', () => {
  const known = { name: 'Tove', role: 'technician' as const, licences: ['lineVolts' as const], pin: true };
  const show = (more: Partial<Parameters<typeof SignInScreen>[0]> = {}) =>
    render(
      <SignInScreen
        people={[known]}
        demo={false}
        now={null}
        device="tablet"
        to="/parts"
        timeZone="UTC"
        {...more}
      />,
    );

  it('a name and a PIN; what was wrong is said, and the PIN is typed anew', async () => {
    const person = userEvent.setup();
    show();
    await person.click(screen.getByRole('button', { name: /^Tove/ }));
    asked.mockRejectedValueOnce(new NotAnswered('That is not the PIN of anybody here.', 401));
    await person.type(screen.getByLabelText('PIN of Tove'), '3191{Enter}');
    expect(sent()).toEqual({ name: 'Tove', pin: '3191' });
    expect((await screen.findByRole('alert')).textContent).toContain('not the PIN of anybody');
    expect(screen.getByLabelText<HTMLInputElement>('PIN of Tove').value).toBe('');
    await person.click(screen.getByRole('button', { name: 'With the password' }));
    asked.mockRejectedValueOnce(new NotAnswered('The server does not answer.', 0));
    await person.type(screen.getByLabelText('Password of Tove'), 'a sentence of mine{Enter}');
    expect(sent(1)).toEqual({ name: 'Tove', password: 'a sentence of mine' });
    expect((await screen.findByRole('alert')).textContent).toContain('does not answer');
  });

  it('on a device that nobody knows no name is shown, and a password is asked for', async () => {
    const person = userEvent.setup();
    show({ people: [] });
    expect(screen.queryByRole('list', { name: 'People' })).toBeNull();
    expect(screen.getByText(/not one of the shed’s yet/)).toBeTruthy();
    asked.mockRejectedValueOnce(new NotAnswered('No.', 401));
    await person.type(screen.getByLabelText('Name'), ' Ilse ');
    await person.type(screen.getByLabelText('Password'), 'the winch pulled in{Enter}');
    expect(sent()).toEqual({ name: 'Ilse', password: 'the winch pulled in' });
  });

  it('a code is asked for where one stands, beside the password that was typed', async () => {
    const person = userEvent.setup();
    show();
    await person.click(screen.getByRole('button', { name: /^Tove/ }));
    await person.click(screen.getByRole('button', { name: 'With the password' }));
    asked.mockRejectedValueOnce(new NotAnswered('Now the code.', 401, 'code-wanted'));
    await person.type(screen.getByLabelText('Password of Tove'), 'a sentence of mine{Enter}');
    // Asked for once more it is no mistake.
    const code = await screen.findByLabelText(/Now the code/);
    expect(screen.queryByRole('alert')).toBeNull();
    asked.mockRejectedValueOnce(new NotAnswered('That is not the code of now.', 401, 'code-wanted'));
    await person.type(code, '123 456{Enter}');
    expect(sent(1)).toEqual({ name: 'Tove', password: 'a sentence of mine', code: '123 456' });
    expect((await screen.findByRole('alert')).textContent).toContain('not the code of now');
  });

  it('what was changed since one was here last is said before one goes on', async () => {
    const person = userEvent.setup();
    show({ demo: true });
    const changed = { what: 'secretChanged', by: 'Tove', device: 'tablet', at: '2026-02-04T08:00:00.000Z' };
    const reset = { ...changed, what: 'secretReset', by: 'Henrike', at: '2026-02-05T08:00:00.000Z' };
    const notices = [changed, reset];
    asked.mockResolvedValueOnce({ name: 'Tove', role: 'technician', oneTime: false, notices });
    await person.click(screen.getByRole('button', { name: /^Tove/ }));
    expect(await screen.findByText(/Henrike gave you a new first word/)).toBeTruthy();
    const line = await screen.findByText(/Tove changed their own PIN or password, on tablet/);
    expect(line.textContent).toMatch(/8:00/);
    // It stands in the way of everything else until it is read.
    expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual(['Go on']);
  });

  it('in the demonstration a name is pressed, and that is all', async () => {
    const person = userEvent.setup();
    show({ demo: true, now: 'Henrike' });
    expect(screen.getByText('3190')).toBeTruthy();
    asked.mockRejectedValueOnce(new NotAnswered('No.', 401));
    await person.click(screen.getByRole('button', { name: /^Tove/ }));
    expect(sent()).toEqual({ name: 'Tove', demo: true });
    expect(screen.getByRole('button', { name: 'Sign Henrike out' })).toBeTruthy();
  });
});

describe('one’s own account', () => {
  const account = (more: Partial<Parameters<typeof AccountScreen>[0]> = {}) => (
    <AccountScreen
      name="Bodil"
      oneTime={false}
      hasPassword
      hasPin={false}
      hasCode={false}
      device=""
      trusted
      feed="/api/retests.ics"
      {...more}
    />
  );
  const show = (more: Partial<Parameters<typeof AccountScreen>[0]> = {}) => render(account(more));

  it('begins with a password of one’s own, and with nothing else before', async () => {
    const person = userEvent.setup();
    show({ oneTime: true });
    expect(screen.queryByRole('region', { name: 'PIN' })).toBeNull();
    await person.type(screen.getByLabelText('The word you came with'), 'abcd-efgh');
    answers(changeOwn).mockResolvedValueOnce({ trouble: 'is short; take 12 characters or more' });
    await person.type(screen.getByLabelText('New password'), 'short{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('It is short; take 12');
    expect(changeOwn).toHaveBeenCalledWith({ now: 'abcd-efgh', password: 'short' });
  });

  it('a code is set up with its first one, its spare words are shown once, and it is taken off with both', async () => {
    const person = userEvent.setup();
    const { rerender } = show();
    const section = () => within(screen.getByRole('region', { name: 'Code' }));
    answers(setUpCode).mockResolvedValueOnce({ trouble: null, secret: 'ABCD EFGH', picture: '<svg></svg>' });
    await person.type(section().getByLabelText('Password as it stands'), 'mine{Enter}');
    expect((await section().findByTestId('code-secret')).textContent).toBe('ABCD EFGH');
    answers(turnCodeOn).mockResolvedValueOnce({ trouble: 'That is not the code of now.', field: 'code' });
    await person.type(section().getByLabelText('The code it shows now'), '1{Enter}');
    expect((await section().findByRole('alert')).textContent).toContain('not the code of now');
    answers(turnCodeOn).mockResolvedValueOnce({ trouble: null, words: ['one-two', 'three-four'] });
    await person.type(section().getByLabelText('The code it shows now'), '23456{Enter}');
    expect((await section().findByTestId('spare-words')).textContent).toBe('one-twothree-four');
    expect(turnCodeOn).toHaveBeenLastCalledWith('123456');
    rerender(account({ hasCode: true }));
    await person.click(section().getByRole('button', { name: 'They are written down' }));
    expect(section().queryByTestId('spare-words')).toBeNull();
    await person.type(section().getByLabelText('Password as it stands'), 'mine');
    await person.type(section().getByLabelText('The code of now'), '654321{Enter}');
    await waitFor(() => expect(takeCodeOff).toHaveBeenCalledWith({ password: 'mine', code: '654321' }));
  });

  it('a PIN is proved with the password; a device has a name; a calendar’s key is shown once', async () => {
    const person = userEvent.setup();
    show();
    const pin = within(screen.getByRole('region', { name: 'PIN' }));
    await person.type(pin.getByLabelText('Password as it stands'), 'a sentence');
    await person.type(pin.getByLabelText('New PIN'), '8206{Enter}');
    expect(changeOwn).toHaveBeenCalledWith({ now: 'a sentence', pin: '8206' });
    await waitFor(() => expect(pin.getByRole('status').textContent).toContain('Kept'));
    await person.type(screen.getByLabelText('What it is called in the shed'), 'tablet by the door{Enter}');
    expect(callDevice).toHaveBeenCalledWith('tablet by the door');
    answers(newFeedKey).mockResolvedValueOnce({ trouble: null, key: 'k3y' });
    await person.click(screen.getByRole('button', { name: 'Make a key' }));
    expect((await screen.findByTestId('feed')).textContent).toBe('/api/retests.ics?key=k3y');
  });
});

describe('who works here', () => {
  const row = (name: string, more: Partial<PersonRow> = {}): PersonRow => ({
    name,
    role: 'technician',
    licences: [],
    closed: false,
    wordUntil: null,
    hasPin: true,
    ...more,
  });
  const show = (people: PersonRow[]) =>
    render(<PeopleScreen people={people} me="Henrike" />, {
      wrapper: ({ children }: { children: React.ReactNode }) => (
        <WhoProvider who={somebody('Henrike', { role: 'lead' })}>{children}</WhoProvider>
      ),
    });

  it('somebody new gets a word that is shown once', async () => {
    const person = userEvent.setup();
    show([row('Henrike', { role: 'lead' })]);
    await person.type(screen.getByLabelText('Name, as it signs'), 'Bodil');
    await person.click(screen.getByRole('checkbox', { name: 'line voltage' }));
    answers(makeAccount).mockResolvedValueOnce({ trouble: null, word: 'abcd-efgh-jkmn-pqrs' });
    await person.click(screen.getByRole('button', { name: 'Make the account' }));
    expect(makeAccount).toHaveBeenCalledWith({ name: 'Bodil', role: 'technician', licences: ['lineVolts'] });
    expect((await screen.findByTestId('first-word')).textContent).toContain('Bodil: abcd-efgh-jkmn-pqrs');
    // The next one does not push the first from the page before anybody wrote it down.
    await person.type(screen.getByLabelText('Name, as it signs'), 'Ketil');
    answers(makeAccount).mockResolvedValueOnce({ trouble: null, word: 'mnpq-rstv-wxyz-2345' });
    await person.click(screen.getByRole('button', { name: 'Make the account' }));
    await waitFor(() => expect(screen.getAllByTestId('first-word')).toHaveLength(2));
    expect(screen.getAllByTestId('first-word').map((one) => one.textContent)).toEqual([
      expect.stringContaining('Ketil: mnpq'),
      expect.stringContaining('Bodil: abcd'),
    ]);
  });

  it('what somebody may is changed line by line; one’s own is another lead’s', async () => {
    const person = userEvent.setup();
    show([
      row('Henrike', { role: 'lead' }),
      row('Ilse', { licences: ['refrigerant'] }),
      row('Olga', { closed: true }),
    ]);
    await person.click(screen.getByRole('button', { name: /^Henrike/ }));
    expect(screen.getByText(/another lead changes what you may/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: /^Ilse/ }));
    const change = screen.getByRole<HTMLButtonElement>('button', { name: 'Change' });
    expect(change.disabled).toBe(true);
    await person.selectOptions(screen.getByLabelText('Role of Ilse'), 'lead');
    answers(changePerson).mockResolvedValueOnce({ trouble: 'Henrike is the last lead.' });
    await person.click(change);
    expect(changePerson).toHaveBeenCalledWith('Ilse', {
      role: 'lead',
      licences: ['refrigerant'],
      closed: false,
    });
    expect((await screen.findByRole('alert')).textContent).toContain('the last lead');
    answers(giveNewWord).mockResolvedValueOnce({ trouble: null, word: 'wxyz-2345-abcd-efgh' });
    await person.click(screen.getByRole('button', { name: 'New first word' }));
    expect((await screen.findByTestId('first-word')).textContent).toContain('wxyz-2345');
    await person.click(screen.getByRole('button', { name: /^Olga/ }));
    await person.click(screen.getByRole('button', { name: 'Open the account again' }));
    expect(changePerson).toHaveBeenLastCalledWith('Olga', {
      role: 'technician',
      licences: [],
      closed: false,
    });
  });
});

describe('a second person', () => {
  it('is somebody else, gives a PIN, and needs the server', async () => {
    const person = userEvent.setup();
    const given = jest.fn();
    render(
      <SecondPerson
        label="Stands by"
        done="Take it off"
        people={['Tove', 'Ilse', 'Olga']}
        me="tove"
        not="Olga"
        onGiven={given}
      />,
    );
    const names = screen.getByLabelText<HTMLSelectElement>('Stands by');
    expect([...names.options].map(({ text }) => text)).toEqual(['choose', 'Ilse']);
    await person.selectOptions(names, 'Ilse');
    asked.mockRejectedValueOnce(new NotAnswered('The server does not answer.', 0));
    await person.type(screen.getByLabelText('Their PIN'), '3190{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/nothing else can tell whose PIN it is/);
    expect(given).not.toHaveBeenCalled();
    asked.mockResolvedValueOnce({ witness: 'w', name: 'Ilse' });
    await person.type(screen.getByLabelText('Their PIN'), '3190{Enter}');
    await waitFor(() => expect(given).toHaveBeenCalledWith({ witness: 'w', name: 'Ilse' }));
  });
});

describe('a form for some roles only', () => {
  it('says so to the others, and takes nothing from them', () => {
    const form = (
      <Form deed="settle">
        <button type="submit">Keep it</button>
      </Form>
    );
    const { unmount } = render(<WhoProvider who={somebody('Ilse')}>{form}</WhoProvider>);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).matches(':disabled')).toBe(
      true,
    );
    expect(
      screen.getByText(/A technician does not do this: a lead settles what the site allows/),
    ).toBeTruthy();
    unmount();
    render(<WhoProvider who={somebody('Henrike', { role: 'lead' })}>{form}</WhoProvider>);
    expect(screen.getByRole('button', { name: 'Keep it' }).matches(':disabled')).toBe(false);
  });
});
