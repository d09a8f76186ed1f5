/** A bench meter that stands on the demonstration shed's machines: SCPI over TCP on loopback. */
import { hiddenEdits, JOBS, loadDemoCircuit, MACHINES } from '../demo/shed';
import { METER_PORT, serveMeter } from '../src/devices/meter/simulator';
import { SimulatedMeter } from '../src/devices/meter/simulatedMeter';
import { standIn } from './lib/standIn';

const port = Number(process.env.SPIRAXIS_METER_PORT ?? METER_PORT);

const functions = MACHINES.flatMap(({ code, functions }) =>
  functions.map(({ name, circuit: file }) => {
    const circuit = loadDemoCircuit(file);
    const job = JOBS.find((one) => one.machine === code && one.function === name);
    return { machine: code, name, circuit, edits: job ? hiddenEdits(circuit, job.hidden) : [] };
  }),
);

standIn('simulated meter', serveMeter(new SimulatedMeter(functions)), port);
