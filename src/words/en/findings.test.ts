import type { Reading } from '@/core/circuit/schema';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { partStandings } from '@/core/path/standing';
import { TEMPLATES } from '@/core/templates/templates';
import {
  causeWords,
  clearWords,
  evidenceWords,
  faultWords,
  renewWords,
  spentWords,
  statementLines,
} from './findings';
import { template, tilt } from './testing/speakers';

const right = { controls: { key: 'on', tilt: 'right' } };

describe('what was taken', () => {
  const pack = template('winch-pack');
  const of = (ref: string) => pack.model.compiled.circuit.parts.find((part) => part.ref === ref)!;

  it('a fuse wants a new one, a breaker goes in again and is never held in', () => {
    expect(renewWords(pack, of('F1'))).toContain('a new one of 15 A goes in');
    for (const words of [renewWords(pack, of('F0')), spentWords(pack, of('F0'))]) {
      expect(words).toContain('it goes in again once the fault is mended, and is never held in.');
      expect(words).not.toMatch(/new one|blew|blown/);
    }
    expect(causeWords(pack, 'F0')).toContain('What tripped it');
  });
});

describe('what the readings mean so far', () => {
  const diagnoser = new Diagnoser(tilt.model.compiled.circuit);
  const statement = (readings: Reading[]) => {
    const diagnosis = diagnoser.diagnose(readings);
    const { parts } = partStandings(diagnoser.model, diagnoser.faults, diagnosis, readings);
    return {
      lines: statementLines(tilt, diagnosis.verdict, diagnosis.suspects, parts, readings, diagnosis.next[0]),
      diagnosis,
    };
  };
  const left: Reading = {
    kind: 'function',
    part: 'Y7',
    setup: { controls: { key: 'on', tilt: 'left' } },
    value: 'works',
  };
  const dead: Reading = { kind: 'function', part: 'Y8', setup: right, value: 'dead' };
  const open = (from: string, to: string): Reading => ({
    kind: 'ohms',
    from,
    to,
    setup: { pulled: ['F7'] },
    value: 'OL',
  });

  it('begins with the doubt spread evenly, and sends to what can be tried', () => {
    expect(statement([]).lines).toEqual([
      'The doubt is spread evenly.',
      'Nothing was tried yet: what works and what does not, under Complaint, moves most of it.',
    ]);
  });

  it('counts what has carried current and lists what is left', () => {
    const { lines } = statement([left, dead]);
    expect(lines).toHaveLength(3);
    expect(lines[0]).toMatch(/^The doubt is on S3R, X31\.2, W15, X8\.1 and \d+ more\.$/);
    expect(lines[2]).toMatch(/^\d+ parts have carried current and are spared\.$/);
  });

  it('names the part with its two readings, and says for and against', () => {
    const { compiled } = tilt.model;
    const pin = compiled.parts.find(({ part }) => part.ref === 'X8.1')!;
    const [a, b] = pin.nodes.map((node) => compiled.nodeNames[node]!) as [string, string];
    const readings = [
      left,
      dead,
      { kind: 'volts', from: a, to: 'GND', setup: dead.setup, value: 25.1 },
      open(a, 'GND'),
      { ...open(b, 'GND'), value: 31.5 },
      open(a, b),
    ] as Reading[];
    const { lines, diagnosis } = statement(readings);
    expect(diagnosis.verdict).toMatchObject({ state: 'name', part: 'X8.1' });
    expect(lines[0]).toMatch(/^X8\.1 coil plug pin 1 is proved bad: open\.$/);
    const [lead] = diagnosis.suspects;
    expect(evidenceWords(tilt, lead!.for, readings)).toMatch(/OL/);
    expect(evidenceWords(tilt, [], readings)).toBe('Nothing.');
  });

  it('says when nothing fits', () => {
    const impossible: Reading = { kind: 'volts', from: 'B+', to: 'GND', setup: right, value: 61 };
    const { lines, diagnosis } = statement([
      left,
      dead,
      impossible,
      { ...impossible, from: 'Y8:1', value: 60 },
    ]);
    if (diagnosis.verdict.state === 'unexplained')
      expect(lines[0]).toBe('The readings do not fit this drawing.');
    else expect(lines.join(' ')).toMatch(/Take it again|does not fit/);
  });

  it('has words for faults, sizes and partners', () => {
    expect(faultWords(tilt, { part: 'W15', fault: 'highResistance', severityOhms: 6.53 })).toBe(
      'bad joint, about 6.5 Ω',
    );
    expect(
      faultWords(tilt, {
        part: 'W15',
        fault: 'highResistance',
        severityOhms: 6.53,
        severityRange: [3, 40],
      }),
    ).toBe('bad joint, 3 Ω to 40 Ω');
    expect(faultWords(tilt, { part: 'W15', fault: 'highResistance', severityRange: [3, 40e3] })).toBe(
      'bad joint',
    );
    expect(faultWords(tilt, { part: 'W15', fault: 'open', intermittent: true })).toBe('open, comes and goes');
    expect(
      faultWords(tilt, { part: 'W15', fault: 'open', with: { part: 'V8', fault: 'short' } } as never),
    ).toBe('open, with V8 shorted');
    expect(faultWords(tilt, { part: 'S3R', fault: 'highResistance', severityOhms: 0.15 })).toBe(
      'contact makes badly, about 0.15 Ω',
    );
    expect(faultWords(tilt, { part: 'S3R', fault: 'highResistance', severityOhms: 0.00163 })).toBe(
      'contact makes badly, about 1.6 mΩ',
    );
    expect(clearWords({ part: 'V8', reason: 'suppressionDiode' })).toMatch(/^V8: shorted/);
    const named = new Set(
      TEMPLATES.flatMap(({ build }) => new Diagnoser(build()).faults.map(({ fault }) => fault)),
    );
    // A name of the program's own, such as "highResistance", is never shown.
    for (const fault of named) expect(faultWords(tilt, { part: 'W15', fault })).not.toMatch(/[A-Z]/);
  });
});
