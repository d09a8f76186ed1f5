import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { emptyDrawing } from '@/core/draw/layChain';
import { twoWayPair } from '@/core/templates/electrical';
import { keepDrawing } from './actions';
import { DrawScreen } from './DrawScreen';
import type { OpenDrawing } from './schema';

jest.mock('./actions', () => ({ keepDrawing: jest.fn(), openVersion: jest.fn() }));
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: jest.fn(), refresh: jest.fn() }),
  usePathname: () => '/machines/T-1/draw',
}));
// The layout comes from a worker; what is typed, checked and kept does not wait for it.
jest.mock('./useSchematic', () => ({ useSchematic: () => ({ drawn: null, trouble: null }) }));
jest.mock('@/ui/PanZoom', () => ({ PanZoom: ({ children }: { children: React.ReactNode }) => children }));
const kept = keepDrawing as jest.Mock;

const desk = (more: Partial<OpenDrawing> = {}): OpenDrawing => ({
  gaugeUnit: 'bar',
  machine: { code: 'T-1', name: 'Test bench' },
  functionId: null,
  name: '',
  version: 0,
  circuit: emptyDrawing('').circuit,
  versions: [],
  siblings: [],
  alike: [],
  ...more,
});
const RUN = 'battery 24, fuse 5, seat switch, coil 30, ground';
const parts = () =>
  within(screen.getByRole('list', { name: 'Parts of the drawing' })).queryAllByRole('button');
async function show(more: Partial<OpenDrawing> = {}) {
  localStorage.clear();
  kept.mockReset();
  render(<DrawScreen desk={desk(more)} />);
  return userEvent.setup();
}
const line = () => screen.getByRole('combobox', { name: 'Chain of parts' });

describe('a function drawn from nothing', () => {
  it('is typed, checked as it grows, and taken back and forth step by step', async () => {
    const person = await show();
    expect(screen.getByText('Nothing is drawn yet.')).toBeTruthy();
    await person.type(line(), `${RUN}{Enter}`);
    expect(parts()).toHaveLength(4);
    expect(document.querySelectorAll('[data-finding]').length).toBeGreaterThan(0);
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    expect(screen.getByText('Nothing is drawn yet.')).toBeTruthy();
    await person.keyboard('{Control>}y{/Control}');
    expect(parts()).toHaveLength(4);
  });

  it('asks whom a contact protects, and takes the answer', async () => {
    const person = await show();
    await person.type(line(), `${RUN}{Enter}`);
    const finding = document.querySelector<HTMLElement>('[data-finding="guardUnanswered"]')!;
    expect(finding.textContent).toMatch(/protect/);
    await person.click(within(finding).getByRole('button'));
    await waitFor(() => expect(document.querySelector('[data-finding="guardUnanswered"]')).toBeNull());
  });

  it('its sheets are tabs that go by arrow keys', async () => {
    const person = await show({ circuit: twoWayPair(), functionId: '1', version: 1, name: 'Two ways' });
    const tabs = screen.getAllByRole('tab');
    expect(tabs.map((tab) => tab.textContent)).toEqual(['Parts', 'Try it', 'Versions']);
    await person.click(tabs[0]!);
    await person.keyboard('{ArrowRight}');
    expect(screen.getByRole('tab', { selected: true }).textContent).toBe('Try it');
    expect(screen.getByRole('tabpanel').getAttribute('aria-labelledby')).toBe(
      screen.getByRole('tab', { selected: true }).id,
    );
  });

  it('a part that is pressed shows its form, and what is changed there can be undone', async () => {
    const person = await show({ circuit: twoWayPair(), functionId: '1', version: 1, name: 'Two ways' });
    await person.click(parts().find((row) => row.textContent?.startsWith('F1'))!);
    const rating = screen.getByLabelText('Rating, A');
    await person.clear(rating);
    await person.type(rating, '10{Enter}');
    expect(screen.getByText(/changed/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    expect(screen.getByLabelText<HTMLInputElement>('Rating, A').value).toBe('7.5');
  });

  it('is kept by Ctrl+S with a name; a refusal stays in the dialog', async () => {
    const person = await show();
    await person.type(line(), `${RUN}{Enter}`);
    kept.mockResolvedValueOnce({ trouble: 'Give the function a name.' });
    fireEvent.keyDown(window, { key: 's', ctrlKey: true });
    const dialog = within(await screen.findByRole('dialog'));
    await person.type(dialog.getByLabelText('What the function is called'), 'Fan');
    await person.click(dialog.getByRole('button', { name: /Keep/ }));
    expect((await dialog.findByRole('alert')).textContent).toMatch(/Give the function a name/);
    kept.mockResolvedValueOnce({ functionId: '7', version: 1 });
    await person.click(dialog.getByRole('button', { name: /Keep/ }));
    expect(await screen.findByText('Kept as version 1.')).toBeTruthy();
    expect(kept.mock.calls[1][0]).toMatchObject({ machine: 'T-1', functionId: null, name: 'Fan' });
  });

  it('is kept on those machines of its class alone that are ticked, one or all; on none where nobody ticks', async () => {
    const ids = ['a', 'b', 'c', 'd'].map((end) => `01900000-0000-7000-8000-00000000000${end}`);
    const alike = ids.map((id, at) => ({ id, machine: `T-${at + 2}` }));
    const known = { functionId: '01900000-0000-7000-8000-000000000001', name: 'Lift', version: 3 };
    const keep = async (person: ReturnType<typeof userEvent.setup>, ...pressed: RegExp[]) => {
      kept.mockResolvedValue({ trouble: 'not now' });
      const before = kept.mock.calls.length;
      if (!screen.queryByRole('dialog')) fireEvent.keyDown(window, { key: 's', ctrlKey: true });
      const dialog = within(await screen.findByRole('dialog'));
      for (const name of pressed) {
        const box = dialog.queryByRole('checkbox', { name }) ?? dialog.getByRole('button', { name });
        await person.click(box);
      }
      await person.click(dialog.getByRole('button', { name: 'Keep it' }));
      await waitFor(() => expect(kept.mock.calls).toHaveLength(before + 1));
      return (kept.mock.lastCall as [{ onto: string[] }])[0].onto;
    };
    const person = await show({ ...known, alike });
    expect(await keep(person)).toEqual([]);
    expect(await keep(person, /^T-3$/)).toEqual([ids[1]]);
    expect(await keep(person, /^All 4$/)).toEqual(ids);
    expect(await keep(person, /^None of them$/)).toEqual([]);
    cleanup();
    const other = await show({ ...known, alike: alike.slice(0, 1) });
    expect(await keep(other)).toEqual([]);
    expect(await keep(other, /^T-2$/)).toEqual([ids[0]]);
  });

  it('what was drawn and not kept is there again, and can be begun anew', async () => {
    const person = await show();
    await person.type(line(), `${RUN}{Enter}`);
    document.body.innerHTML = '';
    render(<DrawScreen desk={desk()} />);
    await screen.findByText(/Kept on this device from before/);
    expect(parts()).toHaveLength(4);
    await person.click(screen.getByRole('button', { name: 'Begin again' }));
    expect(screen.getByText('Nothing is drawn yet.')).toBeTruthy();
  });
});
