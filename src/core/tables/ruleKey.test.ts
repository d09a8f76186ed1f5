import { insulationMark } from './insulationPass';
import { shopMarks } from './marks';
import { equipmentKey, ruleKey, ruleLeasts, splitRule, upgradeRules } from './ruleKey';
import { isOpen, REFERENCE_TABLES } from './tables';

const drops = REFERENCE_TABLES.find(({ id }) => id === 'contact-drops')!;

describe('the name of a shop rule', () => {
  it('is one for each cell, by what its row is about', () => {
    const editable = REFERENCE_TABLES.flatMap((table) =>
      table.rows.flatMap((_row, at) => table.columns.filter(({ key }) => isOpen(table, at, key))),
    );
    // What nothing is held against is not offered to be written over.
    expect([...ruleLeasts().keys()]).not.toContain('insulation|Machine power circuit to earth|megohms');
    expect([...ruleLeasts().keys()]).toContain('insulation|Above 500 V|megohms');
    expect(ruleLeasts().size).toBe(editable.length);
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

describe('a shop rule for one class of equipment', () => {
  const key = ruleKey(drops, 1, 'good');
  const rules = { [key]: 0.12, [equipmentKey(key, 'Winch')]: 0.08 };

  it('goes before the shop’s for all, and for no other class', () => {
    expect(splitRule(equipmentKey(key, 'Winch'))).toEqual({ key, equipment: 'Winch' });
    expect(splitRule(key)).toEqual({ key, equipment: null });
    const good = (equipment: string | null) => shopMarks(rules, { equipment }).drops.heavyContact.good;
    expect([good('Winch'), good('Groomer'), good(null)]).toEqual([0.08, 0.12, 0.12]);
    expect([...shopMarks(rules, { equipment: 'Winch' }).forEquipment]).toEqual([key]);
  });

  it('never takes a standard’s least down, whatever was kept', () => {
    const insulation = REFERENCE_TABLES.find(({ id }) => id === 'insulation')!;
    const least = ruleKey(insulation, 1, 'megohms');
    expect(ruleLeasts().get(least)).toBe(1);
    expect(ruleLeasts().get(key)).toBe(0);
    const ohms = (megohms: number) => insulationMark(230, shopMarks({ [least]: megohms })).ohms;
    expect([ohms(0.2), ohms(1), ohms(20)]).toEqual([1e6, 1e6, 20e6]);
  });

  it('leaves the site’s mark for insulation as the policy has it', () => {
    const at = (insulationPass: 'megohm' | 'kvPlusOne' | 'overRange') =>
      insulationMark(400, shopMarks({}, { insulationPass })).ohms;
    expect([at('megohm'), at('kvPlusOne'), at('overRange')]).toEqual([1e6, 1.4e6, Infinity]);
  });
});
