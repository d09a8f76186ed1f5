import { fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { BenchScreen } from './BenchScreen';

// A canvas is drawn by a browser only; what is on it is tested as data.
jest.mock('./SheetChartFigure', () => ({
  SheetChartFigure: ({ chart }: { chart: { label: string } }) => <p>{chart.label}</p>,
}));

const SHOP = { rules: {}, equipment: [], insulationPass: 'table' } as const;
const head = () => screen.getByTestId('bench-head').textContent;

describe('a bench sheet', () => {
  beforeEach(() => localStorage.clear());

  it('says what it makes of each figure at once, asks for what matters, and keeps the sheet', async () => {
    const person = userEvent.setup();
    const { unmount } = render(<BenchScreen sheet="coil" {...SHOP} />);
    expect(screen.getByText(/left empty stays unknown/)).toBeTruthy();
    await person.type(screen.getByLabelText('Ohms, in the order read, Ω'), '25.2');
    expect(head()).toBe('Not known yet');
    expect(screen.getByTestId('bench-next').textContent).toBe('Next: maker, at 20 °C.');
    await person.type(screen.getByLabelText('Maker, at 20 °C, Ω'), '31.5');
    await person.type(screen.getByLabelText('Leads held together, Ω'), '0.2{Enter}');
    // Enter went on to the next field.
    expect(document.activeElement).toBe(screen.getByLabelText('Its temperature, °C'));
    await person.type(screen.getByLabelText('Its temperature, °C'), '20');
    expect(head()).toMatch(/Too low: turns shorted/);
    expect(screen.getByRole('img', { name: /^This one 25(\.0)? Ω/ })).toBeTruthy();
    unmount();
    render(<BenchScreen sheet="coil" {...SHOP} />);
    expect(head()).toMatch(/Too low/);
    await person.click(screen.getByRole('button', { name: 'Clear the sheet' }));
    expect(screen.queryByTestId('bench-head')).toBeNull();
  });

  it('says what it was held against, with its source, and the shop’s own figure as that', async () => {
    const person = userEvent.setup();
    const key = 'coil-tolerances|Identical neighbour|percent';
    const rules = { [key]: 3, [`${key}|Winch`]: 12 };
    render(<BenchScreen sheet="coil" {...SHOP} rules={rules} equipment={['Groomer', 'Winch']} />);
    await person.type(screen.getByLabelText('Ohms, in the order read, Ω'), '31.9');
    await person.type(screen.getByLabelText('Leads held together, Ω'), '0');
    await person.type(screen.getByLabelText('Its temperature, °C'), '20');
    await person.type(screen.getByLabelText('Identical neighbours, Ω'), '30.1');
    expect(head()).toMatch(/Too high/);
    const held = screen.getByTestId('held-against').textContent;
    expect(held).toMatch(/Identical neighbour: may be off 3 %, the shop’s own figure/);
    expect(screen.getByRole('link', { name: 'Tables' }).getAttribute('href')).toBe('/tables#coil-tolerances');
    await person.selectOptions(screen.getByLabelText('The part is of'), 'Winch');
    expect(head()).not.toMatch(/Too high/);
    expect(screen.getByTestId('held-against').textContent).toMatch(/12 %, the shop’s own figure for Winch/);
  });

  it('takes back what was typed, field by field, and what was cleared', async () => {
    const person = userEvent.setup();
    render(<BenchScreen sheet="coil" {...SHOP} />);
    const ohms = screen.getByLabelText<HTMLInputElement>('Ohms, in the order read, Ω');
    const leads = screen.getByLabelText<HTMLInputElement>('Leads held together, Ω');
    const undo = screen.getByRole<HTMLButtonElement>('button', { name: 'Undo' });
    expect(undo.disabled).toBe(true);
    await person.type(ohms, '25.2');
    await person.type(leads, '0.2');
    await person.click(screen.getByRole('button', { name: 'Clear the sheet' }));
    expect([ohms.value, leads.value]).toEqual(['', '']);
    await person.click(undo);
    expect([ohms.value, leads.value]).toEqual(['25.2', '0.2']);
    await person.click(undo);
    expect([ohms.value, leads.value]).toEqual(['25.2', '']);
    await person.click(screen.getByRole('button', { name: 'Redo' }));
    expect(leads.value).toBe('0.2');
    await person.click(undo);
    await person.click(undo);
    expect([ohms.value, undo.disabled]).toEqual(['', true]);
  });

  it('what is no figure is said, and nothing is lost', async () => {
    const person = userEvent.setup();
    render(<BenchScreen sheet="diode" {...SHOP} />);
    await person.type(screen.getByLabelText('Red on the anode, V'), '0.6 A');
    expect(screen.getByRole('alert').textContent).toMatch(/Red on the anode: “0.6 A” is another quantity/);
    expect(screen.getByLabelText<HTMLInputElement>('Red on the anode, V').value).toBe('0.6 A');
  });

  it('a table grows by a line, takes a pasted column, and a grid has its names', async () => {
    const person = userEvent.setup();
    render(<BenchScreen sheet="outputs" {...SHOP} />);
    await person.type(screen.getByLabelText('Outputs'), '1, 2');
    await person.type(screen.getByLabelText('Volts at the controller’s supply, V'), '24');
    const grid = screen.getByRole('table', { name: 'Commanded by measured, volts' });
    for (const [cell, volts] of [
      ['1, 1', '24'],
      ['1, 2', '0'],
      ['2, 1', '0'],
      ['2, 2', '0'],
    ] as const)
      await person.type(within(grid).getByLabelText(cell), volts);
    expect(head()).toMatch(/One output is dead: 2/);
  });

  it('insulation: today and the last proved set stand in mirror cells', async () => {
    const person = userEvent.setup();
    render(<BenchScreen sheet="insulation" {...SHOP} />);
    for (const [field, value] of [
      ['Conductors', '1, 2'],
      ['Frame', 'PE'],
      ['Volts of the circuit, V', '230'],
      ['Test volts, V', '500'],
    ] as const)
      await person.type(screen.getByLabelText(field), value);
    const fill = (table: string, cells: string) =>
      fireEvent.paste(within(screen.getByRole('table', { name: table })).getByLabelText('From, line 1'), {
        clipboardData: { getData: () => cells },
      });
    fill('Today', '1\tPE\t210k\n2\tPE\tOL');
    fill('Last proved', '1\tPE\t900M');
    const cell = (name: string) => screen.getByRole('cell', { name });
    expect(cell('PE to 1: 210 kΩ, bad')).toBeTruthy();
    expect(cell('PE to 2: OL, good')).toBeTruthy();
    expect(cell('2 to 1: not read')).toBeTruthy();
    expect(cell('1 to PE, last proved: 900 MΩ')).toBeTruthy();
    expect(head()).toMatch(/Leaks: 1 to PE/);
  });

  it('pasted lines fill a table downwards, and are drawn', async () => {
    render(<BenchScreen sheet="trace" {...SHOP} />);
    const cell = screen.getByLabelText('Seconds, line 1');
    fireEvent.paste(cell, { clipboardData: { getData: () => '0\t0\n0.1\t80\n0.2\t40\n0.3\t20' } });
    expect(screen.getByLabelText<HTMLInputElement>('Value, line 4').value).toBe('20');
    expect(screen.getByLabelText('Value, line 5')).toBeTruthy();
    expect(await screen.findByText('Current over 0.3 s')).toBeTruthy();
  });
});
