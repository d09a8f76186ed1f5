import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CircuitModel } from '../src/core/circuit/model';
import { parseCircuit } from '../src/core/circuit/parse';
import type { Circuit, Reading, Test } from '../src/core/circuit/schema';
import { faultByName, listFaults } from '../src/core/diagnosis/faults';
import { totalSigma } from '../src/core/diagnosis/likelihood';
import { bindTest, predict, predictedValue } from '../src/core/diagnosis/predict';
import type { Weather } from '../src/core/job/weather';
import { seededRandom } from '../src/core/random';
import type { JobSheetName } from '../src/core/sheets/onCircuit/jobSheet';
import { SHEET_JOBS } from './sheetJobs';
import type { Reached } from './story';

export interface DemoMachine {
  code: string;
  name: string;
  /** Class of equipment. */
  equipment: string;
  functions: { name: string; circuit: string }[];
}

/** A job whose readings come out of the circuit itself, with a hidden fault, as a meter would show them. */
export interface DemoJob {
  number: number;
  machine: string;
  function: string;
  title: string;
  person: string | null;
  hoursAgo: number;
  words: string;
  hidden: { part: string; fault: string; ohms?: number };
  tests: Test[];
  /** A sheet that was begun: so many of its cells are read, in the order in which it asks. */
  sheet?: { name: JobSheetName; cells: number };
  /** How warm its windings were when their ohms were read. */
  celsius?: number;
  /** How far it has come; the complaint alone when nothing is said. */
  reached?: Reached;
  when?: string[];
  /** The weather it failed in. */
  weather?: Weather;
  codes?: { system: string; component: number; failureMode: number; text: string; part?: string }[];
  action?: 'repair' | 'replace';
  why?: string;
  work?: string;
  note?: string;
  left?: string[];
  /** A coil whose current was watched once the job was done. */
  watched?: string;
  /** A picture in demo/pictures, with what it shows. */
  picture?: { file: string; caption: string; part: string };
}

/** The shed of Ostrel Ridge, a made-up ski area. */
export const MACHINES: readonly DemoMachine[] = [
  {
    code: 'G-1',
    name: 'Groomer OR-201',
    equipment: 'Groomer',
    functions: [{ name: 'Tiller float valve', circuit: 'groomer-tiller-float' }],
  },
  {
    code: 'G-2',
    name: 'Groomer OR-202',
    equipment: 'Groomer',
    functions: [
      { name: 'Blade tilt, both ways', circuit: 'groomer-blade-tilt' },
      { name: 'Blade float valve', circuit: 'groomer-blade-float' },
      { name: 'Tiller float valve', circuit: 'groomer-tiller-float' },
      { name: 'Tiller lift and lower', circuit: 'groomer-tiller-lift' },
    ],
  },
  {
    code: 'G-4',
    name: 'Groomer OR-204',
    equipment: 'Groomer',
    functions: [
      { name: 'Blade tilt, both ways', circuit: 'groomer-blade-tilt' },
      { name: 'Blade float valve', circuit: 'groomer-blade-float' },
      { name: 'Tiller float valve', circuit: 'groomer-tiller-float' },
    ],
  },
  {
    code: 'W-1',
    name: 'Winch groomer OR-219',
    equipment: 'Winch',
    functions: [{ name: 'Recovery winch, in and out', circuit: 'winch-reversing' }],
  },
  {
    code: 'T-3',
    name: 'Snow tractor with blower OR-140',
    equipment: 'Tractor',
    functions: [{ name: 'Engine stop solenoid', circuit: 'tractor-blower-stop' }],
  },
  {
    code: 'L-2',
    name: 'Loader OR-131',
    equipment: 'Lift',
    functions: [{ name: 'Bucket lock coil over relay', circuit: 'loader-bucket-lock' }],
  },
  {
    code: 'P-5',
    name: 'Pump house, upper pond',
    equipment: 'Pump house',
    functions: [{ name: 'Snow-water fill valve', circuit: 'pump-fill-valve' }],
  },
  {
    code: 'C-1',
    name: 'Compressor house',
    equipment: 'Compressor',
    functions: [{ name: 'Lance gate, open and close', circuit: 'compressor-gate' }],
  },
  {
    code: 'G-7',
    name: 'Groomer OR-207',
    equipment: 'Groomer',
    functions: [
      { name: 'Comb flaps, four outputs', circuit: 'groomer-comb-flaps' },
      { name: 'Tiller lift and lower', circuit: 'groomer-tiller-lift' },
    ],
  },
  {
    code: 'G-8',
    name: 'Groomer OR-208',
    equipment: 'Groomer',
    functions: [{ name: 'Comb flaps, four outputs', circuit: 'groomer-comb-flaps' }],
  },
  {
    code: 'W-2',
    name: 'Winch groomer OR-221',
    equipment: 'Winch',
    functions: [{ name: 'Recovery winch, in and out', circuit: 'winch-reversing' }],
  },
  {
    code: 'P-6',
    name: 'Pump house, lower pond',
    equipment: 'Pump house',
    functions: [{ name: 'Snow-water fill valve', circuit: 'pump-fill-valve' }],
  },
  {
    code: 'C-2',
    name: 'Compressor house, valley',
    equipment: 'Compressor',
    functions: [{ name: 'Lance gate, open and close', circuit: 'compressor-gate' }],
  },
  {
    code: 'B-3',
    name: 'Plank press, workshop',
    equipment: 'Press',
    functions: [{ name: 'Press clamp', circuit: 'press-clamp' }],
  },
  {
    code: 'H-5',
    name: 'Heater truck OR-310',
    equipment: 'Heater',
    functions: [{ name: 'Cab heater flap', circuit: 'heater-flap' }],
  },
  {
    code: 'K-1',
    name: 'Provisions cellar, valley hut',
    equipment: 'Cooling',
    functions: [{ name: 'Cellar liquid valve', circuit: 'cellar-liquid-valve' }],
  },
  {
    code: 'D-2',
    name: 'Boot dryer, hut',
    equipment: 'Heater',
    functions: [{ name: 'Heater behind the air switch', circuit: 'dryer-air-switch' }],
  },
  { code: 'S-6', name: 'Shuttle van', equipment: 'Shuttle', functions: [] },
];

const right = { controls: { key: 'on', tilt: 'right' } };
const left = { controls: { key: 'on', tilt: 'left' } };
const floatOn = { controls: { key: 'on', float: 'on' } };
const out = { controls: { pendant: 'out' } };
const inward = { controls: { pendant: 'in' } };
const seated = { controls: { key: 'on', seat: 'taken' } };
const full = { controls: { level: 'full' } };
const opening = { controls: { gate: 'open' } };
const closing = { controls: { gate: 'close' } };
const lifting = { controls: { hydraulics: 'free', lever: 'lift' } };
const lowering = { controls: { hydraulics: 'free', lever: 'lower' } };

const STORIES: readonly DemoJob[] = [
  {
    number: 422,
    machine: 'D-2',
    function: 'Heater behind the air switch',
    title: 'Boots wet in the morning, fan runs all night',
    person: 'Jorin',
    hoursAgo: 0.3,
    words:
      'Air comes, and comes cold. In summer somebody turned the screw of the air switch, since it never let go.',
    hidden: { part: 'B1', fault: 'drifted', ohms: 2.6 },
    tests: [
      { kind: 'function', part: 'Y1', setup: { controls: { heat: 'on' } } },
      { kind: 'pressure', at: 'P0', setup: { controls: { heat: 'on' } } },
    ],
  },
  {
    number: 421,
    machine: 'G-2',
    function: 'Tiller lift and lower',
    title: 'Tiller goes up and stays up',
    person: 'Maike',
    hoursAgo: 0.4,
    words: 'Lifts as ever. On lower nothing moves, the display beeps and keeps code 22-05.',
    when: ['wet'],
    weather: 'thaw',
    hidden: { part: 'X22.2', fault: 'highResistance', ohms: 35 },
    tests: [
      { kind: 'function', part: 'C1', setup: lifting },
      { kind: 'function', part: 'C1', setup: lowering },
      { kind: 'code', part: 'DM6', setup: lowering },
    ],
    codes: [
      {
        system: 'maker',
        component: 22,
        failureMode: 5,
        text: 'current too low, or circuit open',
        part: 'DM6',
      },
    ],
  },
  {
    number: 420,
    machine: 'G-7',
    function: 'Tiller lift and lower',
    title: 'Tiller lifts at a walk, and not with snow on it',
    person: 'Rasmus',
    hoursAgo: 0.6,
    words: 'Both ways slow since the lines were bled on Friday. Something at the block whistles under load.',
    hidden: { part: 'RV1', fault: 'lowPressure', ohms: 0.25 },
    tests: [
      { kind: 'function', part: 'C1', setup: lifting },
      { kind: 'function', part: 'C1', setup: lowering },
      { kind: 'pressure', at: 'Pump outlet', setup: {} },
    ],
  },
  {
    number: 418,
    machine: 'G-1',
    function: 'Tiller float valve',
    title: 'Tiller float lets go at once',
    person: 'Ilse',
    hoursAgo: 1,
    words: 'Float button lights for a moment, then the display beeps and shows a code. Nothing floats.',
    hidden: { part: 'W114', fault: 'shortToFrame', ohms: 0.6 },
    tests: [],
  },
  {
    number: 417,
    reached: 'made-safe',
    machine: 'G-2',
    function: 'Blade tilt, both ways',
    title: 'Blade tilts left but not right',
    person: 'Tove',
    hoursAgo: 1.2,
    words:
      'Lever right: no click at the valve block, nothing moves. Left is as quick as ever. Started after the morning shift.',
    hidden: { part: 'X8.1', fault: 'open' },
    tests: [
      { kind: 'function', part: 'Y7', setup: left },
      { kind: 'function', part: 'Y8', setup: right },
    ],
  },
  {
    number: 416,
    machine: 'G-4',
    function: 'Tiller float valve',
    title: 'Tiller will not float',
    person: 'Tove',
    hoursAgo: 3.5,
    words: 'Float button lights up, tiller stays rigid. Code 14-05 on the display.',
    hidden: { part: 'R2', fault: 'highResistance', ohms: 46 },
    tests: [
      { kind: 'function', part: 'Y14', setup: floatOn },
      { kind: 'code', part: 'DM2', setup: floatOn },
      { kind: 'volts', from: 'DM2:14', to: 'GND', setup: floatOn },
      { kind: 'volts', from: 'Y14:1', to: 'GND', setup: floatOn },
    ],
  },
  {
    number: 414,
    reached: 'made-safe',
    machine: 'W-1',
    function: 'Recovery winch, in and out',
    title: 'Winch dead both ways after two nights outside',
    person: 'Ilse',
    hoursAgo: 20,
    words: 'A buzz from the contactors, in and out, and the cab lights go dim with it.',
    when: ['atOnce'],
    hidden: { part: 'G1', fault: 'lowVoltage', ohms: 0.6 },
    tests: [
      { kind: 'function', part: 'M1', setup: out },
      { kind: 'function', part: 'M1', setup: inward },
    ],
  },
  {
    number: 412,
    reached: 'made-safe',
    machine: 'T-3',
    function: 'Engine stop solenoid',
    title: 'Engine stops when the driver leans to the blower',
    person: 'Rasmus',
    hoursAgo: 27,
    words: 'Runs while he sits straight. Leaning over it dies, on cold mornings at once.',
    when: ['comesAndGoes', 'betterWarm'],
    weather: 'frost',
    hidden: { part: 'S6', fault: 'stuckOpen' },
    tests: [{ kind: 'function', part: 'Y5H', setup: seated }],
  },
  {
    number: 409,
    machine: 'P-5',
    function: 'Snow-water fill valve',
    title: 'Water runs on with the pond full',
    person: 'Ilse',
    hoursAgo: 49,
    words: 'Overflow twice this week. The float hangs free and is up.',
    when: ['doesNotStop'],
    hidden: { part: 'K4', fault: 'stuckClosed' },
    tests: [{ kind: 'function', part: 'Y4', setup: full }],
  },
  {
    number: 406,
    machine: 'L-2',
    function: 'Bucket lock coil over relay',
    title: 'Bucket lock drops out on rough ground',
    person: null,
    hoursAgo: 70,
    words: 'Comes and goes. Nobody has looked yet.',
    hidden: { part: 'W23', fault: 'highResistance', ohms: 60 },
    tests: [],
  },
  {
    number: 403,
    reached: 'made-safe',
    machine: 'C-1',
    function: 'Lance gate, open and close',
    title: 'Lance gate dead both ways, valve clicks',
    person: 'Rasmus',
    hoursAgo: 96,
    words: 'Both coils click on their buttons. A hiss at the valve, and the gate stays where it is.',
    hidden: { part: 'Z2', fault: 'lowPressure', ohms: 0.35 },
    tests: [
      { kind: 'function', part: 'C1', setup: opening },
      { kind: 'function', part: 'C1', setup: closing },
      { kind: 'click', part: 'Y14', setup: opening },
      { kind: 'pressure', at: 'Receiver', setup: closing },
    ],
  },
  {
    number: 411,
    machine: 'G-4',
    function: 'Blade tilt, both ways',
    title: 'Left tilt gives up after an hour, back after lunch',
    person: 'Rasmus',
    hoursAgo: 29,
    words: 'Cold it tilts both ways. After an hour nothing to the left, to the right it tilts all day.',
    when: ['hot', 'afterPause'],
    hidden: { part: 'Y7', fault: 'open' },
    tests: [
      { kind: 'function', part: 'Y7', setup: left },
      { kind: 'function', part: 'Y8', setup: right },
    ],
    picture: { file: 'plug.svg', caption: 'Plug X7 as it was found, pin 2 green', part: 'X7.2' },
    reached: 'fix',
    action: 'replace',
    why: 'Hot it is over range where its twin reads 33 Ω, plug off; cold it came back.',
  },
  {
    number: 401,
    machine: 'L-2',
    function: 'Bucket lock coil over relay',
    title: 'Bucket lock dead, relay clicks',
    person: 'Tove',
    hoursAgo: 118,
    words: 'The relay can be heard, the lock does not move.',
    hidden: { part: 'K5', fault: 'stuckOpen' },
    tests: [
      { kind: 'function', part: 'Y22', setup: { controls: { key: 'on', lock: 'on' } } },
      { kind: 'click', part: 'K5', setup: { controls: { key: 'on', lock: 'on' } } },
    ],
    reached: 'decide',
  },
  {
    number: 398,
    machine: 'G-2',
    function: 'Tiller float valve',
    title: 'Tiller floats late after the night wash',
    person: 'Ilse',
    hoursAgo: 150,
    words: 'Takes three tries in the morning, better at noon. Code 14-05 stays on the display.',
    when: ['wet', 'comesAndGoes'],
    hidden: { part: 'X31.2', fault: 'highResistance', ohms: 42 },
    tests: [
      { kind: 'function', part: 'Y14', setup: floatOn },
      { kind: 'code', part: 'DM2', setup: floatOn },
    ],
    codes: [
      {
        system: 'maker',
        component: 14,
        failureMode: 5,
        text: 'current too low, or circuit open',
        part: 'DM2',
      },
    ],
    reached: 'handed-over',
    action: 'repair',
    why: 'The volts are lost across the bulkhead pin under load, and nowhere else.',
    work: 'Bulkhead pin 2 cleaned and drawn anew, plug dried, new seal',
    note: 'Wash from the other side of the left cover.',
    watched: 'Y14',
    left: ['Beacon lens cracked, not part of this job.'],
  },
];

export const JOBS: readonly DemoJob[] = [...STORIES, ...SHEET_JOBS];

/** Photos of machines with pins on them: parts, and points with `@` before them. Places are shares of width and height. */
export const PHOTOS: readonly {
  machine: string;
  name: string;
  file: string;
  pins: readonly (readonly [pin: string, x: number, y: number])[];
}[] = [
  {
    machine: 'G-2',
    name: 'Blade valve block, right side cover off',
    file: 'blade-block.svg',
    pins: [
      ['Y7', 0.27, 0.34],
      ['Y8', 0.72, 0.34],
      ['@X7:1', 0.254, 0.15],
      ['@X7:2', 0.288, 0.15],
      ['@X8:1', 0.704, 0.15],
      ['@X8:2', 0.738, 0.15],
    ],
  },
];

/** Codes of a machine that are always there and belong to none of its functions. */
export const STANDING_CODES: Readonly<Record<string, readonly (readonly [number, number])[]>> = {
  'G-1': [[520330, 31]],
};

/** Edits that put a job's hidden fault into its circuit. */
export function hiddenEdits(circuit: Circuit, { part, fault, ohms }: DemoJob['hidden']) {
  const found = faultByName(listFaults(new CircuitModel(circuit)), part, fault, ohms);
  return found.fault.variants[0]!.edits(found.severity);
}

export function loadDemoCircuit(name: string): Circuit {
  return parseCircuit(
    JSON.parse(readFileSync(join(process.cwd(), 'demo', 'circuits', `${name}.circuit.json`), 'utf8')),
  );
}

/** A figure as a meter shows it: three digits, and nothing below a hundredth. */
export function shown(value: number): number {
  return Math.abs(value) < 1 ? Number(value.toFixed(2)) + 0 : Number(value.toPrecision(3));
}

/** What the meter shows for a test while the hidden fault is in the circuit. */
export function takeReadings(circuit: Circuit, { hidden, tests, number }: DemoJob): Reading[] {
  const model = new CircuitModel(circuit);
  const random = seededRandom(number);
  const edits = hiddenEdits(circuit, hidden);
  return tests.map((test) => readAs(model, edits, test, random));
}

/** One reading with the fault in the circuit, as a meter shows it. */
export function readAs(
  model: CircuitModel,
  edits: ReturnType<typeof hiddenEdits>,
  test: Test,
  random: { normal: () => number },
): Reading {
  const prediction = predict(bindTest(model, test), edits);
  let value = predictedValue(test.kind, prediction);
  if (typeof value === 'number')
    value = shown(value + 0.4 * random.normal() * totalSigma(test.kind, value, 0, undefined));
  return { ...test, value } as Reading;
}
