import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { contactorTwoSupplies } from '@/core/templates/line';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { MakeSafeScreen } from './MakeSafeScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;

function show() {
  const desk = openDesk(contactorTwoSupplies());
  asked.mockImplementation(desk.useDesk);
  render(<MakeSafeScreen />);
  return { desk, person: userEvent.setup() };
}
const sign = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Sign as Tove' });

/** Closes the point that stands open: every place reads nothing, the source reads before and after. */
async function closePoint(person: ReturnType<typeof userEvent.setup>) {
  const form = within(screen.getByRole('form', { name: /^Close / }));
  const tried = form.queryByLabelText(/^Shown by/);
  if (tried) await person.type(tried, 'pushed over with the start pressed: it rests');
  else {
    await person.type(form.getByLabelText('Known source'), '120');
    for (const place of form.getAllByLabelText(/\(was /)) await person.type(place, '0.0');
    await person.type(form.getByLabelText('Known source again'), '120');
  }
  await person.click(form.getByRole('button', { name: 'Closed and proved' }));
}

describe('make safe', () => {
  it('is signed only when every energy is closed, and names the points it was signed for', async () => {
    const { desk, person } = show();
    expect(sign().disabled).toBe(true);
    expect(screen.getByTestId('still-live').children.length).toBeGreaterThan(0);
    const points = screen.getAllByRole('listitem').length;
    for (let round = 0; round < points && screen.queryByRole('form'); round++) await closePoint(person);
    expect(sign().disabled).toBe(false);
    expect(screen.queryByTestId('still-live')).toBeNull();
    await person.click(sign());
    const { madeSafe, isolated } = desk.log.view().state;
    expect(madeSafe!.body.points).toEqual([...isolated.keys()]);
    expect(screen.getByTestId('made-safe').textContent).toMatch(/signed by Tove/);
  });

  it('a point opened again takes the signature with it, and its reason stands in the list', async () => {
    const { desk, person } = show();
    while (screen.queryByRole('form')) await closePoint(person);
    await person.click(sign());
    await person.click(screen.getAllByRole('button', { name: /lock/ })[0]!);
    const open = screen.getByRole<HTMLButtonElement>('button', { name: 'Open this point' });
    expect(open.disabled).toBe(true);
    await person.type(screen.getByLabelText('Opened again, because'), 'volts at the contactor');
    await person.click(open);
    expect(desk.log.view().state.madeSafe).toBeNull();
    expect(sign().disabled).toBe(true);
    expect(screen.getByRole('region', { name: 'Locks taken off' }).textContent).toMatch(
      /volts at the contactor/,
    );
  });

  it('what was opened for a test is told in place of the signature, and can be closed again under it', async () => {
    const { desk, person } = show();
    while (screen.queryByRole('form')) await closePoint(person);
    await person.click(sign());
    const [point] = desk.log.view().state.isolated.keys();
    act(() => void desk.log.write({ type: 'reopened', body: { point: point!, reason: 'volts', setup: {} } }));
    expect(screen.queryByTestId('made-safe')).toBeNull();
    expect(screen.getByTestId('opened-since').textContent).toMatch(
      /^Opened for a test: .+\. Each is closed and proved again before anything is changed\. Signed by Tove/,
    );
    await closePoint(person);
    expect(screen.getByTestId('made-safe').textContent).toMatch(/signed by Tove/);
  });

  it('a place that is not dead keeps the point open', async () => {
    const { desk, person } = show();
    const form = within(screen.getByRole('form', { name: /^Close / }));
    await person.type(form.getByLabelText('Known source'), '120');
    for (const place of form.getAllByLabelText(/\(was /)) await person.type(place, '118');
    await person.type(form.getByLabelText('Known source again'), '120');
    await person.click(form.getByRole('button', { name: 'Closed and proved' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/it is not dead/);
    expect(desk.log.view().state.isolated.size).toBe(0);
  });
});
