import { entrySchema } from './entries';
import { upgradeEntry } from './upgradeEntry';

const old = (knownBefore: string, value: string) => ({
  id: '01900000-0000-7000-8000-000000000001',
  at: '2026-02-04T08:00:00.000Z',
  person: 'Tove',
  type: 'isolation',
  body: {
    point: 'G1',
    energy: 'battery',
    how: '',
    lock: '1',
    tag: '1',
    released: '',
    proved: { knownBefore, work: [{ place: 'B+ to frame', value }], knownAfter: knownBefore },
  },
});

describe('an entry of an older log', () => {
  it('keeps its proof: words become the values they said', () => {
    const entry = entrySchema.parse(upgradeEntry(old('12.6 V', '0.0 V')));
    expect(entry.body).toMatchObject({
      proved: {
        meter: '',
        knownBefore: { value: 12.6, unit: 'V', typed: '12.6 V' },
        work: [{ from: 'B+', to: 'frame', measured: { value: 0, typed: '0.0 V' } }],
      },
    });
  });

  it('a value that was none proves nothing today', () => {
    const entry = entrySchema.parse(upgradeEntry(old('12.6 V', 'OL V')));
    const { work } = (entry.body as { proved: { work: { measured: { value: number } }[] } }).proved;
    expect(work[0]!.measured.value).toBeGreaterThan(1e6);
  });

  it('of today comes back as it is, and so does what is none', () => {
    const today = upgradeEntry(old('12.6 V', '0.0 V'));
    expect(upgradeEntry(today)).toEqual(today);
    for (const odd of [null, 3, 'x', {}, { type: 'isolation' }]) expect(upgradeEntry(odd)).toBe(odd);
  });

  it('half a character is refused by name', () => {
    const half = { ...old('12.6 V', '0.0 V'), person: 'Tove\ud83d' };
    const result = entrySchema.safeParse(upgradeEntry(half));
    expect(result.success).toBe(false);
    expect(result.error!.issues[0]).toMatchObject({ path: ['person'] });
  });
});
