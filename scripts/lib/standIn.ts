import type { Server } from 'node:net';

/** Has a stand-in for an outside device listen on loopback until it is told to end. */
export function standIn(name: string, server: Server, port: number): void {
  server.on('error', (error) => {
    process.stderr.write(`spiraxis: the ${name} could not start: ${error.message}\n`);
    process.exitCode = 1;
  });
  server.listen(port, '127.0.0.1', () => process.stdout.write(`spiraxis: ${name} on 127.0.0.1:${port}\n`));
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
}
