import type { CircuitModel } from '@/core/circuit/model';
import { setupKey } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { relayIn } from '@/core/circuit/world';
import type { Lane } from '@/core/path/lanes';
import type { Pin, Span } from '@/ui/path/PathMarks';
import { quantity, type Speaker, standWords, valueWords } from '@/words/en/readings';

/** A reading off its expected height by more than this share of the supply is drawn at its true height. */
const OFF_SHARE = 0.08;

/** Readings as they stand on the figure: pins over points, brackets across neighbours. The latest of a point wins. */
export function pinsOf(
  { model, gaugeUnit }: Pick<Speaker, 'model' | 'gaugeUnit'>,
  lane: Lane,
  readings: readonly Reading[],
): { pins: Pin[]; spans: Span[] } {
  const { compiled } = model;
  const pins = new Map<number, Pin>();
  const spans = new Map<string, Span>();
  const nodes = new Set([...lane.feed, lane.load, ...lane.back].flatMap(({ from, to }) => [from, to]));
  const healthy = model.situation(lane.setup).solve({ mode: 'live' });
  const home = lane.back.at(-1)?.to ?? lane.load.to;
  for (const reading of readings) {
    if (reading.kind === 'pressure' || reading.kind === 'flow' || reading.kind === 'hold') {
      const node = compiled.nodeIndex.get(reading.at)!;
      if (nodes.has(node)) pins.set(node, gaugePin(reading, node));
      continue;
    }
    if (!('from' in reading)) continue;
    const [from, to] = [compiled.nodeIndex.get(reading.from)!, compiled.nodeIndex.get(reading.to)!];
    const text = valueWords(reading.kind, reading.value, gaugeUnit);
    const steps = [...lane.feed, lane.load, ...lane.back];
    const neighbours = steps.some((step) =>
      [step.from, step.to].every((node) => node === from || node === to),
    );
    if (neighbours && (to !== home || from !== home)) {
      const toFrame = to === compiled.frame && reading.kind === 'volts';
      if (!toFrame) {
        spans.set([from, to].sort((a, b) => a - b).join(), { from, to, text });
        continue;
      }
    }
    if (!nodes.has(from)) continue;
    const pin: Pin = { node: from, text, ...(reading.value === 'OL' ? { over: true } : {}) };
    if (reading.kind === 'volts') {
      const sameSetup = setupKey(reading.setup) === setupKey(lane.setup);
      const condition = reading.setup.unplugged?.length
        ? 'no load'
        : sameSetup
          ? ''
          : elsewhere(reading.setup);
      if (condition) pin.condition = condition;
      const expected = healthy.changed.pairVolts(from, home);
      const supply = compiled.supplyVolts;
      if (to === compiled.frame && typeof reading.value === 'number' && sameSetup) {
        const gap = reading.value - expected;
        if (Math.abs(gap) > OFF_SHARE * supply) {
          pin.trueVolts = reading.value;
          pin.off = gap < 0 ? 'fallen' : 'lifted';
        }
      }
    } else {
      pin.condition = to === compiled.frame ? 'to frame' : `to ${reading.to}`;
      if (reading.kind === 'insulation') pin.condition = `at ${quantity('volts', reading.testVolts)}`;
    }
    pins.set(from, pin);
  }
  return { pins: [...pins.values()], spans: [...spans.values()] };

  /** Where the controls stood, unless they stand as the lane is drawn. */
  function elsewhere(setup: Reading['setup']): string {
    const { controls } = compiled.circuit;
    const words = standWords(controls, setup);
    return words === standWords(controls, lane.setup) ? '' : words;
  }

  function gaugePin(reading: Extract<Reading, { kind: 'pressure' | 'flow' | 'hold' }>, node: number): Pin {
    const sameSetup = setupKey(reading.setup) === setupKey(lane.setup);
    const condition = sameSetup ? '' : elsewhere(reading.setup);
    const pin: Pin = {
      node,
      text: valueWords(reading.kind, reading.value, gaugeUnit),
      ...(condition ? { condition } : {}),
    };
    if (reading.kind !== 'pressure' || !sameSetup) return pin;
    const gap = reading.value - healthy.changed.pairVolts(node, home);
    if (Math.abs(gap) <= OFF_SHARE * compiled.supplyKPa) return pin;
    return { ...pin, trueVolts: reading.value, off: gap < 0 ? 'fallen' : 'lifted' };
  }
}

/** Parts that stand apart in a set-up: pulled, removed, or pins of unplugged connectors. */
export function apartParts(model: CircuitModel, setup: Reading['setup']): Set<number> {
  const refs = new Set([...(setup.pulled ?? []), ...(setup.removed ?? [])]);
  return new Set(
    model.compiled.parts
      .filter(
        ({ part }) =>
          refs.has(part.ref) || (part.kind === 'pin' && (setup.unplugged ?? []).includes(part.connector)),
      )
      .map(({ index }) => index),
  );
}

/** Contacts that conduct in a set-up on a sound circuit: what is commanded, and relays that pull in. */
export function closedParts(model: CircuitModel, setup: Reading['setup']): Set<number> {
  const solver = model.situation(setup);
  const world = solver.solve({ mode: 'live' });
  return new Set(
    model.compiled.parts
      .filter(({ branches, part, index }) =>
        part.kind === 'relay'
          ? relayIn(world, index)
          : branches.every((branch) => solver.situation.commanded[branch.index]),
      )
      .map(({ index }) => index),
  );
}
