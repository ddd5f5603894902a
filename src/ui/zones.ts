/** The time zones to choose from. Not every machine counts the time itself (UTC) among its zones. */
export const ZONES = [...new Set([...Intl.supportedValuesOf('timeZone'), 'UTC'])];
