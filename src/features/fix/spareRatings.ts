import { significant } from '@/core/units/significant';
import { formatQuantity } from '@/core/units/formatQuantity';
import { isAssumed, saidOf, voltsAssumed } from '@/core/circuit/assumed';
import type { CircuitModel } from '@/core/circuit/model';
import type { LabelFigure, Part } from '@/core/circuit/partSchema';
import { partsBeside } from '@/core/diagnosis/partsAcross';
import { mostAmps } from '@/core/shed/mostAmps';
import { nominalVolts } from '@/core/shed/nominalVolts';
import { benchChecks } from '@/core/job/rules/spareOnBench';
import type { GaugeMark } from '@/core/units/quantities';
import { pressureWords, quantity, switchPointWords } from '@/words/en/readings';

/** A rating that a spare must match, as words. */
export interface Rating {
  name: string;
  wanted: string;
}

const OLD_PART = 'as on the old part';
const OLD_LABEL = 'as on the old label';

/**
 * What a spare for a part is matched by, from the circuit. The circuit knows the volts at a part, what it reads and what
 * its contacts carry, not what its maker wrote on it: thread, plug and duty stand on the old part's label.
 */
export function spareRatings(model: CircuitModel, ref: string, gaugeUnit: GaugeMark): Rating[] {
  const part = model.compiled.circuit.parts.find((one) => one.ref === ref);
  return part ? ratingsOf(model, part, gaugeUnit) : [];
}

function ratingsOf(model: CircuitModel, part: Part, gaugeUnit: GaugeMark): Rating[] {
  const ratings: Rating[] = [];
  const add = (name: string, wanted: string | undefined) => {
    if (wanted) ratings.push({ name, wanted });
  };
  const ohms = benchChecks(model, part.ref).find(({ measure }) => measure === 'winding')?.about;
  switch (part.kind) {
    case 'coil':
    case 'heater':
    case 'lamp':
    case 'motor':
    case 'resistor':
    case 'relay':
    case 'proportionalValve':
    case 'transformer':
      if (part.kind !== 'resistor') add('Volts, AC or DC', voltsWords(model, part));
      if (ohms)
        add('Ohms at 20 °C', `${quantity('ohms', ohms.value)} ± ${Math.round(ohms.tolerance * 100)} %`);
      if (part.kind === 'relay')
        add(
          'Contacts',
          Object.keys(part.nodes)
            .filter((node) => !/^a\d$/.test(node))
            .join(', '),
        );
      if (part.kind === 'relay') add('Contact amps', contactWords(model, part));
      add('Power', powerWords(model, part));
      if (part.kind === 'coil') add('Duty', OLD_LABEL);
      add('Plug and thread', OLD_PART);
      break;
    case 'fuse':
    case 'breaker':
      add('Amps', isAssumed(part, 'amps') ? `${OLD_LABEL}, never larger` : `${part.amps} A, never larger`);
      add('Speed and volts', OLD_PART);
      break;
    case 'wire':
      add(
        'Cross-section',
        part.mm2
          ? `${part.mm2} mm²`
          : part.awg !== undefined
            ? `${part.awg} AWG`
            : 'as the old wire, never less',
      );
      add('Length', part.lengthMetres ? `${part.lengthMetres} m` : undefined);
      add('Colour and mark', [part.colour, part.mark].filter(Boolean).join(', '));
      break;
    case 'driver':
      add(
        'Limit',
        said(part, 'limitAmps', (amps) => `${amps} A`),
      );
      add('Software version', 'as on the old controller');
      break;
    case 'switch':
      add('Contact', 'normally open or closed as it stands in service');
      add('Contact amps', contactWords(model, part));
      add('Kind', OLD_PART);
      break;
    case 'valve':
      add('Ways and rest', valveWords(part));
      add(
        'Pilot pressure',
        part.pilotKPa === undefined ? undefined : `shifts from ${pressureWords(part.pilotKPa, gaugeUnit)}`,
      );
      add('Kind and size', OLD_PART);
      add('Working pressure', 'as on the old part, never less');
      break;
    case 'hose':
    case 'pump':
    case 'cylinder':
    case 'regulator':
    case 'filter':
    case 'check':
    case 'throttle':
    case 'silencer':
    case 'plug':
    case 'vacuumActuator':
    case 'airSupply':
      add('Kind and size', OLD_PART);
      add('Working pressure', 'as on the old part, never less');
      break;
    case 'relief':
      add('Kind and size', OLD_PART);
      add(
        'Opens at',
        said(part, 'kPa', (kPa) => formatQuantity(kPa / 100, 'bar')),
      );
      add('Setting', 'set and sealed by who may, with a gauge; never higher than the machine’s manual says');
      break;
    case 'accumulator':
      add('Kind and size', OLD_PART);
      add('Working pressure', 'as on the old part, never less');
      add(
        'Gas',
        `nitrogen to ${said(part, 'kPa', (kPa) => formatQuantity(kPa / 100, 'bar'))}, by who is trained for it; never air or oxygen`,
      );
      break;
    case 'pressureSwitch':
      add('Switching pressure', switchPoints(part, gaugeUnit));
      add('Contact amps', contactWords(model, part));
      add('Kind', OLD_PART);
      break;
    case 'timer':
      add(
        'Seconds',
        said(part, 'seconds', (seconds) => formatQuantity(seconds, 's')),
      );
      add('Contact amps', contactWords(model, part));
      add('Kind', OLD_PART);
      break;
    case 'diode':
      add('Stands off', suppressorVolts(model, part));
      add('Amps, for a moment', suppressorAmps(model, part));
      add('Way round', `band on ${part.nodes.cathode}: turned round it shorts the supply`);
      add('Kind', OLD_PART);
      break;
    case 'source':
    case 'pin':
    case 'sensor3':
      add('Kind', OLD_PART);
      break;
    default:
      part satisfies never;
  }
  return ratings;
}

/** A figure of its label in words; what nobody has said stands on the old label. */
function said<P extends Part, F extends keyof P & LabelFigure>(
  part: P,
  figure: F,
  words: (value: NonNullable<P[F]>) => string,
): string {
  const value = saidOf(part, figure);
  return value === undefined || value === null ? OLD_LABEL : words(value);
}

/** Where a pressure switch makes and breaks, as far as somebody has said it. */
function switchPoints(part: Extract<Part, { kind: 'pressureSwitch' }>, gaugeUnit: GaugeMark): string {
  const points = (
    [
      ['makes', saidOf(part, 'makeKPa')],
      ['breaks', saidOf(part, 'breakKPa')],
    ] as const
  ).flatMap(([verb, kPa]) => (kPa === undefined ? [] : [`${verb} at ${switchPointWords(kPa, gaugeUnit)}`]));
  return points.length === 0 ? OLD_LABEL : `${points.join(', ')} by the drawing, and ${OLD_LABEL}`;
}

/** Below this nothing is carried, amperes. */
const LEAST_AMPS = 1e-3;
/** Body of a part, and whether it stands on alternating volts. */
function bodyOf({ compiled }: CircuitModel, { ref }: Part) {
  const { branches } = compiled.parts[compiled.partIndex.get(ref)!]!;
  const body = branches.find(({ role }) => role === 'body');
  return (
    body && { body, alternating: compiled.alternating[body.a] === 1 || compiled.alternating[body.b] === 1 }
  );
}

/** Volts of the circuit at the part itself: a 24 V coil behind a 120 V transformer is a 24 V coil. */
function voltsWords(model: CircuitModel, part: Part): string {
  const own = bodyOf(model, part);
  if (!own || own.body.volts === 0 || voltsAssumed(model.compiled.circuit.parts)) return OLD_LABEL;
  return `${nominalVolts(own.body.volts, own.alternating)} V ${own.alternating ? 'AC' : 'DC'}, and as on the old label`;
}

/** What it takes at those volts; nothing where nobody knows what limits its current. */
function powerWords(model: CircuitModel, part: Part): string | undefined {
  const own = bodyOf(model, part);
  if (part.kind === 'transformer') return said(part, 'va', (va) => `${va} VA, never less`);
  if (voltsAssumed(model.compiled.circuit.parts)) return OLD_LABEL;
  if (!own || own.body.volts === 0 || !own.body.ohmsKnown || !own.body.impedanceKnown) return OLD_LABEL;
  const { ohms, reactance, volts } = own.body;
  const power = significant(nominalVolts(volts, own.alternating) ** 2 / Math.hypot(ohms, reactance), 2);
  return `about ${power} ${reactance > 0 ? 'VA, sealed' : 'W'}`;
}

/** The most that its contacts carry on the sound machine, at once where a timer feeds, and at which volts they break it. */
function contactWords(model: CircuitModel, { ref }: Part): string {
  const { part, branches } = model.compiled.parts[model.compiled.partIndex.get(ref)!]!;
  const contacts = branches.filter(
    ({ role }) => role === 'made' || role === 'resting' || (role === 'body' && part.kind !== 'relay'),
  );
  const most = mostAmps(
    model,
    contacts.map(({ index }) => index),
  );
  if (!(most > LEAST_AMPS)) return OLD_LABEL;
  const { a, volts } = contacts[0]!;
  const alternating = model.compiled.alternating[a] === 1;
  const at = `${nominalVolts(volts, alternating)} V ${alternating ? 'AC' : 'DC'}`;
  return `${quantity('amps', significant(most, 2))} carried here at ${at}; duty as on the old label`;
}

/** Volts of its own circuit, which it blocks as long as that is fed. */
function suppressorVolts(model: CircuitModel, part: Part): string {
  const own = bodyOf(model, part);
  return own && own.body.volts > 0
    ? `over ${nominalVolts(own.body.volts, own.alternating)} V with room for spikes, as on the old part`
    : OLD_LABEL;
}

/** What the winding beside it drives through it as that is let go: the winding's own current. */
function suppressorAmps(model: CircuitModel, { ref }: Part): string {
  const most = Math.max(
    0,
    ...partsBeside(model, model.compiled.parts[model.compiled.partIndex.get(ref)!]!).map(({ branches }) => {
      const { volts, ohms, ohmsKnown } = branches[0]!;
      return ohmsKnown && ohms > 0 ? nominalVolts(volts, false) / ohms : 0;
    }),
  );
  return most > LEAST_AMPS
    ? `${quantity('amps', significant(most, 2))} of the winding it lies across`
    : OLD_LABEL;
}

/** Ways, and what it does when nobody feeds it: the wrong centre lets a held load go. */
function valveWords({ ways, atRest, centre }: Extract<Part, { kind: 'valve' }>): string {
  const rest = centre ? `${centre} centre` : atRest ? `${atRest} at rest` : '';
  return [ways, rest].filter(Boolean).join(', ');
}
