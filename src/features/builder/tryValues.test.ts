import { layChains, emptyDrawing } from '@/core/draw/layChain';
import { CircuitModel } from '@/core/circuit/model';
import { TEMPLATES } from '@/core/templates/templates';
import { tryValues } from './tryValues';

const drawn = (text: string) => new CircuitModel(layChains(emptyDrawing('Try'), text).circuit);
const template = (id: string) => new CircuitModel(TEMPLATES.find((one) => one.id === id)!.build());

describe('what the drawing shows while its controls are pressed', () => {
  const model = drawn('battery 12, fuse 10, key switch, coil Y1 6, ground');
  const node = (ref: string, end: string) => {
    const part = model.compiled.circuit.parts.find((one) => one.ref === ref)!;
    return model.compiled.nodeIndex.get((part.nodes as Record<string, string>)[end]!)!;
  };
  const contact = model.compiled.circuit.parts.find(({ kind }) => kind === 'switch')!.ref;

  it('is volts at the nodes and amperes through what draws them, the contact made', () => {
    const on = tryValues(model, { controls: { key: 'on' } }, 'bar');
    expect(on.nodeText!.get(node('Y1', '1'))).toMatch(/^1[12](\.\d)? V$/);
    expect(on.blockText!.get('Y1')).toMatch(/^(1\.9\d?|2) A$/);
    expect(on.closed!.has(contact)).toBe(true);
    expect(on.live!.has(node('Y1', '1'))).toBe(true);
    expect([on.chatters, on.blown]).toEqual([false, []]);
  });

  it('is nothing behind an open contact', () => {
    const off = tryValues(model, {}, 'bar');
    expect(off.closed!.has(contact)).toBe(false);
    expect(off.blockText!.has('Y1')).toBe(false);
    expect(off.live!.has(node('Y1', '1'))).toBe(false);
  });

  it('names a fuse that would not hold', () => {
    const short = drawn('battery 12, fuse F1 5, key switch, coil Y1 0.4, ground');
    expect(tryValues(short, { controls: { key: 'on' } }, 'bar').blown).toEqual(['F1']);
  });

  it.each([1.2, 1.4, 1.5, 1.7, 2.5])('says of %d times its rating what the solver made of it', (times) => {
    const over = drawn(`battery 12, fuse F1 5, key switch, coil Y1 ${12 / (5 * times)}, ground`);
    const shown = tryValues(over, { controls: { key: 'on' } }, 'bar');
    const flows = shown.blockText!.has('Y1');
    // It blows where, and only where, nothing flows behind it any more.
    expect(shown.blown).toEqual(flows ? [] : ['F1']);
    expect(flows).toBe(times < 1.35);
  });

  it('tells the made from the resting side of a relay', () => {
    const relay = template('change-over-relay');
    const closed = relay.combinations.map((controls) => [...tryValues(relay, { controls }, 'bar').closed!]);
    const sides = new Set(
      closed
        .flat()
        .filter((mark) => mark.includes('|'))
        .map((mark) => mark.split('|')[1]),
    );
    expect(sides).toEqual(new Set(['no', 'nc']));
    // Never both sides of one set at once.
    for (const marks of closed)
      for (const mark of marks.filter((one) => one.endsWith('|no')))
        expect(marks).not.toContain(mark.replace('|no', '|nc'));
  });

  it('writes pressures in bar and small currents in milliamperes', () => {
    const air = template('air-clamp');
    const texts = air.combinations.flatMap((controls) => [
      ...tryValues(air, { controls }, 'bar').nodeText!.values(),
    ]);
    expect(texts.some((text) => / bar$/.test(text))).toBe(true);
    const sensor = template('three-wire-sensor');
    const amps = sensor.combinations.flatMap((controls) => [
      ...tryValues(sensor, { controls }, 'bar').blockText!.values(),
    ]);
    expect(amps.some((text) => / mA$/.test(text))).toBe(true);
  });
});
