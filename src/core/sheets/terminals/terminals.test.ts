import { seededRandom } from '../../random';
import { codes, fill } from '../testing/fill';
import type { ContactState, TerminalsAnswer } from './terminals';

type Value = number | 'OL';
const sheet = (terminals: string[], readings: object[], claim?: object) =>
  fill<TerminalsAnswer>('terminals', { terminals, readings, claim });
const read = (from: string, to: string, state: ContactState, value: Value) => ({ from, to, state, value });
const PLUG = ['85', '86', '30', '87', '87a'];

/** What a sound relay shows between two of its terminals. */
function relay(coil: [string, string], poles: [com: string, no: string, nc: string][]) {
  return (a: string, b: string, state: ContactState): Value => {
    const is = (x: string, y: string) => (a === x && b === y) || (a === y && b === x);
    if (is(...coil)) return 85;
    return poles.some(([com, no, nc]) => is(com, state === 'operated' ? no : nc)) ? 0.2 : 'OL';
  };
}

/** Takes the reading that is asked for until nothing is. */
function follow(terminals: string[], machine: ReturnType<typeof relay>) {
  const readings: object[] = [];
  for (let count = 0; count < 60; count++) {
    const answer = sheet(terminals, readings);
    if (!answer.next) return { answer, count };
    const { from, to, state } = answer.next;
    readings.push(read(from, to, state, machine(from, to, state)));
  }
  throw new Error('it asks for ever');
}

describe('terminals', () => {
  it('three readings tell a plug-in relay; no more are asked for', () => {
    const answer = sheet(PLUG, [
      read('85', '86', 'rest', 85),
      read('87a', '30', 'rest', 0.2),
      read('30', '87', 'operated', 0.2),
    ]);
    expect(answer).toMatchObject({
      coil: ['85', '86'],
      coilOhms: 85,
      poles: [{ com: '30', no: '87', nc: '87a' }],
      sure: true,
      fits: 1,
      next: null,
    });
    expect(answer.contacts).toEqual([
      { from: '30', to: '87', state: 'operated', verdict: 'good' },
      { from: '30', to: '87a', state: 'rest', verdict: 'good' },
    ]);
  });
  it('what fits more than one way is not said, and the reading that parts them is asked for', () => {
    const answer = sheet(PLUG, [read('85', '86', 'rest', 85), read('87a', '30', 'rest', 0.2)]);
    expect(answer).toMatchObject({ coil: ['85', '86'], sure: false, fits: 2 });
    expect(answer.poles).toEqual([{ com: null, no: '87', nc: null }]);
    expect(answer.next).toMatchObject({ state: 'operated' });
    expect([answer.next!.from, answer.next!.to]).toContain('87');
  });
  it('a pole with one contact has two ends that are alike, and counts once', () => {
    const answer = sheet(
      ['1', '2', '3', '4'],
      [read('1', '2', 'rest', 310), read('3', '4', 'operated', 0.1)],
    );
    expect(answer).toMatchObject({
      sure: true,
      fits: 1,
      poles: [{ no: expect.any(String) as string, nc: null }],
    });
  });
  it('following what is asked ends at the truth, whatever the numbering', () => {
    const random = seededRandom(5);
    for (let round = 0; round < 6; round++) {
      const names = Array.from({ length: 8 }, (_one, k) => [random.next(), String(k + 1)] as const)
        .sort((a, b) => a[0] - b[0])
        .map(([, one]) => one);
      const [a, b, c, d, e, f, g, h] = names as [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
      ];
      const { answer, count } = follow(
        [...names].sort(),
        relay(
          [a, b],
          [
            [c, d, e],
            [f, g, h],
          ],
        ),
      );
      expect(answer.sure).toBe(true);
      expect([...answer.coil!].sort()).toEqual([a, b].sort());
      expect(answer.poles).toEqual(
        expect.arrayContaining([
          { com: c, no: d, nc: e },
          { com: f, no: g, nc: h },
        ]),
      );
      expect(count).toBeLessThan(30);
    }
  });
  it('a claim is judged contact by contact: welded, open, weak', () => {
    const claim = { coil: ['85', '86'], poles: [{ com: '30', no: '87', nc: '87a' }] };
    const welded = sheet(
      PLUG,
      [
        read('85', '86', 'rest', 85),
        read('30', '87', 'rest', 0.2),
        read('30', '87', 'operated', 0.2),
        read('30', '87a', 'rest', 'OL'),
      ],
      claim,
    );
    expect(welded.contacts).toEqual([
      { from: '30', to: '87', state: 'rest', verdict: 'welded' },
      { from: '30', to: '87', state: 'operated', verdict: 'good' },
      { from: '30', to: '87a', state: 'rest', verdict: 'open' },
    ]);
    const film = sheet(
      PLUG,
      [read('85', '86', 'rest', 85), read('30', '87', 'operated', 4700), read('30', '87', 'rest', 'OL')],
      claim,
    );
    expect(film.contacts).toContainEqual({ from: '30', to: '87', state: 'operated', verdict: 'weak' });
    const other = sheet(
      PLUG,
      [read('85', '86', 'rest', 85), read('30', '87', 'rest', 0.2), read('30', '87a', 'operated', 0.2)],
      claim,
    );
    expect(codes(other)).toContain('claimDisagrees');
  });
  it('a switch has no coil, and readings that no pin-out shows leave nothing', () => {
    const button = sheet(
      ['13', '14', '21', '22'],
      [
        read('13', '14', 'rest', 'OL'),
        read('13', '14', 'operated', 0.1),
        read('21', '22', 'rest', 0.1),
        read('21', '22', 'operated', 'OL'),
      ],
    );
    expect(button).toMatchObject({ coil: null, sure: true });
    const odd = sheet(
      ['1', '2', '3'],
      [read('1', '2', 'rest', 0.1), read('2', '3', 'rest', 0.1), read('1', '3', 'rest', 0.1)],
    );
    expect(odd).toMatchObject({ fits: 0, sure: false, poles: [], next: null });
    expect(codes(odd)).toContain('noPinOut');
  });
  it('with nothing read it asks, and says nothing; also of fourteen', () => {
    expect(sheet(PLUG, [])).toMatchObject({
      coil: null,
      poles: [],
      sure: false,
      next: { state: expect.any(String) as string },
    });
    const many = sheet(
      Array.from({ length: 14 }, (_one, k) => String(k + 1)),
      [],
    );
    expect(many.next).not.toBeNull();
    expect(codes(many)).toContain('manyPinOuts');
  });
});
