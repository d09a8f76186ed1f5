import { drawnWords, wayWords } from './classes';
import { differenceWords } from './drawing';

describe('a class in words', () => {
  it.each([
    [{ parts: 12, machines: 9, of: 12, ways: 1 }, '12 parts; on 9 of 12 machines, drawn alike'],
    [{ parts: 12, machines: 9, of: 12, ways: 2 }, '12 parts; on 9 of 12 machines, drawn in 2 ways'],
    [{ parts: 12, machines: 1, of: 12, ways: 1 }, '12 parts; on 1 of 12 machines'],
    [{ parts: 12, machines: 1, of: 1, ways: 1 }, '12 parts; on its one machine'],
  ])('says on how many it is drawn how', (drawn, words) => {
    expect(drawnWords(drawn)).toBe(words);
  });

  it('names some machines and counts the others', () => {
    expect(wayWords({ machines: 2, named: ['G-1', 'G-2'] })).toBe('on 2: G-1, G-2');
    expect(wayWords({ machines: 9, named: ['G-1', 'G-2'] })).toBe('on 9: G-1, G-2 and 7 more');
  });

  it('holds a drawing against an earlier one, or against what others have', () => {
    const changed = {
      is: 'changed',
      part: 'W31B',
      key: 'lengthMetres',
      before: '1.4',
      after: '2.6',
    } as const;
    expect(differenceWords(changed)).toBe('W31B length: 2.6 m (was 1.4 m)');
    expect(differenceWords(changed, 'others')).toBe('W31B length: 2.6 m (others 1.4 m)');
    expect(differenceWords({ ...changed, before: '' })).toBe('W31B length: 2.6 m (was not given)');
    expect(differenceWords({ ...changed, before: '' }, 'others')).toBe(
      'W31B length: 2.6 m (others do not say it)',
    );
    expect(differenceWords({ is: 'removed', part: 'F7', kind: 'fuse' }, 'others')).toBe('F7, fuse: not here');
    expect(differenceWords({ is: 'removed', part: 'F7', kind: 'fuse' })).toBe('F7, fuse: taken out');
  });
});
