import { once } from 'node:events';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { getCloneableBody } from 'next/dist/server/body-streams';
import { letGo } from './letGo.mjs';

const BODY = '{"entries":[]}';

/** Asks a server for something, and hangs up as soon as it has heard all of it; gives what the server was asked. */
async function hangUp(answer: (request: IncomingMessage, response: ServerResponse) => Promise<void>) {
  let heard: (request: IncomingMessage) => void;
  const asked = new Promise<IncomingMessage>((resolve) => (heard = resolve));
  const server = createServer(
    (request, response) => void answer(request, response).then(() => heard(request)),
  );
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const client = connect((server.address() as AddressInfo).port, '127.0.0.1');
  client.write(`POST / HTTP/1.1\r\nhost: here\r\ncontent-length: ${BODY.length}\r\n\r\n${BODY}`);
  const request = await asked;

  const over = once(request.socket, 'close');
  client.destroy();
  await over;
  server.close();
  return request;
}

test('whoever hangs up before the answer, once the body was handed on, is no failure', async () => {
  const request = await hangUp(async (one, response) => {
    letGo(one, response);
    // As Next.js does where a body passes its door.
    const body = getCloneableBody(one);
    body.cloneBodyStream().resume();
    await body.finalize();
    expect(one.listenerCount('error')).toBe(0);
  });
  expect(request.destroyed).toBe(true);
  expect(request.listenerCount('error')).toBe(1);
});
