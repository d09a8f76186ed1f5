/** What weather a machine was working in when it failed. */
export const WEATHERS = ['dry', 'rain', 'snow', 'frost', 'thaw', 'heat'] as const;
export type Weather = (typeof WEATHERS)[number];
