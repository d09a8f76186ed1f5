import { capital } from './capital';
import { significant } from '@/core/units/significant';
import type { ActuationAnswer } from '@/core/sheets/actuation/actuation';
import type { EvacuationAnswer } from '@/core/sheets/evacuation/evacuation';
import type { HoldAnswer } from '@/core/sheets/hold/hold';
import type { Link, NeedsAnswer } from '@/core/sheets/needs/needs';
import type { PlannerAnswer } from '@/core/sheets/planner/planner';
import type { BubblesAnswer } from '@/core/sheets/bubbles/bubbles';
import type { CoilAnswer } from '@/core/sheets/coil/coil';
import type { PoleAnswer, SpareShort } from '@/core/sheets/contacts/bank';
import type { ContactsAnswer } from '@/core/sheets/contacts/contacts';
import type { CutInAnswer } from '@/core/sheets/cutIn/cutIn';
import type { DiodeAnswer } from '@/core/sheets/diode/diode';
import type { DropAnswer } from '@/core/sheets/drop/drop';
import type { FunctionsAnswer } from '@/core/sheets/functions/functions';
import type { InsulationAnswer } from '@/core/sheets/insulation/insulation';
import type { InterlocksAnswer } from '@/core/sheets/interlocks/interlocks';
import type { OutputsAnswer } from '@/core/sheets/outputs/outputs';
import type { ConnectorAnswer } from '@/core/sheets/connector/connector';
import type { StrokeAnswer, StrokeVerdict } from '@/core/sheets/stroke/stroke';
import type { SaturationAnswer } from '@/core/sheets/saturation/saturation';
import type { SheetName } from '@/core/sheets/sheets';
import type { SpareContactAnswer } from '@/core/sheets/spareContact/spareContact';
import type { SurveyAnswer } from '@/core/sheets/survey/survey';
import type { TerminalsAnswer } from '@/core/sheets/terminals/terminals';
import type { TraceAnswer } from '@/core/sheets/trace/trace';
import type { WireAnswer } from '@/core/sheets/wire/wire';
import type { WindingsAnswer } from '@/core/sheets/windings/windings';
import { benchVerdictWords, needWords } from './benchSheets';
import { ohmsWords, quantity } from './readings';
import { outputsCauseWords } from './sheetFound';

/** What a sheet found: the one thing on top, then what goes with it. */
export interface SaidAnswer {
  head: string;
  tone: 'good' | 'bad' | 'open';
  lines: string[];
}

interface Answers {
  coil: CoilAnswer;
  windings: WindingsAnswer;
  insulation: InsulationAnswer;
  contacts: ContactsAnswer;
  terminals: TerminalsAnswer;
  outputs: OutputsAnswer;
  survey: SurveyAnswer;
  diode: DiodeAnswer;
  interlocks: InterlocksAnswer;
  spareContact: SpareContactAnswer;
  drop: DropAnswer;
  bubbles: BubblesAnswer;
  planner: PlannerAnswer;
  needs: NeedsAnswer;
  hold: HoldAnswer;
  evacuation: EvacuationAnswer;
  actuation: ActuationAnswer;
  saturation: SaturationAnswer;
  cutIn: CutInAnswer;
  functions: FunctionsAnswer;
  trace: TraceAnswer;
  wire: WireAnswer;
  stroke: StrokeAnswer;
  connector: ConnectorAnswer;
}

/** What holds this long holds: the first row of the standard. */
const HOLDS_SECONDS = 360_000;
const STROKE_SAYS: Readonly<Record<StrokeVerdict, string>> = {
  asComputed: 'As fast as it should be',
  slowOut: 'Slow on its way out: what lets its rod side go, throttle, silencer or line',
  slowIn: 'Slow on its way in: what lets its cap side go, throttle, silencer or line',
  slowBoth: 'Slow both ways: supply, valve, load or the cylinder itself',
  tooHeavy: 'Too heavy for it',
};
/** On oil nothing is let go into the open. */
const OIL_STROKE_SAYS: Readonly<Record<StrokeVerdict, string>> = {
  ...STROKE_SAYS,
  slowOut: 'Slow on its way out: its way through the valve, a throttle, or the line back from its rod side',
  slowIn: 'Slow on its way in: its way through the valve, a throttle, or the line back from its cap side',
  slowBoth: 'Slow both ways: pump, relief valve, load or the cylinder itself',
};
const NOT_YET = 'Not known yet';
const line = (label: string, value: string | null) => (value === null ? [] : [`${label}: ${value}`]);
/** On for how much of its cycle, and how long at most. */
const dutyLine = (duty: ContactsAnswer['duty']) =>
  duty === null
    ? []
    : [
        `On for ${Math.round(100 * duty.share)} % of its cycle; at most ${plain(duty.mostOnSeconds, 's')} at a time`,
      ];
const LINK_LOST: Readonly<Record<Link, string>> = {
  bit: 'before the controller’s bit: it is not commanded',
  card: 'between the bit and the output card: card or its fuse',
  cable: 'between the card and the end of its cable',
  coil: 'between the cable and the coil: its plug',
};
/** What is done at the machine once a plan stands. */
const PLAN_CHECKS = [
  'Set: write the thresholds and times into the controller, and read them back',
  'Check: override on, the contact closes, volts at the wire, amps in the clamp, override off',
  'Confirm: watch one start and one stop by the sensor itself, and write both down',
];
const SETTINGS: Readonly<Record<PlannerAnswer['settings'][number]['name'], string>> = {
  sensor: 'sensor',
  acts: 'comes on',
  cutIn: 'cut-in',
  cutOut: 'cut-out',
  minimumOn: 'on at least',
  minimumOff: 'off at least',
};
const SENSORS: Readonly<Record<string, string>> = { line: 'in the line', pressure: 'of the pressure' };
/** What is set at a controller, as it is typed there: thresholds in what its sensor reads, to a tenth of a degree. */
function settingsWords(settings: PlannerAnswer['settings']): string {
  const sensor = settings.find(({ name }) => name === 'sensor')?.value;
  const threshold = (value: number) => {
    if (sensor === undefined) return String(significant(value, 3));
    return sensor === 'pressure' ? plain(value, 'kPa') : `${value.toFixed(1)} °C`;
  };
  return settings
    .map(({ name, value }) => {
      const isTime = name === 'minimumOn' || name === 'minimumOff';
      const words =
        typeof value === 'string' ? (SENSORS[value] ?? value) : isTime ? plain(value, 's') : threshold(value);
      return `${SETTINGS[name]} ${words}`;
    })
    .join('; ');
}
const POLES: Readonly<Record<NonNullable<PoleAnswer['does']>, string>> = {
  switched: 'switched, open at rest',
  restsClosed: 'switched, closed at rest',
  straight: 'straight through, or welded',
  neverMakes: 'does not make',
};
const SPARE_SHORT: Readonly<Record<SpareShort, string>> = {
  amps: 'too few amps',
  duty: 'too short a duty',
  coilVolts: 'its coil is for other volts',
  coil: 'its coil is for the other kind of current',
  poles: 'too few poles',
};
const SPARE_ASKS: Readonly<Record<SpareShort, string>> = {
  amps: 'its amps',
  duty: 'its duty',
  coilVolts: 'its coil’s volts',
  coil: 'AC or DC',
  poles: 'its poles',
};
function spareWords(fits: boolean | null, short: readonly SpareShort[], open: readonly SpareShort[]): string {
  if (fits === true) return 'does, by its label';
  if (fits === false) return `does not do: ${short.map((what) => SPARE_SHORT[what]).join(', ')}`;
  if (open.length === 0) return 'not known yet: say what a spare must bear';
  return `not known yet: its label must say ${open.map((what) => SPARE_ASKS[what]).join(', ')}`;
}
const ohms = (value: number | null) => (value === null ? null : quantity('ohms', value));
const volts = (value: number | null) => (value === null ? null : quantity('volts', value));
const amps = (value: number | null) => (value === null ? null : quantity('amps', value));
const plain = (value: number | null, unit: string, digits = 3) =>
  value === null ? null : `${significant(value, digits)} ${unit}`;
const watts = (cold: number | null, hot: number | null) =>
  cold === null ? null : `${plain(cold, 'W')} cold${hot === null ? '' : `, ${plain(hot, 'W')} warm`}`;
const lostWords = ({ dropVolts, dropShare }: { dropVolts: number; dropShare: number }) =>
  `${quantity('volts', dropVolts)} are lost, ${plain(100 * dropShare, '%', 2)} of the supply`;
/** Fuse times are bounds and no times: between its rows a standard says no more. */
const fuseWords = ({ least, most }: { least: number; most: number | null }) =>
  most === null
    ? least >= HOLDS_SECONDS
      ? 'holds'
      : `holds ${plain(least, 's')} at least; nothing says when it opens`
    : `opens after ${plain(least, 's')} at the earliest, ${plain(most, 's')} at the latest`;
const toneOf = (verdict: string | null | undefined, good = 'good'): SaidAnswer['tone'] =>
  verdict === null || verdict === undefined || verdict === 'unknown'
    ? 'open'
    : verdict === good
      ? 'good'
      : 'bad';
const verdictHead = (verdict: string | null) => capital(benchVerdictWords(verdict));

const AGAINST: Readonly<Record<string, string>> = {
  maker: 'the maker’s value',
  twin: 'its neighbours',
  own: 'its own past',
  fleet: 'the fleet',
  range: 'nothing but what coils read at all',
};

const SAY: { [N in SheetName]: (answer: Answers[N]) => SaidAnswer } = {
  coil: (one) => ({
    head: verdictHead(one.verdict),
    tone: toneOf(one.verdict),
    lines: [
      ...line('At 20 °C', ohms(one.ohms20)),
      ...(one.heldAgainst ? [`Held against ${AGAINST[one.heldAgainst]}`] : []),
      ...line('Turns lost', one.turnsLost === null ? null : `${Math.round(100 * one.turnsLost)} %`),
      ...line('Current cold', amps(one.ampsCold)),
      ...line('Current warm', amps(one.ampsHot)),
      ...(one.overLimit ? ['Over the limit of its driver.'] : []),
      ...(one.overFuse ? ['Over its fuse.'] : []),
      ...line('Heat in it', watts(one.wattsCold, one.wattsHot)),
      ...line('Its fuse', one.fuseSeconds && fuseWords(one.fuseSeconds)),
      ...(one.pulsed
        ? [
            `Pulsed, on for ${Math.round(100 * one.pulsed.onShare)} %: a DC meter shows ${volts(one.pulsed.coilVolts)} across it, ${volts(one.pulsed.pinVolts)} at a low-side pin${one.pulsed.amps === null ? '' : `; ${amps(one.pulsed.amps)} in the mean`}`,
          ]
        : []),
      ...line('It ran at', plain(one.coilC, '°C')),
      ...line('Pulls in when 80 °C warmer at', volts(one.pullInHotVolts)),
      ...dutyLine(one.duty),
    ],
  }),
  windings: (one) => ({
    head: verdictHead(one.verdict),
    tone: toneOf(one.verdict),
    lines: [
      ...line('Common', one.common),
      ...line('Pull-in', one.pullIn && `${one.pullIn}, ${ohms(one.pullInOhms)}`),
      ...line('Hold-in', one.holdIn && `${one.holdIn}, ${ohms(one.holdInOhms)}`),
    ],
  }),
  insulation: (one) => {
    const worst = one.refused ? 'refused' : one.bad.length > 0 ? 'bad' : null;
    const all = one.cells.length > 0 && one.cells.every(({ verdict }) => verdict === 'good');
    return {
      head:
        worst === 'refused'
          ? 'Not with this tester'
          : worst
            ? `Leaks: ${one.bad
                .map((pair) => pair.join(' to '))
                .slice(0, 4)
                .join(', ')}`
            : all
              ? 'Good in what was read'
              : NOT_YET,
      tone: worst ? 'bad' : all ? 'good' : 'open',
      lines: one.cells.map(
        ({ from, to, verdict, ohms: shown, ratio, index, ohms40, leakAmps }) =>
          `${from} to ${to}: ${ohmsWords(shown)}, ${benchVerdictWords(verdict)}${ratio === null ? '' : `, 60 over 30 s ${ratio.toFixed(2)}`}${index === null ? '' : `, 10 over 1 min ${index.toFixed(2)}`}${ohms40 === null ? '' : `, at 40 °C ${quantity('ohms', ohms40)}`}${leakAmps === null ? '' : `, ${quantity('amps', leakAmps)} leak`}`,
      ),
    };
  },
  contacts: (one) => {
    const verdicts = Object.entries(one.verdicts);
    const bad = verdicts.filter(
      ([, verdict]) => verdict !== null && !['good', 'worn', 'needsLoad'].includes(verdict),
    );
    return {
      head:
        bad.length > 0
          ? bad.map(([name, verdict]) => `${name}: ${benchVerdictWords(verdict)}`).join('; ')
          : verdicts.every(([, verdict]) => verdict === 'good')
            ? 'All good'
            : NOT_YET,
      tone: bad.length > 0 ? 'bad' : verdicts.every(([, verdict]) => verdict === 'good') ? 'good' : 'open',
      lines: [
        ...verdicts.map(
          ([name, verdict]) =>
            `${name}: ${benchVerdictWords(verdict)}${(one.watts[name] ?? null) === null ? '' : `, ${plain(one.watts[name] ?? null, 'W')} in it`}${one.makes[name] ? `, ${volts(one.makes[name].middle)} in the middle of ${one.makes[name].count} makes` : ''}`,
        ),
        ...Object.entries(one.serves).map(
          ([name, pair]) => `${name}: ${pair ? pair.join(' and ') : 'not known yet which two'}`,
        ),
        ...one.poles.map(
          ({ contactor, from, to, does, line }) =>
            `${contactor}, ${from} to ${to}: ${does === null ? NOT_YET : POLES[does]}${line === null ? '' : `; the line comes in at ${line}`}`,
        ),
        ...dutyLine(one.duty),
        ...one.spares.map(({ name, fits, short, open }) => `${name}: ${spareWords(fits, short, open)}`),
      ],
    };
  },
  terminals: (one) => ({
    head: one.sure ? 'One pin-out fits' : one.fits === 0 ? 'No pin-out fits' : `${one.fits} pin-outs fit`,
    tone: one.sure
      ? one.contacts.some(({ verdict }) => verdict !== 'good')
        ? 'bad'
        : 'good'
      : one.fits === 0
        ? 'bad'
        : 'open',
    lines: [
      ...line(
        'Coil',
        one.coil && `${one.coil.join(' and ')}${one.coilOhms === null ? '' : `, ${ohms(one.coilOhms)}`}`,
      ),
      ...one.poles.map(
        ({ com, no, nc }) => `Pole: common ${com ?? '?'}, closes to ${no ?? '–'}, rests on ${nc ?? '–'}`,
      ),
      ...one.contacts
        .filter(({ verdict }) => verdict !== 'good')
        .map(
          ({ from, to, state, verdict }) =>
            `${from} to ${to}, ${state === 'rest' ? 'at rest' : 'operated'}: ${benchVerdictWords(verdict)}`,
        ),
    ],
  }),
  outputs: (one) => ({
    head: one.cause === null ? NOT_YET : outputsCauseWords(one.cause, one.of),
    tone: one.cause === null ? 'open' : one.cause === 'healthy' ? 'good' : 'bad',
    lines: one.share === null ? [] : [`${Math.round(100 * one.share)} % of the doubt`],
  }),
  survey: (one) => {
    const named = Object.entries(one.roles);
    const open = named.some(([, { role }]) => role === null);
    return {
      head:
        one.wrong.length > 0
          ? one.wrong.map(({ pin, code }) => `Pin ${pin}: ${WRONG[code]}`).join('; ')
          : one.sensor
            ? `Sensor: ${benchVerdictWords(one.sensor)}`
            : open
              ? NOT_YET
              : 'Every pin is known',
      tone:
        one.wrong.length > 0 || (one.sensor !== null && one.sensor !== 'good')
          ? 'bad'
          : open
            ? 'open'
            : 'good',
      lines: named.map(
        ([pin, { role, share }]) =>
          `${pin}: ${role ? ROLES[role] : 'not settled'}, ${Math.round(100 * share)} %`,
      ),
    };
  },
  diode: (one) => ({
    head: verdictHead(one.verdict),
    tone: toneOf(one.verdict),
    lines: [...line('Kind', one.kind)],
  }),
  interlocks: (one) => ({
    head: one.firstLoss
      ? `${one.firstLoss.name} loses ${volts(one.firstLoss.volts)}`
      : one.suspect.length > 0
        ? `One of ${one.suspect.join(', ')}`
        : NOT_YET,
    tone: one.suspect.length > 0 ? 'bad' : 'open',
    lines: Object.entries(one.closed).map(
      ([name, closed]) => `${name}: ${closed === null ? 'not known' : closed ? 'closed' : 'open'}`,
    ),
  }),
  spareContact: (one) => ({
    head: one.use ? `Use the ${one.use} contact` : NOT_YET,
    tone: one.use ? 'good' : 'open',
    lines: line('Where the old one stood it reads', one.nowReads),
  }),
  drop: (one) => {
    const high = one.segments.filter(({ verdict }) => verdict === 'high').map(({ name }) => name);
    return {
      head:
        high.length > 0
          ? `Too much in ${high.join(', ')}`
          : one.segments.every(({ verdict }) => verdict === 'good')
            ? 'All of it is its copper'
            : NOT_YET,
      tone:
        high.length > 0 ? 'bad' : one.segments.every(({ verdict }) => verdict === 'good') ? 'good' : 'open',
      lines: [
        ...one.segments.map(({ name, copperVolts, extraOhms, watts }) =>
          [
            name,
            ...line('copper', volts(copperVolts)),
            ...line('over it', ohms(extraOhms)),
            ...line('heat', plain(watts, 'W')),
          ].join(', '),
        ),
        ...line('In all', volts(one.total)),
        ...line('Worst over its copper', one.worst),
      ],
    };
  },
  wire: ({ size, own, mostOhmsPerKm, fault }) => ({
    head: fault
      ? `It touches the frame at ${plain(fault.metres, 'm')}`
      : size
        ? `${plain(size.mm2, 'mm²')}`
        : NOT_YET,
    tone: fault ? 'bad' : size ? 'good' : 'open',
    lines: [
      ...(fault
        ? [
            `From the near end, between ${plain(fault.least, 'm', 2)} and ${plain(fault.most, 'm', 2)}`,
            ...line('It touches with', ohms(fault.ohms)),
          ]
        : []),
      ...(size ? [`With ${plain(size.mm2, 'mm²')} ${lostWords(size)}`] : []),
      ...line('A kilometre may have', ohms(mostOhmsPerKm)),
      ...(own ? [`The wire that is there: ${lostWords(own)}`] : []),
    ],
  }),
  bubbles: (one) => ({
    head: verdictHead(one.verdict),
    tone: toneOf(one.verdict),
    lines: line(
      'Leak',
      one.litresPerMinute === null ? null : plain(1000 * one.litresPerMinute, 'mL/min free air'),
    ),
  }),
  needs: (one) => ({
    head:
      one.missing.length > 0
        ? `It lacks: ${one.missing.map((need) => needWords(need, one.medium)).join(', ')}`
        : one.next === null && one.has.length > 0
          ? 'Nothing is missing in what was read'
          : NOT_YET,
    tone: one.missing.length > 0 ? 'bad' : one.next === null && one.has.length > 0 ? 'good' : 'open',
    lines: [
      ...line(
        'It has',
        one.has.length > 0 ? one.has.map((need) => needWords(need, one.medium)).join(', ') : null,
      ),
      ...line('The command is lost', one.firstLoss && LINK_LOST[one.firstLoss]),
    ],
  }),
  hold: (one) => ({
    head: one.verdict === 'holds' ? 'It holds' : one.verdict === 'leaks' ? 'It leaks' : NOT_YET,
    tone: one.verdict === 'holds' ? 'good' : one.verdict === 'leaks' ? 'bad' : 'open',
    lines: [
      ...(one.lostKpa === null
        ? []
        : one.lostKpa <= 0
          ? ['Nothing is lost']
          : [
              `Lost: ${plain(one.lostKpa, 'kPa')}`,
              ...line(
                'In a minute',
                one.sharePerMinute === null ? null : `${significant(100 * one.sharePerMinute, 2)} %`,
              ),
            ]),
      ...line('Leak', plain(one.litresPerMinute, 'L/min free air')),
      ...line('By its temperature alone it would show', plain(one.expectedKpa, 'kPa', 4)),
    ],
  }),
  evacuation: (one) => ({
    head:
      one.verdict === 'tight'
        ? 'Tight and dry'
        : one.verdict === 'moisture'
          ? 'Rises and levels off: water is left in it'
          : one.verdict === 'leak'
            ? 'Goes on rising: it leaks'
            : NOT_YET,
    tone: one.verdict === 'tight' ? 'good' : one.verdict === null ? 'open' : 'bad',
    lines: [
      ...line('Began at', plain(one.startPa, 'Pa')),
      ...line('Ended at', plain(one.endPa, 'Pa')),
      ...line('Rose at first', plain(one.earlyPaPerMinute, 'Pa a minute')),
      ...line('Rose at last', plain(one.latePaPerMinute, 'Pa a minute')),
    ],
  }),
  stroke: (one) => ({
    head:
      one.verdict === null ? NOT_YET : (one.medium === 'oil' ? OIL_STROKE_SAYS : STROKE_SAYS)[one.verdict],
    tone: one.verdict === null ? 'open' : one.verdict === 'asComputed' ? 'good' : 'bad',
    lines: [
      ...line('Pushes', plain(one.outNewton, 'N')),
      ...line('Pulls', plain(one.inNewton, 'N')),
      ...line('Out should take', plain(one.outComputed, 's', 2)),
      ...line('of that before it moves', plain(one.outBegins, 's', 2)),
      ...line('In should take', plain(one.inComputed, 's', 2)),
      ...line('of that before it moves', plain(one.inBegins, 's', 2)),
    ],
  }),
  connector: (one) => ({
    head: one.verdict === null ? NOT_YET : one.verdict === 'good' ? 'Good' : 'Bad',
    tone: one.verdict === null ? 'open' : one.verdict,
    lines: [
      ...one.pins.flatMap(({ pin, ohms, verdict }) =>
        verdict === null && ohms === null
          ? []
          : [
              `${pin}: ${ohms === null ? 'no way through' : quantity('ohms', ohms)}${verdict === 'high' ? ', a bad joint in it' : ''}`,
            ],
      ),
      ...one.shorted.map(([from, to]) => `${from} and ${to} are one: shorted`),
      ...(one.diode === null ? [] : [`Diode: ${benchVerdictWords(one.diode)}`]),
    ],
  }),
  actuation: (one) => ({
    head: verdictHead(one.verdict),
    tone: toneOf(one.verdict),
    lines: [
      ...line('Contact', one.contact),
      ...line('Makes', plain(one.makeKpa, 'kPa')),
      ...line('Breaks', plain(one.breakKpa, 'kPa')),
      ...line('Between', plain(one.hysteresisKpa, 'kPa')),
    ],
  }),
  saturation: (one) => ({
    head:
      one.bubbleC === null && one.dewC === null
        ? NOT_YET
        : [...line('Bubble', plain(one.bubbleC, '°C')), ...line('Dew', plain(one.dewC, '°C'))].join(', '),
    tone: one.bubbleC === null && one.dewC === null ? 'open' : 'good',
    lines: [
      ...line('Absolute', plain(one.kPaAbsBubble ?? one.kPaAbsDew, 'kPa', 4)),
      ...line('Of pressure, within', plain(one.errorPercent, '%')),
      ...line('Superheat', plain(one.superheatK, 'K')),
      ...line('Subcooling', plain(one.subcoolingK, 'K')),
      ...line('From', one.source),
    ],
  }),
  cutIn: (one) => ({
    head: one.intervals === null ? NOT_YET : `${one.starts ?? 0} starts, ${plain(one.hoursOn, 'h')} on`,
    tone: one.trouble.length > 0 ? 'bad' : one.intervals === null ? 'open' : 'good',
    lines: [
      ...(one.intervals ?? [])
        .slice(0, 20)
        .map(
          ({ on, off }) =>
            `On at ${plain(Math.round(on), 's', 8)}, ${off === null ? 'still on' : `off at ${plain(Math.round(off), 's', 8)}`}`,
        ),
      ...(one.shortCycles ? [`${one.shortCycles} short cycles`] : []),
    ],
  }),
  planner: (one) => ({
    head: one.run === null ? NOT_YET : `${one.run.starts ?? 0} starts, ${plain(one.run.hoursOn, 'h')} on`,
    tone: one.run === null ? 'open' : one.run.trouble.length > 0 ? 'bad' : 'good',
    lines: [
      ...line('To be set', one.settings.length > 0 ? settingsWords(one.settings) : null),
      ...(one.run === null
        ? []
        : [
            `At most ${one.run.mostAnHour === 1 ? 'one start' : `${one.run.mostAnHour} starts`} within an hour`,
          ]),
      ...(one.run?.shortCycles ? [`${one.run.shortCycles} short cycles`] : []),
      ...(one.schools.outside && one.schools.line
        ? [
            `By a sensor outside: ${one.schools.outside.starts ?? 0} starts, ${plain(one.schools.outside.hoursOn, 'h')} on; by one in the line: ${one.schools.line.starts ?? 0} starts, ${plain(one.schools.line.hoursOn, 'h')} on`,
          ]
        : []),
      ...(one.run === null ? [] : PLAN_CHECKS),
    ],
  }),
  functions: (one) => ({
    head: one.suspect.length > 0 ? `Left: ${one.suspect.map(({ part }) => part).join(', ')}` : NOT_YET,
    tone: one.suspect.length > 0 ? 'bad' : 'open',
    lines: one.cleared.length > 0 ? [`Cleared: ${one.cleared.join(', ')}`] : [],
  }),
  trace: (one) => ({
    head:
      one.verdict !== null
        ? verdictHead(one.verdict)
        : one.moved !== null
          ? one.moved
            ? 'The plunger moved'
            : 'The plunger did not move'
          : one.hz !== null
            ? `${plain(one.hz, 'Hz')}, duty ${Math.round(100 * (one.duty ?? 0))} %`
            : NOT_YET,
    tone:
      one.verdict === 'locked' || one.moved === false
        ? 'bad'
        : one.verdict === null && one.moved === null && one.hz === null
          ? 'open'
          : 'good',
    lines: [
      ...line('Peak', plain(one.peak, '')),
      ...line('Settles at', plain(one.settled, '')),
      ...line('After', plain(one.settleSeconds, 's')),
      ...line('Dip after', plain(one.dipSeconds, 's')),
      ...line('Mean', plain(one.mean, '')),
      ...line('Ripple', plain(one.ripple, '')),
    ],
  }),
};

const ROLES: Readonly<Record<string, string>> = {
  supply: 'supply',
  return: 'return',
  signal: 'signal',
  reference: 'reference',
  driverLow: 'switched to the frame',
  driverHigh: 'switched to the supply',
  nothing: 'not connected',
  floating: 'open wire',
};
const WRONG: Readonly<Record<SurveyAnswer['wrong'][number]['code'], string>> = {
  noSupply: 'no supply',
  lowSupply: 'supply too low',
  openReturn: 'its return is open',
  returnLifted: 'its return is lifted',
  noReference: 'no reference',
  referenceOff: 'reference off',
  shortToFrame: 'shorted to the frame',
  shortToSupply: 'shorted to the supply',
  notSwitched: 'is not switched',
  otherRole: 'is something else than drawn',
};

/** A sheet's answer in words. */
export function sayAnswer<N extends SheetName>(sheet: N, answer: unknown): SaidAnswer {
  return SAY[sheet](answer as Answers[N]);
}
