import { partSchema } from '@/core/circuit/partSchema';
import { circuitSchema, type Part } from '@/core/circuit/schema';
import { TEMPLATES } from '@/core/templates/templates';
import { fieldHint, fieldText, fieldValue, partFields } from './partFields';
import { KIND_NAMES } from '@/words/en/drawing';

/** One part of every kind that the templates draw. */
const examples = [
  ...new Map(TEMPLATES.flatMap(({ build }) => build().parts).map((part) => [part.kind, part])).values(),
];
/** What a part is called, where its ends are and in which positions it is on have fields of their own in the form. */
const ELSEWHERE = [
  // Of older files only: 'guards' took its place.
  'safety',
  // Which figures nobody has said: a figure is said by typing it.
  'assumed',
  'ref',
  'kind',
  'nodes',
  'domain',
  'closedWhen',
  'onWhen',
];
const COIL = examples.find(({ kind }) => kind === 'coil')!;
const field = (kind: Part['kind'], key: string) => partFields(kind).find((one) => one.key === key)!;

describe('the form of a part', () => {
  it('is there for every kind', () => {
    expect(examples.length).toBeGreaterThan(24);
    for (const kind of Object.keys(KIND_NAMES) as Part['kind'][])
      expect(partFields(kind).map(({ key }) => key)).toEqual(
        expect.arrayContaining(['label', 'place', 'sheet', 'square', 'accessMinutes']),
      );
  });

  it.each(examples.map((part) => [part.kind, part] as const))(
    'gives back what %s has, field by field',
    (_kind, part) => {
      const plain = part as unknown as Record<string, unknown>;
      for (const one of partFields(part.kind)) {
        const back = fieldValue(one, fieldText(part, one));
        // "no" and nothing are the same, and the field is taken off, but where nobody has answered yet.
        const off = plain[one.key] === false && one.key !== 'electronic';
        expect(back).toEqual(off ? undefined : plain[one.key]);
      }
    },
  );

  it.each(partSchema.options.map(({ shape }) => [shape.kind.value, Object.keys(shape)] as const))(
    'asks for everything a circuit file may say of %s',
    (kind, keys) => {
      const asked = new Set(partFields(kind).map(({ key }) => key));
      expect(keys.filter((key) => !asked.has(key) && !ELSEWHERE.includes(key))).toEqual([]);
    },
  );

  it('a figure that nobody has said stands in no field, and the usual one beside it', () => {
    const fuse = {
      ref: 'F1',
      kind: 'fuse',
      nodes: { '1': 'a', '2': 'b' },
      amps: 10,
      assumed: ['amps'],
    } as Part;
    const amps = field('fuse', 'amps');
    expect(fieldText(fuse, amps)).toBe('');
    expect(fieldHint(fuse, amps)).toBe('not said; usual: 10');
    expect(fieldText({ ...fuse, assumed: undefined } as Part, amps)).toBe('10');
  });

  it('takes a comma, keeps what is no figure as it was typed, and takes an empty field off', () => {
    const ohms = field('coil', 'ohms');
    expect(fieldValue(ohms, ' 7,4 ')).toBe(7.4);
    expect(fieldValue(ohms, 'seven')).toBe('seven');
    expect(fieldValue(ohms, '  ')).toBeUndefined();
    expect(fieldValue(field('coil', 'label'), ' Tilt left ')).toBe('Tilt left');
    const held = field('coil', 'holdsLoad');
    expect(fieldText(COIL, held)).toBe('no');
    expect([fieldValue(held, 'yes'), fieldValue(held, 'no')]).toEqual([true, undefined]);
  });

  it('never writes a circuit that the schema refuses, from what its choices offer', () => {
    for (const { build } of TEMPLATES) {
      const circuit = build();
      for (const [at, part] of circuit.parts.entries()) {
        for (const one of partFields(part.kind)) {
          for (const choice of one.choices ?? []) {
            const { [one.key]: _before, ...rest } = part as unknown as Record<string, unknown>;
            const value = fieldValue(one, choice);
            const next = { ...rest, ...(value === undefined ? {} : { [one.key]: value }) };
            const parts = circuit.parts.with(at, next as unknown as Part);
            expect([
              part.ref,
              one.key,
              choice,
              circuitSchema.safeParse({ ...circuit, parts }).success,
            ]).toEqual([part.ref, one.key, choice, true]);
          }
        }
      }
    }
  });
});
