import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { calibrationWords, alikeWords, factorWords } from '@/words/en/record';
import { CalibrationPlot } from './CalibrationPlot';
import { RecordTable } from './RecordTable';
import type { RecordRow } from './server';
import { settleOdds } from './actions';

jest.mock('./actions', () => ({ settleOdds: jest.fn(async () => ({ trouble: null })) }));

const settled = settleOdds as unknown as jest.Mock;
const row = (of: string, words: string, more: Partial<RecordRow> = {}): RecordRow => ({
  of,
  words,
  found: 3,
  expected: 2.2,
  factor: 1.3,
  own: false,
  ...more,
});
const rows = [
  row('pin|open', 'plug pin, open', { found: 36, expected: 14.1, factor: 2.1 }),
  row('wire|open', 'wire, open', { found: 12, own: true, factor: 3 }),
  row('coil|open', 'coil, open', { found: 0, expected: 7.8, factor: 0.55 }),
];

beforeEach(() => settled.mockClear());

describe('what usually breaks', () => {
  it('shows what was found, and the rest on demand, sorted by its heads', async () => {
    const person = userEvent.setup();
    render(<RecordTable rows={rows} learn by={null} />);
    expect(screen.queryByText('coil, open')).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Also what was never found' }));
    expect(screen.getByText('coil, open')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Weighed' }));
    const first = within(screen.getByRole('table')).getAllByRole('row')[1]!;
    expect(first.textContent).toContain('wire, open');
  });

  it('an own factor goes beside those that were set before; what is no figure stays, and is named', async () => {
    const person = userEvent.setup();
    render(<RecordTable rows={rows} learn by="Henrike" />);
    await person.click(screen.getByRole('button', { name: 'Own factor for plug pin, open' }));
    const field = screen.getByLabelText('Own factor: plug pin, open');
    await person.type(field, 'many');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(screen.getByRole('alert').textContent).toContain('“many” is no factor');
    expect(settled).not.toHaveBeenCalled();
    await person.clear(field);
    await person.type(field, '2,5');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(settled).toHaveBeenCalledWith({ learn: true, own: { 'wire|open': 3, 'pin|open': 2.5 } });
    expect((await screen.findByRole('status')).textContent).toContain('Kept');
  });

  it('an own factor is taken back by an empty field, and the shed’s odds by the tick', async () => {
    const person = userEvent.setup();
    render(<RecordTable rows={rows} learn by={null} />);
    await person.click(screen.getByRole('button', { name: 'Own factor for wire, open' }));
    await person.clear(screen.getByLabelText('Own factor: wire, open'));
    await person.click(screen.getByRole('checkbox'));
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(settled).toHaveBeenCalledWith({ learn: false, own: {} });
  });

  it('says in sentences how doubt came true, and what was found alike', () => {
    const bins = [{ from: 0.5, to: 0.75, count: 20, said: 0.6, cameTrue: 0.7, least: 0.55, most: 0.82 }];
    expect(calibrationWords({ jobs: 135, off: 0.012, named: 130, wrong: 1, bins })).toBe(
      'Over 135 proved jobs the doubt was off by 1 point of a hundred on average. Of 130 parts named, one was wrong.',
    );
    expect(calibrationWords({ jobs: 0, off: NaN, named: 0, wrong: 0, bins: [] })).toBe(
      'No job was proved yet.',
    );
    expect(
      alikeWords({
        jobs: 11,
        parts: [
          { words: 'X31.2 bulkhead pin 2', found: 8 },
          { words: 'S3 key switch', found: 1 },
        ],
      }),
    ).toBe('8 of 11 were X31.2 bulkhead pin 2; 1 was S3 key switch');
    expect([factorWords(1.01), factorWords(3.14), factorWords(14.2)]).toEqual(['as usual', '3.1 ×', '14 ×']);
    render(<CalibrationPlot bins={bins} label="said 60 %, came true 70 % of 20" />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain('came true 70 %');
  });
});
