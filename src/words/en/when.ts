import type { Weather } from '@/core/job/weather';
import type { WHEN } from '@/core/job/when';

/** When and how a complaint shows, one press each. */
export const WHEN_WORDS: Readonly<Record<(typeof WHEN)[number], string>> = {
  atOnce: 'At once',
  onCommand: 'On command',
  afterMinutes: 'After some minutes',
  hot: 'When hot',
  wet: 'In the wet',
  bumps: 'On bumps',
  comesAndGoes: 'Comes and goes',
  betterWarm: 'Works when warm',
  afterPause: 'Only the first time after a pause',
  movesByItself: 'Moves by itself',
  doesNotStop: 'Does not stop',
  wrongOneMoves: 'The wrong one moves',
  shock: 'A shock or tingle was felt',
  fuseHoldsSeconds: 'Fuse holds for seconds',
  fuseHoldsMinutes: 'Fuse holds for minutes',
};

/** The weather a machine failed in, one press. */
export const WEATHER_WORDS: Readonly<Record<Weather, string>> = {
  dry: 'Dry',
  rain: 'Rain',
  snow: 'Snow',
  frost: 'Frost',
  thaw: 'Thaw',
  heat: 'Heat',
};
