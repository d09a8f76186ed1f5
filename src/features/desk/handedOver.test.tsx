import { render, screen } from '@testing-library/react';
import type { Entry } from '@/core/job/entries';
import { singleCoil } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { useDesk } from './desk';
import { HandedOver } from './HandedOver';
import { openDesk } from './testing/openDesk';

jest.mock('./desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;
const write = entryWriter();
const handOver = write('handOver', { note: '' });
const late = write('ledger', { item: 'jumper across K1', kind: 'jumper' }, { person: 'Ilse' });

function show(entries: readonly Entry[], writes = true) {
  asked.mockImplementation(openDesk(singleCoil(), entries).useDesk);
  render(<HandedOver writes={writes} />);
}

describe('a job that was handed over', () => {
  it('says on each step what writing does to it, to who may write', () => {
    show([handOver]);
    expect(screen.getByRole('status').textContent).toBe(
      'Handed over by Tove. What is read, decided or done here takes the machine back in hand.',
    );
  });
  it.each([true, false])(
    'says what came that nobody had known, by whom and when (may write: %s)',
    (writes) => {
      show([handOver, late], writes);
      expect(screen.getByRole('alert').textContent).toBe(
        'Handed over by Tove before this came: something put in: jumper across K1, Ilse, 2026-02-04 08:02. The machine is in hand again: fetch it back if it is out, look at what came, and hand it over anew.',
      );
      expect(screen.getByRole('link', { name: 'hand it over anew' })).toBeTruthy();
    },
  );
  it('says nothing on one in hand, nor of writing to who only looks', () => {
    show([]);
    show([handOver], false);
    expect(document.body.textContent).toBe('');
  });
});
