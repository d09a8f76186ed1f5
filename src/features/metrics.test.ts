import { askedName, mayMeasure } from './metrics';

describe('figures of the server', () => {
  it.each([
    ['/api/jobs/417/entries', '/api/jobs/N/entries'],
    ['/api/jobs/417', '/api/jobs/N'],
    ['/api/machines/G-2/bus', '/api/machines/CODE/bus'],
    [`/api/photos/${'a'.repeat(64)}`, '/api/photos/ID'],
    ['/api/functions/01900000-0000-7000-8000-00000000000a', '/api/functions/ID'],
    ['/api/find', '/api/find'],
  ])('%s counts as %s', (path, name) => expect(askedName(path)).toBe(name));

  it('are read by who brings the keeper’s word, and by nobody where there is none', () => {
    expect(mayMeasure('Bearer long-word', 'long-word')).toBe(true);
    expect(mayMeasure('Bearer long-worx', 'long-word')).toBe(false);
    expect(mayMeasure('long-word', 'long-word')).toBe(false);
    expect(mayMeasure(null, 'long-word')).toBe(false);
    expect(mayMeasure('Bearer ', '')).toBe(false);
  });
});
