import { ruleKey, ruleKeys, upgradeRules } from './ruleKey';
import { REFERENCE_TABLES } from './tables';

const drops = REFERENCE_TABLES.find(({ id }) => id === 'contact-drops')!;

describe('the name of a shop rule', () => {
  it('is one for each cell, by what its row is about', () => {
    const keys = ruleKeys();
    expect(new Set(keys).size).toBe(keys.length);
    expect(ruleKey(drops, 0, 'repair')).toBe('contact-drops|One crimp, lug or bolted joint|repair');
  });

  it('stays with its row when rows are put in before it', () => {
    const moved = { ...drops, rows: [{ place: 'A new row', good: 1, repair: 2 }, ...drops.rows] };
    expect(ruleKey(moved, 1, 'repair')).toBe(ruleKey(drops, 0, 'repair'));
  });

  it('of a rule kept by its place is the name of the row that stood there; others stay', () => {
    expect(upgradeRules({ 'contact-drops|0|repair': 0.2, 'no-table|3|x': 1 })).toEqual({
      [ruleKey(drops, 0, 'repair')]: 0.2,
      'no-table|3|x': 1,
    });
    const named = { [ruleKey(drops, 1, 'good')]: 0.1 };
    expect(upgradeRules(named)).toEqual(named);
  });
});
