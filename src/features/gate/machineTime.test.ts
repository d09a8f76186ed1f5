import { afterMachineTime } from './machineTime';

/** What the process uses of each second that passes, seconds of a core. */
let share: number;

beforeEach(() => {
  jest.useFakeTimers();
  const begun = performance.now();
  jest.spyOn(process, 'cpuUsage').mockImplementation((before) => {
    const user = (performance.now() - begun) * 1000 * share;
    return { user: user - (before?.user ?? 0), system: 0 };
  });
});
afterEach(() => {
  jest.restoreAllMocks();
  jest.useRealTimers();
});

it.each([
  ['has the machine to itself', 1, 20, 19, 21],
  ['is one of many in a process that uses two cores', 2, 20, 19, 21],
  ['gets a fifth of a core beside others', 0.2, 20, 99, 101],
  ['waits for what never comes', 0, 20, 279, 281],
  ['may take longer than anybody waits', 0.1, 600, 599, 601],
])('work that %s is given up in its time', (_name, uses, seconds, notBy, by) => {
  share = uses;
  const giveUp = jest.fn();
  afterMachineTime(seconds, giveUp);
  jest.advanceTimersByTime(notBy * 1000);
  expect(giveUp).not.toHaveBeenCalled();
  jest.advanceTimersByTime((by - notBy) * 1000);
  expect(giveUp).toHaveBeenCalledTimes(1);
  jest.advanceTimersByTime(600_000);
  expect(giveUp).toHaveBeenCalledTimes(1);
});

it('work that came to its end is not given up', () => {
  share = 1;
  const giveUp = jest.fn();
  const ended = afterMachineTime(20, giveUp);
  jest.advanceTimersByTime(10_000);
  ended();
  jest.advanceTimersByTime(600_000);
  expect(giveUp).not.toHaveBeenCalled();
});
