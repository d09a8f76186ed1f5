import pino from 'pino';

/** The server's log: one JSON line an event, on standard output. */
export const log = pino({ name: 'spiraxis', level: process.env.SPIRAXIS_LOG ?? 'info' });
