import { isAssumed } from '@/core/circuit/assumed';
import { isFluidNode, mediumOf, type Medium } from '@/core/circuit/medium';
import { formatQuantity } from '@/core/units/formatQuantity';
import type { Test } from '@/core/circuit/schema';
import type { PutBack } from '@/core/job/rules/putBack';
import { isGroundStud } from '@/core/diagnosis/setApart';
import { holdsRefrigerant } from '@/core/safety/refrigerant';
import { suppliesNeeded } from '@/core/safety/suppliesNeeded';
import { isDeadKind } from '@/core/circuit/testPlace';
import { capital } from './capital';
import { pointName, positionWords, type Speaker } from './readings';

/** A timer that these positions start feeds what it feeds at first: what stays is read when it has let go. */
function timersWait({ model }: Speaker, test: Test): string {
  if (isDeadKind(test.kind)) return '';
  const early = model.situation({ ...test.setup, afterSeconds: 0 });
  const running = model.compiled.parts.flatMap(({ part, branches }) =>
    part.kind === 'timer' && early.situation.commanded[branches[0]!.index] ? [part] : [],
  );
  if (running.length === 0) return '';
  const seconds = Math.max(...running.map((timer) => timer.seconds));
  const unsaid = running.some((timer) => isAssumed(timer, 'seconds'));
  const names = running.map(({ ref }) => ref).join(' and ');
  return `; read ${unsaid ? 'later' : `after ${formatQuantity(seconds, 's')}`}, when ${names} ${running.length > 1 ? 'have' : 'has'} let go`;
}

/** How each medium is put on, and how what goes through an opening is found. */
const MEDIUM: Readonly<
  Record<
    Medium,
    {
      on: string;
      /** How it is let go before a line comes off, or a gauge goes in. */
      off: string;
      /** How a line's end is stopped. */
      stop: (place: string) => string;
      felt: (place: string) => string;
      /** How something is shut in at an open end, and watched. */
      shutIn: (place: string) => string;
      watched: string;
    }
  >
> = {
  air: {
    on: 'air',
    off: 'shut the supply and vent',
    stop: (place) => `Plug the open end at ${place}`,
    felt: (place) => `Hand, then soapy water, at ${place}.`,
    shutIn: (place) =>
      `Air over a cock and a gauge on the open end at ${place}, slowly, up to what it works with.`,
    watched: 'Shut the cock, watch the gauge for a minute.',
  },
  oil: {
    on: 'pressure',
    off: 'stop the pump and let all of it down to the tank, gauge at zero',
    stop: (place) => `Close the open end at ${place} with a cap for its full pressure`,
    felt: (place) => `Look for oil at ${place}; never a hand.`,
    shutIn: (place) => `Nothing is shut in at ${place}: oil gives at once.`,
    watched: 'Read a gauge instead.',
  },
  vacuum: {
    on: 'vacuum',
    off: 'shut the vacuum off and let air in',
    stop: (place) => `Plug the open end at ${place}`,
    felt: (place) => `A strip of paper at ${place}: is it drawn in? No water.`,
    shutIn: (place) => `Hand pump on the open end at ${place}.`,
    watched: 'Pump until it has pulled, stop, watch the pump’s gauge for a minute.',
  },
};

/** What an earlier test left otherwise, put back in one line; empty where nothing was. */
function putBackStep(speaker: Speaker, back: PutBack): string {
  const isLine = ({ node }: { node: string }) => isFluidNode(speaker.model, node);
  const { lifted = [], open = [], plugged = [] } = back;
  const words = [
    ...(back.pulled ?? []).map((ref) => `${ref} in`),
    ...(back.unplugged ?? []).map((connector) =>
      isGroundStud(speaker.model, connector) ? `the lead on ${connector}` : `${connector} on`,
    ),
    ...(back.removed ?? []).map((ref) => `${ref} in the circuit`),
    ...(back.swapped ?? []).map(([one, two]) => `${one} and ${two} each in its place`),
    ...lifted.map(({ part, node }) => `${part} on ${pointName(speaker, node)}`),
    ...open.map((node) => `the line on ${pointName(speaker, node)}`),
    ...plugged.map((node) => `the plug out of ${pointName(speaker, node)}`),
    ...(back.jumpers ?? []).map(
      ([from, to]) => `the bridge ${pointName(speaker, from)} to ${pointName(speaker, to)} out`,
    ),
    ...(back.energised ?? []).map((ref) => `the bench supply off ${ref}`),
  ];
  if (words.length === 0) return '';
  const lines = open.length > 0 || plugged.length > 0 || lifted.some(isLine);
  const first = lines
    ? `${capital(MEDIUM[mediumOf(speaker.model)].off)}, then back as it was`
    : 'Back as it was';
  return `${first}: ${words.join(', ')}.`;
}

/**
 * The set-up in numbered lines, first what an earlier test left otherwise. None is left out, however many there are: the last says where the
 * leads go.
 */
export function setupSteps(speaker: Speaker, test: Test, back: PutBack = {}): string[] {
  const { setup } = test;
  const { model } = speaker;
  const live = !isDeadKind(test.kind);
  const medium = MEDIUM[mediumOf(model)];
  const steps: string[] = [];
  const place = (ref: string) => {
    const part = model.compiled.circuit.parts.find((one) => one.ref === ref);
    return part?.place ? `${ref}, ${part.place.toLowerCase()}` : ref;
  };
  const plug = (connector: string) => {
    const pin = model.compiled.circuit.parts.find(
      (part) => part.kind === 'pin' && part.connector === connector,
    );
    return `${connector}${pin?.place ? `, ${pin.place.toLowerCase()}` : ''}`;
  };
  if (setup.pulled?.length) steps.push(`Pull fuse ${setup.pulled.map(place).join(' and ')}. Prove it dead.`);
  else if (setup.isolated?.length)
    steps.push(`Isolate and lock ${setup.isolated.map(place).join(' and ')}. Prove it dead.`);
  const isStud = (connector: string) => isGroundStud(model, connector);
  const off = setup.unplugged ?? [];
  const [studs, plugs] = [off.filter(isStud), off.filter((one) => !isStud(one))];
  const isLine = ({ node }: { node: string }) => isFluidNode(model, node);
  const lifted = setup.lifted ?? [];
  const [lines, wires] = [lifted.filter(isLine), lifted.filter((one) => !isLine(one))];
  const offWords = (ends: typeof lifted) =>
    ends.map(({ part, node }) => `${part} off ${pointName(speaker, node)}`).join(', ');
  const apart = [
    ...(plugs.length > 0 ? [`Unplug ${plugs.map(plug).join('; ')}.`] : []),
    ...studs.map((stud) => `Take the lead off ${plug(stud)}. Mark it first.`),
    ...(setup.removed?.length
      ? [`Take ${setup.removed.join(' and ')} out of the circuit. Mark the wires first.`]
      : []),
    ...(lines.length > 0 ? [`${capital(medium.off)}, then take ${offWords(lines)}.`] : []),
    ...(wires.length > 0 ? [`Lift ${offWords(wires)}. Mark the wires first.`] : []),
    ...(setup.swapped ?? []).map(([one, two]) => `Swap ${one} with its twin ${two}.`),
    ...(setup.energised?.length ? [`Feed ${setup.energised.join(' and ')} from a bench supply.`] : []),
    ...(setup.jumpers ?? []).map(
      ([from, to]) =>
        `Bridge ${pointName(speaker, from)} to ${pointName(speaker, to)}, fused and tagged, for this reading only.`,
    ),
    ...(setup.open?.length
      ? [
          `${capital(medium.off)}, then take the line off at ${setup.open.map((name) => pointName(speaker, name)).join(', ')}, ${medium.on} on slowly.`,
        ]
      : []),
    ...(setup.plugged ?? []).map((name) =>
      test.kind === 'hold'
        ? `Hand pump on the open end at ${pointName(speaker, name)}.`
        : setup.lifted?.some(({ node }) => node === name)
          ? `${medium.stop(pointName(speaker, name))}, ${medium.on} on slowly.`
          : `Stop the exhaust of ${pointName(speaker, name)}.`,
    ),
    ...(setup.override?.length
      ? [`Push the override of ${setup.override.map((one) => one.replace(':', ', end ')).join(' and ')}.`]
      : []),
  ];
  const putBack = putBackStep(speaker, back);
  if (putBack) steps.unshift(putBack);
  if (setup.secured?.length)
    steps.unshift(`Block or lower the load that hangs on ${setup.secured.map(place).join(' and ')}.`);
  steps.push(...apart);
  // A contact that pressure works is read with its pressure on it, though its wires are dead.
  const media = live ? [] : suppliesNeeded(model, test);
  if (media.length > 0)
    steps.push(`Leave ${media.map(place).join(' and ')} on: it is read under its pressure.`);
  const { afterSeconds, ...standing } = setup;
  const positions = positionWords(model.compiled.circuit.controls, standing);
  const when = afterSeconds === undefined ? timersWait(speaker, test) : ', read at once';
  // What a hand pumps wants no machine that runs.
  if (test.kind === 'changes')
    steps.push(
      test.edge === 'rising'
        ? `Hand pump with a gauge on the port of ${test.part}, meter on its contact. Pump up slowly; the gauge as it changes over.`
        : `Hand pump with a gauge on the port of ${test.part}, meter on its contact. Pump until it has changed over, let it go slowly; the gauge as it changes back.`,
    );
  else if (test.kind === 'hold') steps.push(medium.watched);
  else if (positions) steps.push(`${live ? 'Power on, ' : 'Set '}${positions}${when}.`);
  else if (live) steps.push('Power on, every control at rest.');
  if ('from' in test) {
    const [from, to] = [pointName(speaker, test.from), pointName(speaker, test.to)];
    const toFrame = test.to === model.compiled.circuit.frame;
    const behind = test.kind === 'volts' && apart.length === 0 ? ' from behind, plugs on' : '';
    steps.push(`Red on ${from}${behind}, black on ${to}${toFrame ? ', bare frame' : ''}.`);
  } else if (test.kind === 'amps') steps.push(`Clamp round one wire of ${test.through}.`);
  else if (test.kind === 'pressure')
    steps.push(
      holdsRefrigerant(model, test.at)
        ? `Gauge at ${pointName(speaker, test.at)}. None there: somebody licensed fits one, and lets nothing out.`
        : `Gauge at ${pointName(speaker, test.at)}. None there: ${medium.off} before one goes in.`,
    );
  else if (test.kind === 'flow') steps.push(medium.felt(pointName(speaker, test.at)));
  return steps;
}
