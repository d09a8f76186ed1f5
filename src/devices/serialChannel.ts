import type { LineChannel } from './lineChannel';

/** Lines over a serial plug of the browser's own device (Web Serial). The port is open already. */
export function serialChannel(port: SerialPort, lineEnd = '\n'): LineChannel {
  const { readable, writable } = port;
  if (!readable || !writable) throw new Error('the plug is not open');
  const writer = writable.getWriter();
  const reader = readable.getReader();
  const encoder = new TextEncoder();
  let closed = false;
  const end = async () => {
    closed = true;
    await reader.cancel().catch(() => undefined);
    reader.releaseLock();
    writer.releaseLock();
    // A plug that was pulled is closed already.
    await port.close().catch(() => undefined);
  };
  return {
    // A write that fails is a plug that was pulled: the reader hears of it.
    send: (line) => void writer.write(encoder.encode(`${line}${lineEnd}`)).catch(() => undefined),
    listen(on) {
      const decoder = new TextDecoder();
      let rest = '';
      const follow = async () => {
        for (;;) {
          const { value, done } = await reader.read();
          if (done) return;
          const lines = (rest + decoder.decode(value, { stream: true })).split(/\r\n|\n|\r/);
          rest = lines.pop() ?? '';
          for (const line of lines) if (line !== '') on.line(line);
        }
      };
      follow()
        .catch(() => undefined)
        .finally(() => {
          if (!closed) on.lost('the plug was pulled, or what is at it is off');
        });
    },
    close: () => void end(),
  };
}
