import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseCircuit } from '../circuit/parse';
import type { Circumstance } from '../circuit/circumstances';
import type { Reading } from '../circuit/schema';
import { clearBefore } from '../diagnosis/clearBefore';
import { partStandings } from '../path/standing';
import { CircuitModel } from '../circuit/model';
import { freeChecks } from '../job/freeChecks';
import { at, gauge, holds, ohms, Story, volts, works } from './story';

/** Stories on the machines of the made-up shed: what a job there has to say, and what it said wrongly once. */
const circuitOf = (name: string) =>
  parseCircuit(JSON.parse(readFileSync(join('demo', 'circuits', `${name}.circuit.json`), 'utf8')));
const said = (test: object, value: string) => ({ ...test, value }) as Reading;
const signs = (...when: Circumstance[]) => ({ signs: { when, looks: [] } });

describe('a buried feed that is shorted to the frame', () => {
  const circuit = circuitOf('pump-fill-valve');
  const low = at({ level: 'low' });
  const dead = { ...at({ level: 'full' }), isolated: ['G2'] };
  const story = () =>
    new Story(circuit, ['W41', 'shortToFrame'])
      .say(said(works('Y4', low), 'dead'), said(holds('F4', low), 'blows'))
      .take(ohms('K4:14', 'PE', dead));

  it('is not proved on the coil beside it while that hangs on the short: the plug comes off first', () => {
    const { next } = story().ask({ locked: ['G2'], setup: dead });
    const onCoil = next.filter(
      ({ test }) => test.kind === 'ohms' && test.from === 'Y4:1' && test.to === 'Y4:2',
    );
    const joined = onCoil.findIndex(({ test }) => !test.setup.unplugged);
    const apart = onCoil.findIndex(({ test }) => test.setup.unplugged?.includes('X2'));
    expect(apart).toBeGreaterThanOrEqual(0);
    expect(joined === -1 || joined > apart).toBe(true);
    expect(onCoil[apart]!.proof).toBe(true);
  });

  it('that the valve was dead with its fuse gone does not speak against it, and nothing has carried a load', () => {
    const { readings, diagnoser } = story().take(ohms('X2:1', 'PE', { ...dead, unplugged: ['X2'] }));
    const told = diagnoser.diagnose(readings);
    expect(told.suspects[0]).toMatchObject({ part: 'W41', against: [] });
    const { parts } = partStandings(diagnoser.model, diagnoser.faults, told, readings);
    expect(parts.filter(({ state }) => state === 'spared')).toEqual([]);
  });
});

describe('a hose that leaks behind its valve', () => {
  const close = at({ gate: 'close' });
  it('is told from the valve by taking it off and stopping the port, not by a gauge that both would pull down', () => {
    const { next, verdict } = new Story(circuitOf('compressor-gate'), ['H2', 'leaking', 0.05])
      .say(said(works('C1', at({ gate: 'open' })), 'works'), said(works('C1', close), 'dead'))
      .take(volts('Y12:2', '0V', close), gauge('Regulator outlet', close), gauge('Cylinder rod end', close))
      .ask({ setup: close });
    expect(verdict).toMatchObject({ state: 'keepTesting', part: 'H2' });
    expect(next[0]!.test).toMatchObject({ kind: 'pressure', setup: { plugged: ['Valve 2'] } });
  });
});

describe('a hiss', () => {
  it('is listened for where hoses run, and brings what leaks there to the front', () => {
    const circuit = circuitOf('compressor-gate');
    const places = freeChecks(new CircuitModel(circuit)).flatMap(({ kind, subject }) =>
      kind === 'leak' ? [subject] : [],
    );
    expect(places).toContain('Gate arm');
    const story = new Story(circuit).say(said(works('C1', at({ gate: 'close' })), 'dead'));
    const heard = (...looks: { at: 'leak'; subject: string; good: boolean }[]) =>
      story.ask({ signs: { when: [], looks } }).share('H2');
    const [silent, bad] = [
      heard({ at: 'leak', subject: 'Gate arm', good: true }),
      heard({ at: 'leak', subject: 'Gate arm', good: false }),
    ];
    expect(bad).toBeGreaterThan(3 * heard());
    expect(silent).toBeLessThan(heard());
    // A hose elsewhere was not listened to.
    expect(heard({ at: 'leak', subject: 'Trench to gate', good: false })).toBeLessThan(heard());
  });
});

describe('work that nobody asked for', () => {
  const circuit = circuitOf('groomer-blade-tilt');
  const tilt = (way: string) => at({ key: 'on', tilt: way });
  const bothDead = [said(works('Y7', tilt('left')), 'dead'), said(works('Y8', tilt('right')), 'dead')];

  it('where the wrong one moves no feed is lost: two plugs or two pins are exchanged', () => {
    const told = new Story(circuit).say(...bothDead).ask(signs('wrongOneMoves'));
    // At the bulkhead pin by pin, or at the valve plug by plug.
    const [first, second] = told.suspects.map(({ part, fault, other }) => `${part} ${fault} ${other}`);
    expect([first, second].sort()).toEqual(['X31.1 crossedPins X31.2', 'X7.1 swapped X8']);
    expect(told.suspects[0]!.share + told.suspects[1]!.share).toBeGreaterThan(0.5);
    // Without the word for it they are the last that one would think of.
    const silent = new Story(circuit).say(...bothDead).ask();
    expect(silent.suspects[0]!.other).toBeUndefined();
  });

  it('moving by itself is a contact that stays closed, and no open one', () => {
    const told = new Story(circuit).ask(signs('movesByItself'));
    expect(told.suspects.slice(0, 3).map(({ fault }) => fault)).toEqual(
      expect.arrayContaining(['stuckClosed', 'stuckClosed', 'stuckClosed']),
    );
    expect(told.noFault).toBeLessThan(new Story(circuit).ask().noFault);
  });

  it('a valve that creeps is not ruled out because the drawing shows no way', () => {
    const creeping = (when: Circumstance[]) =>
      new Story(circuitOf('compressor-gate')).ask({ signs: { when, looks: [] } });
    const odds = ({ suspect }: ReturnType<typeof creeping>) =>
      suspect('C1', 'sealLeak') / suspect('W12', 'open');
    expect(odds(creeping(['movesByItself']))).toBeGreaterThan(10 * odds(creeping([])));
  });
});

describe('a contact that burnt', () => {
  const model = new CircuitModel(circuitOf('loader-bucket-lock'));
  it('asks whether its coil still has its suppressor, and a welded one what it carries', () => {
    expect(clearBefore(model, 'K5', 'highResistance')).toEqual([{ part: 'V22', reason: 'openSuppressor' }]);
    expect(clearBefore(model, 'K5', 'welded').map(({ reason }) => reason)).toEqual([
      'openSuppressor',
      'overload',
    ]);
  });

  it('a coil that is open asks for no suppressor of another', () => {
    const reasons = clearBefore(model, 'K5', 'open').map(({ reason }) => reason);
    expect(reasons).toEqual(['overVoltage']);
  });
});
