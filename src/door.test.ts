import { hostsOf, turnAway } from './door';

const knock = (method: string, headers: Record<string, string>, path = '/api/jobs/417/entries') => ({
  method,
  path,
  header: (name: string) => headers[name] ?? null,
});
const own = {
  host: '127.0.0.1:3000',
  origin: 'http://127.0.0.1:3000',
  'sec-fetch-site': 'same-origin',
  'content-type': 'application/json',
};
const code = (...[method, headers, path]: Parameters<typeof knock>) =>
  turnAway(knock(method, headers, path), ['shed.local', '.sheds.example'])?.code ?? null;

describe('the door', () => {
  it.each([
    '127.0.0.1:3000',
    'localhost:3000',
    'localhost',
    '[::1]:3000',
    'shed.local',
    'SHED.local:8080',
    'north.sheds.example:443',
  ])('opens under the name %s', (host) => {
    expect(code('GET', { host })).toBeNull();
  });

  it.each([
    'evil.example',
    '127.0.0.1.evil.example',
    'shed.local.evil.example:3000',
    '10.0.0.9',
    'sheds.example',
    'a.b.sheds.example',
    'evilsheds.example',
  ])('stays shut under the name %s, for reading too', (host) => {
    expect(code('GET', { host }, '/api/jobs/417/job.json')).toBe('foreign-host');
  });

  it.each(['', ' ', 'a b', 'user@127.0.0.1', '127.0.0.1/x', '<script>'])('%j is no host', (host) => {
    expect(code('GET', { host })).toBe('bad-host');
  });

  it('takes a change from this server’s own pages, and from a program that is no browser', () => {
    expect(code('POST', own)).toBeNull();
    expect(code('POST', { host: own.host, 'content-type': 'application/json; charset=utf-8' })).toBeNull();
  });

  it.each([
    [{ 'sec-fetch-site': 'cross-site' }],
    [{ 'sec-fetch-site': 'same-site' }],
    [{ 'sec-fetch-site': 'none' }],
    [{ origin: 'http://evil.example' }],
    [{ origin: 'http://127.0.0.1:3001' }],
    [{ origin: 'null' }],
  ])('takes no change with %j', (headers) => {
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE'])
      expect(code(method, { ...own, ...headers })).toBe('cross-site');
  });

  it('a browser that says nothing of the site is judged by its origin', () => {
    const { 'sec-fetch-site': _site, ...older } = own;
    expect(code('POST', older)).toBeNull();
    expect(code('POST', { ...older, origin: 'https://127.0.0.1:4000' })).toBe('cross-site');
  });

  it('takes JSON only where JSON is meant', () => {
    for (const type of ['text/plain', 'application/x-www-form-urlencoded', ''])
      expect(code('POST', { ...own, 'content-type': type })).toBe('not-json');
    expect(code('POST', { ...own, 'content-type': 'text/plain' }, '/api/machines/G-2/bus')).toBe('not-json');
    expect(code('POST', { ...own, 'content-type': 'image/jpeg' }, '/api/photos')).toBeNull();
  });

  it('names from the configuration are taken without spaces and in lower case', () => {
    expect(hostsOf(' Shed.local, 10.0.4.2 ,')).toEqual(['shed.local', '10.0.4.2']);
    expect(hostsOf(undefined)).toEqual([]);
  });
});
