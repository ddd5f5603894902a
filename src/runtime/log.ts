import pino from 'pino';

/** The log of this process. It never holds people's texts: log names, ids and codes. */
export const log = pino({ name: 'bimlo', level: process.env.BIMLO_LOG ?? 'info', base: undefined });
