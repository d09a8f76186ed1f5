import 'fake-indexeddb/auto';
import { entryWriter } from '@/core/testing/entryWriter';
import { waitingStore, type Channel } from './waitingStore';

/** Local storage as browsers have it: an earlier version kept what waited there. */
const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  },
});
const entry = entryWriter();
const row = (words: string, order: number) => ({ entry: entry('complaint', { words }), order });
const words = async (job: number) =>
  (await waitingStore(job).load()).map(({ entry: one }) => (one.type === 'complaint' ? one.body.words : ''));

/** A line between tabs, as browsers have it; jsdom has none. */
class Line {
  static readonly open = new Set<Line>();
  onmessage: ((event: { data: unknown }) => void) | null = null;
  constructor(readonly name: string) {
    Line.open.add(this);
  }
  postMessage(data: unknown): void {
    for (const other of Line.open)
      if (other !== this && other.name === this.name) other.onmessage?.({ data: structuredClone(data) });
  }
  close(): void {
    Line.open.delete(this);
  }
}

describe('what waits in a browser', () => {
  it('is kept by job, oldest first, across visits, and each tab takes only its own rows away', async () => {
    const [first, second] = [waitingStore(1), waitingStore(1)];
    const rows = [row('b', 2), row('a', 1)];
    await first.put(rows[0]!);
    await second.put(rows[1]!);
    await waitingStore(2).put(row('elsewhere', 1));
    expect(await words(1)).toEqual(['a', 'b']);
    await first.remove([rows[0]!.entry.id]);
    expect(await words(1)).toEqual(['a']);
    expect(await words(2)).toEqual(['elsewhere']);
    await second.remove([rows[1]!.entry.id]);
  });

  it('a row that is written again is the same row, with its reason', async () => {
    const store = waitingStore(3);
    const one = row('x', 1);
    await store.put(one);
    await store.put({ ...one, refused: { code: 'moved', message: 'The job has moved.' } });
    expect(await store.load()).toEqual([
      expect.objectContaining({ refused: { code: 'moved', message: 'The job has moved.' } }),
    ]);
  });

  it('what an earlier version kept is sent too, and taken away once it has arrived', async () => {
    const old = entry('complaint', { words: 'old' });
    localStorage.setItem('spiraxis-waiting-4', JSON.stringify([old, { nothing: 'of ours' }]));
    expect(await words(4)).toEqual(['old']);
    await waitingStore(4).remove([old.id]);
    expect(await words(4)).toEqual([]);
    expect(localStorage.getItem('spiraxis-waiting-4')).toBeNull();
  });

  it('damaged storage of an earlier version holds nothing', async () => {
    localStorage.setItem('spiraxis-waiting-5', '[{"id":"cut of');
    expect(await words(5)).toEqual([]);
  });

  it('tells the other tabs of its job, not itself and not other jobs', () => {
    Object.assign(globalThis, { BroadcastChannel: Line });
    const heard: [string, Channel][] = [];
    const stores = { one: waitingStore(6), other: waitingStore(6), elsewhere: waitingStore(7) };
    const stops = Object.entries(stores).map(([name, store]) =>
      store.follow((message) => heard.push([name, message])),
    );
    stores.one.tell({ is: 'written' });
    expect(heard).toEqual([['other', { is: 'written' }]]);
    for (const stop of stops) stop();
    stores.one.tell({ is: 'written' });
    expect(heard).toHaveLength(1);
  });
});
