import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { RequisitionRow, SpareRow } from '@/db/spares';
import { differenceWords, dueWords, ratingsWords } from '@/words/en/spares';
import { askPieces, keepSpare, movePieces, stepOn } from './actions';
import { OfferedSpares } from './OfferedSpares';
import { Requisitions } from './Requisitions';
import type { Offered } from './server';
import { MovePieces, SpareCard } from './SpareCard';
import { somebody } from '@/core/testing/signedAs';
import { WhoProvider } from '@/ui/who';

const push = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }) }));
jest.mock('./actions', () => {
  const fine = () => jest.fn(async () => ({ trouble: null }));
  return { keepSpare: fine(), movePieces: fine(), askPieces: fine(), stepOn: fine() };
});
const kept = keepSpare as unknown as jest.Mock;

const spare: SpareRow = {
  id: '0197a000-0000-7000-8000-000000000001',
  number: 'OR-4410',
  name: 'Valve coil',
  kind: 'coil',
  ratings: { volts: 12, current: 'DC', ohms: 21.5 },
  fitting: '2-pin plug',
  place: 'Rack A',
  stock: 2,
  minimum: 2,
  price: 62,
  lead_days: 3,
  supplier: '',
  on_the_way: 1,
};

const asLead = ({ children }: { children: React.ReactNode }) => (
  <WhoProvider who={somebody('Henrike', { role: 'lead' })}>{children}</WhoProvider>
);

describe('a spare’s card', () => {
  beforeEach(() => kept.mockClear());

  it('keeps what its label says and nothing that it does not', async () => {
    const person = userEvent.setup();
    render(<SpareCard spare={spare} kinds={['coil', 'relay']} />);
    await person.clear(screen.getByLabelText('Price'));
    await person.type(screen.getByLabelText('Where it lies'), ', bin 4');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(kept).toHaveBeenCalledWith({
      id: spare.id,
      number: 'OR-4410',
      name: 'Valve coil',
      kind: 'coil',
      ratings: { volts: 12, current: 'DC', ohms: 21.5 },
      fitting: '2-pin plug',
      place: 'Rack A, bin 4',
      minimum: 2,
      price: null,
      leadDays: 3,
      supplier: '',
    });
    expect(push).not.toHaveBeenCalled();
  });

  it('asks for what the label of its kind says, and shows what was written beside that', async () => {
    const person = userEvent.setup();
    render(
      <SpareCard spare={{ ...spare, ratings: { ...spare.ratings, seconds: 5 } }} kinds={['coil', 'valve']} />,
    );
    expect(screen.getByLabelText<HTMLInputElement>('Seconds').value).toBe('5');
    expect(screen.queryByLabelText('Ways')).toBeNull();
    await person.clear(screen.getByLabelText('Seconds'));
    expect(screen.queryByLabelText('Seconds')).toBeNull();
    await person.selectOptions(screen.getByLabelText('Kind of part'), 'valve');
    await person.type(screen.getByLabelText('Ways'), '3/2');
    // Another kind was picked: what the label said is not thrown away unseen.
    expect(screen.getByLabelText<HTMLInputElement>('Ohms at 20 °C').value).toBe('21.5');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(kept).toHaveBeenCalledWith(
      expect.objectContaining({
        kind: 'valve',
        ratings: { volts: 12, current: 'DC', ohms: 21.5, ways: '3/2' },
      }),
    );
  });

  it('names what is no figure, and makes nothing of it', async () => {
    const person = userEvent.setup();
    render(<SpareCard spare={spare} kinds={['coil']} />);
    const ohms = screen.getByLabelText('Ohms at 20 °C');
    await person.clear(ohms);
    await person.type(ohms, 'about twenty');
    await person.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(screen.getByRole('alert').textContent).toContain('“about twenty” is no figure');
    expect(kept).not.toHaveBeenCalled();
    expect((ohms as HTMLInputElement).value).toBe('about twenty');
  });

  it('pieces come and go by hand, whole ones', async () => {
    const person = userEvent.setup();
    render(<MovePieces number="OR-4410" />, { wrapper: asLead });
    await person.type(screen.getByLabelText('Pieces'), '1.5');
    await person.click(screen.getByRole('button', { name: 'Ask for so many' }));
    expect(screen.getByRole('alert').textContent).toContain('“1.5” is no number of pieces');
    await person.clear(screen.getByLabelText('Pieces'));
    await person.type(screen.getByLabelText('Pieces'), '2');
    await person.click(screen.getByRole('button', { name: 'Bad, sent back' }));
    expect(movePieces).toHaveBeenCalledWith('OR-4410', -2, 'sentBack');
    await person.type(screen.getByLabelText('Pieces'), '3');
    await person.click(screen.getByRole('button', { name: 'Ask for so many' }));
    expect(askPieces).toHaveBeenCalledWith('OR-4410', 3);
  });
});

describe('requisitions', () => {
  const row = (number: number, more: Partial<RequisitionRow> = {}): RequisitionRow => ({
    number,
    pieces: 2,
    state: 'asked',
    due: null,
    asked_at: new Date('2026-11-20T08:00:00Z'),
    spare_number: 'OR-4410',
    spare_name: 'Valve coil',
    supplier: 'valley counter',
    price: 62,
    job: 411,
    machine: 'G-4',
    person: 'Ilse',
    ...more,
  });

  it('offer what comes next and nothing else, and say what is late', async () => {
    const person = userEvent.setup();
    render(
      <Requisitions
        today="2026-11-28"
        open={[row(4), row(3, { state: 'ordered', due: '2026-11-26' })]}
        done={[row(1, { state: 'received' })]}
      />,
      { wrapper: asLead },
    );
    const [asked, ordered] = screen.getAllByTestId('requisition');
    expect(
      within(asked!)
        .getAllByRole('button')
        .map(({ textContent }) => textContent),
    ).toEqual(['Approve', 'Refuse']);
    expect(ordered!.textContent).toContain('2 days late');
    await person.click(within(asked!).getByRole('button', { name: 'Approve' }));
    expect(stepOn).toHaveBeenCalledWith(4, 'approved', '');
    (stepOn as unknown as jest.Mock).mockResolvedValueOnce({ trouble: 'Somebody was quicker.' });
    await person.click(within(ordered!).getByRole('button', { name: 'Received' }));
    expect((await within(ordered!).findByRole('alert')).textContent).toContain('Somebody was quicker.');
  });

  it('say when nothing is on its way', () => {
    render(<Requisitions today="2026-11-28" open={[]} done={[]} />);
    expect(document.body.textContent).toContain('Nothing is on its way');
  });
});

describe('what the shelf offers for a part', () => {
  const offered = (number: string, more: Partial<Offered> = {}): Offered => ({
    number,
    name: 'Valve coil',
    place: 'Rack A',
    stock: 2,
    fit: 'fits',
    says: '24 V DC, 31.5 Ω',
    differs: [],
    ...more,
  });
  const answers = (body: unknown, ok = true) => {
    globalThis.fetch = jest.fn(async () => ({
      status: ok ? 200 : 404,
      json: async () => body,
    })) as unknown as typeof fetch;
  };

  it('can be taken where it fits and is there; what does not fit is folded away with why', async () => {
    answers([
      offered('OR-1'),
      offered('OR-2', { stock: 0 }),
      offered('OR-3', { fit: 'doesNot', differs: ['12 V where 24 V is wanted'] }),
    ]);
    const choose = jest.fn();
    const person = userEvent.setup();
    render(<OfferedSpares job={411} part="Y7" chosen="" onChoose={choose} />);
    await person.click(await screen.findByRole('button', { name: 'Take it' }));
    expect(choose).toHaveBeenCalledWith('OR-1');
    expect(screen.getAllByRole('button', { name: 'Take it' })).toHaveLength(1);
    const folded = screen.getByText('One other of its kind, which does not fit').closest('details')!;
    expect(folded.textContent).toContain('12 V where 24 V is wanted');
  });

  it('that cannot be seen stops nobody', async () => {
    answers({ message: 'Job 9 has no part Y7.' }, false);
    const { rerender } = render(<OfferedSpares job={9} part="Y7" chosen="" onChoose={() => undefined} />);
    expect(await screen.findByText('Job 9 has no part Y7.')).toBeTruthy();
    globalThis.fetch = jest.fn(() => Promise.reject(new Error('away')));
    rerender(<OfferedSpares job={9} part="Y8" chosen="" onChoose={() => undefined} />);
    expect(await screen.findByText('The shelf cannot be seen from here now.')).toBeTruthy();
    answers([]);
    rerender(<OfferedSpares job={9} part="Y9" chosen="" onChoose={() => undefined} />);
    expect(await screen.findByText('Nothing of this kind lies on the shelf.')).toBeTruthy();
  });
});

describe('ratings in words', () => {
  it('as a label has them, and against what is wanted', () => {
    expect(ratingsWords({ volts: 24, current: 'DC', ohms: 31.5 }, '2-pin')).toBe('24 V DC, 31.5 Ω, 2-pin');
    expect(ratingsWords({}, '')).toBe('nothing said of it');
    expect(differenceWords({ rating: 'volts', wanted: 24, has: 12, isMore: false })).toBe(
      '12 V where 24 V is wanted',
    );
    expect(differenceWords({ rating: 'contactAmps', wanted: 12, has: 30, isMore: true })).toContain(
      'more than the 12',
    );
    expect(differenceWords({ rating: 'ohms', wanted: 7.4, has: null, isMore: false })).toContain(
      'does not say',
    );
    expect(dueWords(null, '2026-11-28')).toEqual({ words: 'no day said', late: false });
    expect(dueWords('2026-11-28', '2026-11-28').words).toBe('due today');
    expect(dueWords('2026-12-19', '2026-11-28').words).toBe('due 19 Dec 2026');
    expect(dueWords('2026-11-27', '2026-11-28')).toEqual({ words: '1 day late', late: true });
  });
});
