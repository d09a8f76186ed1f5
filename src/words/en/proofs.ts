import type { Circumstance } from '@/core/circuit/circumstances';
import type { Part } from '@/core/circuit/partSchema';
import { isFluidNode, mediumOf, type Medium } from '@/core/circuit/medium';
import type { Test } from '@/core/circuit/schema';
import type { Proof } from '@/core/job/proofList';
import type { RefrigerantCare } from '@/core/safety/refrigerant';
import { pointTitle } from './energies';
import { capital } from './capital';
import {
  changedWords,
  kindOfPart,
  modeName,
  partWords,
  pointName,
  positionWords,
  pressureWords,
  quantity,
  testPlace,
  type Speaker,
} from './readings';

/** How a mend is shown under what made it fail. */
const AGAIN_WORDS: Readonly<Record<Circumstance, string>> = {
  atOnce: 'at once',
  onCommand: 'on command',
  afterMinutes: 'for longer than it took to fail',
  hot: 'hot from work',
  wet: 'with its plugs and loom wetted as in service',
  bumps: 'while its plugs and loom are shaken, nobody in its reach',
  comesAndGoes: 'ten times one after the other',
  betterWarm: 'cold, as it stood overnight',
  afterPause: 'the first time after a pause',
  movesByItself: 'and nothing moves by itself',
  doesNotStop: 'and stops',
  wrongOneMoves: 'and nothing else moves',
  shock: 'and no shock is felt',
  fuseHoldsSeconds: 'and its fuse holds',
  fuseHoldsMinutes: 'and its fuse holds',
};

/** How a joint is shown to be tight: soapy water would be drawn into a vacuum, and nobody feels for oil. */
const TIGHT_WORDS: Readonly<Record<Medium, string>> = {
  air: ' at working pressure: soapy water at its joints',
  oil: ' at working pressure: joints wiped dry, looked at with a lamp from aside, never felt for by hand',
  vacuum: ': shut in, the gauge stays for a minute; no water at its joints',
};

/** What a proof asks for, in one line. */
export function proofWords(speaker: Speaker, proof: Proof): string {
  const { circuit } = speaker.model.compiled;
  const positions = 'test' in proof ? positionWords(circuit.controls, proof.test.setup) || 'at rest' : '';
  switch (proof.kind) {
    case 'works':
      return `${partWords(speaker, proof.part)} works, ${positions}`;
    case 'asComplained':
      return `${partWords(speaker, proof.part)} works, ${positions}, ${AGAIN_WORDS[proof.when]}`;
    case 'current':
      return `Current of ${partWords(speaker, proof.part)}, ${positions}, about ${quantity('amps', proof.expected)}`;
    case 'pressure':
      return `Pressure at ${pointName(speaker, proof.test.at)}, ${positions}, about ${pressureWords(proof.expected, speaker.gaugeUnit)}`;
    case 'insulation':
      return `Insulation, ${pointName(speaker, proof.test.from)} to ${pointName(speaker, proof.test.to)} with ${proof.test.testVolts} V, over ${quantity('ohms', proof.least)}`;
    case 'fuseHolds':
      return `${partWords(speaker, proof.test.part)} holds for ${proof.minutes} min under load, ${positions}`;
    case 'drop':
      return `Volts lost on the ${proof.side} of ${proof.part}, ${pointName(speaker, proof.test.from)} to ${pointName(speaker, proof.test.to)}, ${positions}, under ${quantity('volts', proof.most)}`;
    case 'signal':
      return `Signal of ${partWords(speaker, proof.part)} with ${proof.control} ${proof.position}, ${pointName(speaker, proof.test.from)} to ${pointName(speaker, proof.test.to)}, about ${quantity('volts', proof.expected)}`;
    case 'interlock':
      return `${partWords(speaker, proof.part)} ${stopWords(kindOfPart(speaker, proof.part)).verb} with ${proof.control} ${proof.position}`;
    case 'withoutPressure':
      return `${partWords(speaker, proof.part)} ${stopWords(kindOfPart(speaker, proof.part)).verb} with ${partWords(speaker, proof.supply)} shut and vented, ${positions}`;
    case 'changesOver':
      return `${partWords(speaker, proof.part)} changes over on a hand pump ${
        proof.expected === null
          ? 'where its label says'
          : `at about ${pressureWords(proof.expected, speaker.gaugeUnit)}`
      }`;
    case 'followed':
      return followedWords(speaker, proof.test);
    case 'code':
      return `Code ${proof.code} cleared, and gone after a cycle`;
    case 'wire':
      return `${isPort(speaker, proof) ? 'Line' : 'Wire'} back on ${proof.part}:${proof.terminal}`;
    case 'ledger':
      return `${proof.item} is ${proof.lifted ? 'back on' : 'out'}${proof.guards.length > 0 ? `; it defeats ${proof.guards.join(', ')}` : ''}`;
    case 'isolation':
      return `Lock off ${pointTitle(proof.point)}, by its owner`;
    case 'tight':
      return `${partWords(speaker, proof.part)} is tight${TIGHT_WORDS[mediumOf(speaker.model)]}, each position`;
    case 'care':
      return CARE_WORDS[proof.care];
  }
}

function isPort({ model }: Speaker, at: { part: string; terminal: string }): boolean {
  const part = model.compiled.circuit.parts.find(({ ref }) => ref === at.part);
  const node = (part?.nodes as Record<string, string> | undefined)?.[at.terminal];
  return node !== undefined && isFluidNode(model, node);
}

/** A place that is read again, as one line: "Ohms, 7 to 10, X8 unplugged". */
export function followedWords(speaker: Speaker, test: Test): string {
  const { controls } = speaker.model.compiled.circuit;
  const how = [positionWords(controls, test.setup), ...changedWords(test.setup)].filter(Boolean);
  return [capital(modeName(speaker, test)), testPlace(speaker, test), ...how].join(', ');
}

/** What the change of a part that holds refrigerant asks for: usual practice, under local codes and the maker's manual. */
const CARE_WORDS: Readonly<Record<RefrigerantCare, string>> = {
  hotWork: 'Hot work permit written, burnables gone, extinguisher there, fire watch after the last flame',
  wetWrap: 'Wet wrap on the valve while it was brazed, its inside out where the maker says so',
  nitrogen: 'Dry nitrogen flowed through the pipe during brazing, by a regulator, never oxygen',
  leakCheck:
    'Leak check: standing pressure with nitrogen, corrected for its temperature, then bubbles or a detector at every joint',
  evacuation: 'Evacuated, pump shut off, the rise held under its mark',
  stem: 'Stem where it belongs, cap on and tight',
  trips: 'Shown to trip at its pressure and to come back, the way the maker’s manual has it done',
  dated: 'Date and name on the part',
};

/** The same in two words. */
export function careWords(care: RefrigerantCare): string {
  const short: Partial<Record<RefrigerantCare, string>> = {
    evacuation: 'The evacuation',
    leakCheck: 'The leak check',
    trips: 'That the limit trips',
  };
  return short[care] ?? CARE_WORDS[care];
}

/** How a load of a kind is seen to stop, and not to. */
export interface StopWords {
  verb: string;
  stops: string;
  goesOn: string;
}

const STANDS_STILL: StopWords = { verb: 'stops', stops: 'Stops', goesOn: 'Moves' };
const LETS_GO: StopWords = { verb: 'lets go', stops: 'Lets go', goesOn: 'Holds' };
const GOES_DEAD: StopWords = { verb: 'goes dead', stops: 'Dead', goesOn: 'Still live' };

/** What the person sees who takes a command away from a part of this kind. */
export function stopWords(kind: Part['kind']): StopWords {
  switch (kind) {
    case 'cylinder':
    case 'vacuumActuator':
    case 'motor':
    case 'pump':
      return STANDS_STILL;
    case 'coil':
    case 'relay':
    case 'valve':
    case 'proportionalValve':
      return LETS_GO;
    case 'lamp':
      return { verb: 'goes out', stops: 'Goes out', goesOn: 'Stays lit' };
    case 'heater':
      return { verb: 'goes off', stops: 'Goes off', goesOn: 'Stays on' };
    case 'source':
    case 'transformer':
    case 'fuse':
    case 'breaker':
    case 'wire':
    case 'pin':
    case 'switch':
    case 'diode':
    case 'resistor':
    case 'sensor3':
    case 'driver':
    case 'timer':
    case 'airSupply':
    case 'regulator':
    case 'filter':
    case 'check':
    case 'hose':
    case 'throttle':
    case 'silencer':
    case 'plug':
    case 'accumulator':
    case 'relief':
    case 'pressureSwitch':
      return GOES_DEAD;
    default:
      return kind satisfies never;
  }
}
