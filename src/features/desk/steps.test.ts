import { begunIn, stepAddress } from './steps';

describe('addresses of a job’s steps', () => {
  it.each([
    [417, 'test', {}, '/jobs/417'],
    [417, 'prove', { check: 'a b' }, '/jobs/417?step=prove&check=a+b'],
    [-3, 'test', {}, '/begun?job=3'],
    [-3, 'as-found', { sheet: 'x' }, '/begun?job=3&step=as-found&sheet=x'],
  ] as const)('job %s, %s: %s', (job, step, query, address) => {
    expect(stepAddress(job, step, query)).toBe(address);
  });

  it.each([
    ['job=3&step=test', 3],
    ['', null],
    ['job=', null],
    ['job=0', null],
    ['job=-1', null],
    ['job=1e3', null],
    ['job=3.5', null],
    ['job=99999999999', null],
  ])('“%s” names the begun job %s', (query, local) => {
    expect(begunIn(new URLSearchParams(query))).toBe(local);
  });
});
