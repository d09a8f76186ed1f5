import { createServer, type AddressInfo, type Socket } from 'node:net';
import { tcpChannel } from '../tcpChannel';
import { asciiAdapter } from './asciiAdapter';

it('a serial CAN adapter over a bridge is opened to listen, heard, lost and found again', async () => {
  const asked: string[] = [];
  const sockets: Socket[] = [];
  // A real little adapter: it does not know how to close what is closed, and says OK by an empty line.
  const server = createServer((socket) => {
    sockets.push(socket);
    socket.on('error', () => undefined);
    socket.on('data', (piece) => {
      for (const command of String(piece).split('\r').filter(Boolean)) {
        asked.push(command);
        socket.write(command === 'C' ? '\u0007' : '\r');
        if (command === 'L') socket.write('T18FECA2180400FFFF00000000\rt1230\rgarbage\r');
      }
    });
  });
  const port = await new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
  );
  const told: string[] = [];
  const adapter = asciiAdapter('Bridge', 250_000, () => tcpChannel({ host: '127.0.0.1', port }, '\r'), 20);
  const link = adapter.open('G-1', {
    onUp: () => told.push('up'),
    onLine: (line) => told.push(line.replace(/^\([\d.]+\) /, '')),
    onLost: (why) => told.push(`lost: ${why}`),
  });
  const until = async (check: () => boolean) => {
    for (let waited = 0; waited < 200 && !check(); waited++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect(check()).toBe(true);
  };
  try {
    await until(() => told.length >= 3);
    expect(told).toEqual(['up', 'can0 18FECA21#0400FFFF00000000', 'can0 123#']);
    expect(asked).toEqual(['C', 'S5', 'L']);
    // One question, and it listens only again.
    expect(link.ask('earlier')).toBe(true);
    await until(() => asked.length >= 10);
    expect(asked.slice(3)).toEqual(['C', 'S5', 'O', 'T18EAFFF93CBFE00', 'C', 'S5', 'L']);
    sockets[0]!.destroy();
    await until(() => told.filter((one) => one === 'up').length === 2);
    expect(told).toContain('lost: nobody answers there');
    expect(adapter.handle).toBeUndefined();
    link.close();
    expect(link.ask('earlier')).toBe(false);
  } finally {
    link.close();
    await until(() => asked.filter((one) => one === 'C').length >= 2);
    for (const socket of sockets) socket.destroy();
    await new Promise((resolve) => server.close(resolve));
  }
});

it('is not called again by itself where who hears that it is lost lets it go', () => {
  jest.useFakeTimers();
  try {
    let lose: (why: string) => void = () => undefined;
    const dial = jest.fn(() => ({
      send: () => undefined,
      listen: (on: { lost: (why: string) => void }) => void (lose = on.lost),
      close: () => undefined,
    }));
    const told: string[] = [];
    const link = asciiAdapter('Plug', 250_000, dial).open('', {
      onUp: () => undefined,
      onLine: () => undefined,
      onLost: (why) => {
        told.push(why);
        link.close();
      },
    });
    lose('the plug was pulled');
    jest.advanceTimersByTime(60_000);
    expect(told).toEqual(['the plug was pulled']);
    // Dialled again it would find a plug that nobody has opened.
    expect(dial).toHaveBeenCalledTimes(1);
  } finally {
    jest.useRealTimers();
  }
});
