import { DEEDS, isSecondEyes, MAY, may, ROLES, samePerson } from './roles';
import { passwordSchema, personName, pinSchema } from './secrets';
import { isStillGood, sessionStands } from './session';

describe('who may do what', () => {
  it('a role that may more may all that one that may less does', () => {
    for (const deed of DEEDS) {
      const from = ROLES.findIndex((role) => MAY[deed].includes(role));
      expect(from).toBeGreaterThanOrEqual(0);
      expect(ROLES.slice(from).every((role) => may(role, deed))).toBe(true);
    }
  });

  it('a reader writes nothing, and a lead alone says who works here', () => {
    expect(DEEDS.filter((deed) => may('reader', deed))).toEqual(['own', 'look']);
    for (const deed of ['settle', 'people', 'trail'] as const) expect(MAY[deed]).toEqual(['lead']);
    expect(ROLES.filter((role) => isSecondEyes({ role }))).toEqual(['technician', 'lead']);
  });

  it('capitals and spaces make nobody another person', () => {
    expect(samePerson(' tove', 'Tove')).toBe(true);
    expect(samePerson('Tove', 'Tova')).toBe(false);
  });
});

describe('a secret', () => {
  it.each(['1234', '4321', '0000', '123', '12a4', '123456789', ''])('%s is no PIN', (pin) => {
    expect(pinSchema.safeParse(pin).success).toBe(false);
  });
  it.each(['3190', '27061', '80808080'])('%s is one', (pin) => {
    expect(pinSchema.safeParse(pin).success).toBe(true);
  });
  it.each(['short', 'x'.repeat(129), 'twelve chars \ud800'])('“%s” is no password', (word) =>
    expect(passwordSchema.safeParse(word).success).toBe(false),
  );
  it('a sentence is one', () => {
    expect(passwordSchema.safeParse('the winch pulled in at noon').success).toBe(true);
  });
  it('a name is one that can be read', () => {
    expect(personName.parse('  Tove ')).toBe('Tove');
    for (const name of ['', '  ', 'To\u0000ve', 'x'.repeat(61)])
      expect(personName.safeParse(name).success).toBe(false);
  });
});

describe('a session', () => {
  const at = (minutes: number) => new Date(Date.UTC(2026, 1, 4, 8, minutes));
  const begun = { begunAt: at(0), seenAt: at(0), endedAt: null };

  it('stands for half an hour of nothing and for twelve hours in all', () => {
    expect(sessionStands(begun, at(30))).toBe(true);
    expect(sessionStands(begun, at(31))).toBe(false);
    expect(sessionStands({ ...begun, seenAt: at(719) }, at(720))).toBe(true);
    expect(sessionStands({ ...begun, seenAt: at(720) }, at(721))).toBe(false);
    expect(sessionStands({ ...begun, endedAt: at(1) }, at(2))).toBe(false);
  });

  it('a time that is none ends it', () => {
    expect(sessionStands({ ...begun, seenAt: new Date(NaN) }, at(1))).toBe(false);
    expect(sessionStands(begun, new Date(NaN))).toBe(false);
    expect(isStillGood(new Date(NaN), 10, at(1))).toBe(false);
    expect([isStillGood(at(0), 10, at(10)), isStillGood(at(0), 10, at(11))]).toEqual([true, false]);
  });
});
