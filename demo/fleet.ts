import type { DemoMachine } from './shed';

const groomer = (number: number): DemoMachine => ({
  code: `G-${number}`,
  name: `Groomer OR-${200 + number}`,
  equipment: 'Groomer',
  functions: [
    { name: 'Blade tilt, both ways', circuit: 'groomer-blade-tilt' },
    { name: 'Blade float valve', circuit: 'groomer-blade-float' },
    { name: 'Tiller float valve', circuit: 'groomer-tiller-float' },
    { name: 'Comb flaps, four outputs', circuit: 'groomer-comb-flaps' },
    { name: 'Cab heater flap', circuit: 'heater-flap' },
  ],
});
const one = (
  code: string,
  name: string,
  equipment: string,
  ...functions: [name: string, circuit: string][]
): DemoMachine => ({
  code,
  name,
  equipment,
  functions: functions.map(([name, circuit]) => ({ name, circuit })),
});
const FILL = ['Snow-water fill valve', 'pump-fill-valve'] as const;
const GATE = ['Lance gate, open and close', 'compressor-gate'] as const;
const HEATER = ['Cab heater flap', 'heater-flap'] as const;
const WINCH = ['Recovery winch, in and out', 'winch-reversing'] as const;
const STOP = ['Engine stop solenoid', 'tractor-blower-stop'] as const;

/** The rest of the fleet of Ostrel Ridge: machines with no job in hand, and two winters behind them. */
export const FLEET: readonly DemoMachine[] = [
  ...[3, 5, 6, 9, 10, 11, 12].map(groomer),
  one('W-3', 'Winch groomer OR-226', 'Winch', [...WINCH], [...HEATER]),
  one('W-4', 'Winch groomer OR-228', 'Winch', [...WINCH], [...HEATER]),
  one('T-1', 'Snow tractor with blower OR-136', 'Tractor', [...STOP], [...HEATER]),
  one('T-2', 'Snow tractor OR-138', 'Tractor', [...STOP]),
  one('L-1', 'Loader OR-129', 'Lift', ['Bucket lock coil over relay', 'loader-bucket-lock']),
  one('L-3', 'Loader OR-133', 'Lift', ['Bucket lock coil over relay', 'loader-bucket-lock'], [...HEATER]),
  one('P-1', 'Pump house, valley', 'Pump house', [...FILL]),
  one('P-2', 'Pump house, middle station', 'Pump house', [...FILL]),
  one('P-3', 'Pump house, north slope', 'Pump house', [...FILL]),
  one('C-3', 'Compressor house, north slope', 'Compressor', [...GATE]),
  one('S-7', 'Shuttle van, long', 'Shuttle', [...HEATER]),
];

/** Something that wears on one machine: a fault that began small and grows. */
export interface Wear {
  machine: string;
  function: string;
  part: string;
  /** `winding`: its ohms alone, too little yet for it to fail. */
  fault: string;
  /** Ohms, or what the fault's severity is in, two years ago and today; it goes from one to the other by factors. */
  from: number;
  to: number;
}

/** What drifts in the demo shed, and is seen to in its lists. */
export const WEAR: readonly Wear[] = [
  { machine: 'P-2', function: FILL[0], part: 'W41', fault: 'weakInsulation', from: 240e6, to: 0.9e6 },
  { machine: 'P-6', function: FILL[0], part: 'W41', fault: 'weakInsulation', from: 400e6, to: 24e6 },
  { machine: 'G-6', function: 'Tiller float valve', part: 'Y14', fault: 'winding', from: 7.52, to: 6.95 },
  {
    machine: 'G-11',
    function: 'Blade float valve',
    part: 'X9.1',
    fault: 'highResistance',
    from: 0.03,
    to: 0.8,
  },
  { machine: 'W-3', function: WINCH[0], part: 'K1', fault: 'highResistance', from: 0.0004, to: 0.0016 },
  {
    machine: 'L-1',
    function: 'Bucket lock coil over relay',
    part: 'W23',
    fault: 'highResistance',
    from: 0.04,
    to: 0.95,
  },
];

/** Machines that were changed against their class, long after they were drawn. */
export const REWIRED = [
  {
    machine: 'G-9',
    function: 'Tiller float valve',
    part: 'W31B',
    is: { place: 'Around the tiller frame', lengthMetres: 2.6, mm2: 1.5, colour: 'black' },
    person: 'Rasmus',
    note: 'A stone took the rear loom; a wire of our own lies around the frame',
    daysAgo: 40,
  },
] as const;

/** How a circuit's work is spoken of in a complaint. */
export const THINGS: Readonly<Record<string, string>> = {
  'groomer-blade-tilt': 'Blade tilt',
  'groomer-blade-float': 'Blade float',
  'groomer-tiller-float': 'Tiller float',
  'groomer-comb-flaps': 'Comb flap',
  'groomer-tiller-lift': 'Tiller lift',
  'heater-flap': 'Cab heater',
  'winch-reversing': 'Winch',
  'tractor-blower-stop': 'Engine stop',
  'loader-bucket-lock': 'Bucket lock',
  'pump-fill-valve': 'Fill valve',
  'compressor-gate': 'Lance gate',
  'press-clamp': 'Clamp',
  'cellar-liquid-valve': 'Liquid valve',
  'dryer-air-switch': 'Heater',
};

/** What drivers say, with what it says of the fault's hour. */
export const SAYINGS: readonly { words: string; when?: string[] }[] = [
  { words: 'Was as ever last night, nothing this morning.' },
  { words: 'Nothing since the wash.', when: ['wet'] },
  { words: 'Stopped in the middle of the work, no noise, no smell.' },
  { words: 'Came and went for a day, now it stays away.', when: ['comesAndGoes'] },
  { words: 'Since the big bump at the cat road.', when: ['bumps'] },
  { words: 'Driver says it has been slow for a week.' },
  { words: 'Found at the daily round, nobody had missed it.' },
  { words: 'Nothing at all. The rest of the machine is fine.' },
  { words: 'Went on the first try after a cold night.' },
];

export const PEOPLE = ['Tove', 'Rasmus', 'Ilse', 'Jorin', 'Maike'] as const;
