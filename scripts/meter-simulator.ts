/** A bench meter that stands on the demonstration shed's machines: SCPI over TCP on loopback. */
import { hiddenEdits, JOBS, loadDemoCircuit, MACHINES } from '../demo/shed';
import { METER_PORT, serveMeter } from '../src/devices/meter/simulator';
import { SimulatedMeter } from '../src/devices/meter/simulatedMeter';

const port = Number(process.env.SPIRAXIS_METER_PORT ?? METER_PORT);

const functions = MACHINES.flatMap(({ code, functions }) =>
  functions.map(({ name, circuit: file }) => {
    const circuit = loadDemoCircuit(file);
    const job = JOBS.find((one) => one.machine === code && one.function === name);
    return { machine: code, name, circuit, edits: job ? hiddenEdits(circuit, job.hidden) : [] };
  }),
);

const server = serveMeter(new SimulatedMeter(functions));
server.on('error', (error) => {
  process.stderr.write(`spiraxis: the simulated meter could not start: ${error.message}\n`);
  process.exitCode = 1;
});
server.listen(port, '127.0.0.1', () =>
  process.stdout.write(`spiraxis: simulated meter on 127.0.0.1:${port}\n`),
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
