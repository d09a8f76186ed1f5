import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { TYPED } from '../meter/liveSource';
import { MeterDialog } from './MeterDialog';
import { USUAL_METER } from './meterProfile';

function show(meter = USUAL_METER) {
  const [onKeep, onOpenChange, onSource] = [jest.fn(), jest.fn(), jest.fn()];
  render(
    <MeterDialog
      open
      meter={meter}
      source={TYPED}
      onKeep={onKeep}
      onSource={onSource}
      onOpenChange={onOpenChange}
    />,
  );
  return { onKeep, onOpenChange, onSource, person: userEvent.setup() };
}
async function fill(person: ReturnType<typeof userEvent.setup>, label: string, text: string) {
  const field = screen.getByLabelText(label);
  await person.clear(field);
  if (text) await person.type(field, text);
}

describe('the meter in the hand', () => {
  it('is kept as its leaflet has it, a comma for a point included', async () => {
    const { onKeep, onOpenChange, person } = show();
    await fill(person, 'Name', 'Yellow one');
    await fill(person, 'Accuracy, % of reading', '0,5');
    await fill(person, 'Leads held together read, Ω', '0.2');
    await fill(person, 'Shows for over-range', '1.');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(onKeep).toHaveBeenCalledWith({
      ...USUAL_METER,
      name: 'Yellow one',
      accuracyPercent: 0.5,
      leadOhms: 0.2,
      over: '1.',
    });
    expect(onOpenChange).toHaveBeenCalledWith(false);
  });

  it.each([
    ['Counts of the last digit', 'few', /Counts of the last digit: “few” is not between 0 and 100/],
    ['Own resistance on volts, MΩ', '0', /Own resistance on volts, MΩ: “0” is not between 0.001 and 10000/],
    ['Accuracy, % of reading', '', /Accuracy, % of reading: “” is not between/],
  ])('%s %j is refused with its bounds', async (label, text, words) => {
    const { onKeep, person } = show();
    await fill(person, label, text);
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(words);
    expect(onKeep).not.toHaveBeenCalled();
  });

  it('without a name it goes by the usual one, and the usual meter is one press away', async () => {
    const { onKeep, person } = show({ ...USUAL_METER, name: 'Yellow one', counts: 9 });
    await fill(person, 'Name', '');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(onKeep).toHaveBeenLastCalledWith({ ...USUAL_METER, counts: 9 });
    await person.click(screen.getByRole('button', { name: 'A usual meter' }));
    expect(onKeep).toHaveBeenLastCalledWith(USUAL_METER);
  });

  it('says where figures come from, and why a plug is not to be had', async () => {
    const { onSource, person } = show();
    expect(screen.getByLabelText<HTMLInputElement>('I type them').checked).toBe(true);
    await person.click(screen.getByLabelText('The shop’s meter, over the server'));
    expect(onSource).toHaveBeenCalledWith({ from: 'shop' });
    expect(screen.getByLabelText<HTMLInputElement>('A meter plugged into this device').disabled).toBe(true);
    expect(screen.getByText(/reaches no serial plug/)).toBeTruthy();
  });
});
