import { ofProcess } from '@/db/shed';
import { allFigures, askedName, mayMeasure, metrics } from './metrics';

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

  it('are told of every process by its name, those that do not answer left out', async () => {
    metrics.entries.inc(3);
    const beside = ofProcess<{ ask: () => Promise<unknown> }>('figures beside', () => {
      throw new Error('metrics.ts has left none');
    });
    const figures = await metrics.registry.getMetricsAsJSON();
    beside.ask = () => Promise.resolve([figures, []]);
    const told = await allFigures();
    expect(told).toMatch(/^spiraxis_entries_total\{process="server"\} 3$/m);
    expect(told).toMatch(/^spiraxis_entries_total\{process="maker1"\} 3$/m);
    expect(told).not.toContain('maker2');
  });
});
