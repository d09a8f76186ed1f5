import { checkCircuit } from '../core/draw/checkCircuit';
import { emptyDrawing, layChains } from '../core/draw/layChain';
import { InputError } from '../core/circuit/inputError';
import { CircuitModel } from '../core/circuit/model';
import { nodesOfTest } from '../core/circuit/testPlace';
import { floatingNodes } from '../core/circuit/world';
import { parseCircuit } from '../core/circuit/parse';
import type { Case, Circuit } from '../core/circuit/schema';
import { diagnoseCase } from '../core/diagnosis/diagnose';
import { faultByName, listFaults } from '../core/diagnosis/faults';
import { findCodes } from '../core/codes/findCodes';
import { bindTest, predictedValue } from '../core/diagnosis/predict';
import type { Verdict } from '../core/diagnosis/verdict';
import { parseReading } from '../core/units/parseReading';
import { computeSheet, type Sheet } from '../core/sheets/sheets';
import { coilFeed } from '../core/trace/coilFeed';
import { judgeCoil } from '../core/trace/judgeCoil';
import { workedIn } from '../core/trace/restOf';
import type { Trace } from '../core/trace/trace';
import { LogReader } from '../formats/logReader';
import { writeSpice } from '../formats/spice';
import { channelTrace, readTraceText } from '../formats/traceFile';
import { judgementWords } from '../words/en/traces';
import { verdictWhy } from '../words/en/verdict';
import { writeWireList } from '../formats/wireList';

const USAGE =
  'use one of: diagnose CASE, predict CASE [--fault PART:FAULT[=OHMS]], reading TEXT, decode TEXT, decode --log FILE, ' +
  'draw CHAIN, sheet FILE, trace CIRCUIT FILE --part PART [--sound FILE], check CIRCUIT, wires CIRCUIT, netlist CIRCUIT';

/**
 * Runs one command. `load` reads and checks a case file, `readPieces` gives a log's text piece by piece. Throws `InputError` for
 * anything a person must mend.
 */
export function runCommand(
  args: readonly string[],
  load: (path: string) => Case,
  readPieces: (path: string) => Iterable<string> = () => [],
  loadCircuit: (path: string) => Circuit = (path) => load(path).circuit,
  loadSheet: (path: string) => Sheet = () => {
    throw new InputError('SHEET', 'no file to read it from');
  },
): unknown {
  const { words, options } = splitArguments(args);
  const [command, target] = words;
  switch (command) {
    case 'diagnose':
      return forPrint(withWhy(diagnoseCase(load(required(target, 'CASE')))));
    case 'predict':
      return predictCase(load(required(target, 'CASE')), options.get('fault'));
    case 'reading': {
      const text = required(words.slice(1).join(' ') || undefined, 'TEXT');
      const reading = parseReading(text);
      if (!reading)
        throw new InputError(
          'TEXT',
          `"${text}" is no reading; type it as the meter shows it: 27.4, 2.7M, 4k7, OL`,
        );
      return reading;
    }
    case 'decode': {
      const file = options.get('log');
      if (file !== undefined) return decodeLog(readPieces(file));
      const text = required(words.slice(1).join(' ') || undefined, 'TEXT');
      return { codes: findCodes(text) };
    }
    case 'sheet':
      return computeSheet(loadSheet(required(target, 'SHEET')));
    case 'trace': {
      const part = required(options.get('part'), '--part');
      const traceOf = (path: string) => channelTrace(readTraceText([...readPieces(path)].join('')), 0);
      const sound = options.get('sound');
      return judgeTrace(loadCircuit(required(target, 'CIRCUIT')), part, traceOf(required(words[2], 'FILE')), {
        sound: sound === undefined ? null : traceOf(sound),
      });
    }
    case 'draw': {
      const text = required(words.slice(1).join(' ') || undefined, 'CHAIN');
      const { circuit } = layChains(emptyDrawing('Drawn'), text);
      return parseCircuit(circuit);
    }
    case 'check':
      return { findings: checkCircuit(loadCircuit(required(target, 'CIRCUIT'))) };
    case 'wires':
      return { csv: writeWireList(loadCircuit(required(target, 'CIRCUIT'))) };
    case 'netlist':
      return { netlist: writeSpice(new CircuitModel(loadCircuit(required(target, 'CIRCUIT')))) };
    default:
      throw new InputError('COMMAND', `${command ? `unknown command "${command}"; ` : ''}${USAGE}`);
  }
}

/** What a coil's trace shows, and what it can be the trace of. */
function judgeTrace(circuit: Circuit, part: string, trace: Trace, { sound }: { sound: Trace | null }) {
  const model = new CircuitModel(circuit);
  const on = workedIn(model, part);
  if (!on) throw new InputError('--part', `no position of the controls switches "${part}" on`);
  const { features, before, standings, named } = judgeCoil(coilFeed(model, part, on.setup), trace, sound);
  return {
    expectedAmps: on.amps,
    features,
    before,
    standings: standings.map(({ condition, share }) => ({ condition, share })),
    named,
    why: judgementWords(named, standings, before !== null),
  };
}

/** Codes of a bus log, with how many of its lines could not be read. */
function decodeLog(pieces: Iterable<string>) {
  const log = new LogReader();
  for (const piece of pieces) log.push(piece);
  return log.end();
}

function predictCase({ circuit, readings }: Case, fault: string | undefined) {
  const model = new CircuitModel(circuit);
  let edits: ReturnType<ReturnType<typeof listFaults>[number]['variants'][number]['edits']> = [];
  if (fault !== undefined) {
    const match = /^(.+):([A-Za-z]+)(?:=(.+))?$/.exec(fault);
    if (!match)
      throw new InputError('--fault', `write it as PART:FAULT or PART:FAULT=OHMS (given "${fault}")`);
    const [, ref = '', name = '', ohms] = match;
    const severity = ohms === undefined ? undefined : numericOhms(ohms);
    const found = faultByName(listFaults(model), ref, name, severity);
    edits = found.fault.variants[0]!.edits(found.severity);
  }
  const predicted = readings.map((reading, at) => {
    const { solver, drive, read } = bindTest(model, reading, `readings[${at}]`);
    const world = solver.solve(drive, edits);
    const floating = new Set(floatingNodes(world));
    return {
      value: predictedValue(reading.kind, read(world, edits)),
      floating: nodesOfTest(reading).filter((name) => floating.has(name)),
      chatters: world.chatters,
    };
  });
  return {
    readings: predicted.map(({ value }) => value),
    // Of each reading: its points that nothing ties down, and whether no steady state was found.
    floating: predicted.map(({ floating }) => floating),
    chatters: predicted.map(({ chatters }) => chatters),
  };
}

function numericOhms(text: string): number {
  const reading = parseReading(text);
  if (!reading || typeof reading.value !== 'number') {
    throw new InputError('--fault', `severity must be a number of ohms (given "${text}")`);
  }
  return reading.value;
}

/** JSON has no infinity: an open upper end of a band is left out. */
function forPrint(value: unknown): unknown {
  return JSON.parse(
    JSON.stringify(value, (_key, one) => (one === Infinity || one === -Infinity ? undefined : one)),
  );
}

function required(word: string | undefined, name: string): string {
  if (word === undefined) throw new InputError(name, `missing; ${USAGE}`);
  return word;
}

const OPTIONS: readonly string[] = ['fault', 'log', 'part', 'sound'];

function splitArguments(args: readonly string[]): { words: string[]; options: Map<string, string> } {
  const words: string[] = [];
  const options = new Map<string, string>();
  let ended = false;
  for (let at = 0; at < args.length; at++) {
    const word = args[at]!;
    if (!ended && word === '--') ended = true;
    else if (!ended && word.startsWith('--')) {
      const [name = '', inline] = word.slice(2).split(/=(.*)/s);
      if (!OPTIONS.includes(name)) throw new InputError(word, `unknown option; ${USAGE}`);
      const value = inline ?? args[++at];
      if (value === undefined) throw new InputError(word, 'needs a value');
      options.set(name, value);
    } else words.push(word);
  }
  return { words, options };
}

/** The verdict with its reason in words, as the contract has it. */
function withWhy<D extends { verdict: Verdict }>(diagnosis: D) {
  return { ...diagnosis, verdict: { ...diagnosis.verdict, why: verdictWhy(diagnosis.verdict) } };
}
