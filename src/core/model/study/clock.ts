/** A whole number below 100 with two digits, as clocks write it. */
export const twoDigits = (value: number): string => String(value).padStart(2, '0');

/**
 * Seconds as `h:mm:ss`, rounded to whole ones.
 *
 * @example clockOf(3909) // '1:05:09'
 */
export function clockOf(seconds: number): string {
  const whole = Math.round(seconds);
  const minutes = Math.floor((whole % 3600) / 60);
  return `${Math.floor(whole / 3600)}:${twoDigits(minutes)}:${twoDigits(whole % 60)}`;
}

/**
 * Seconds as `m:ss`, whole ones only: a running clock does not run ahead.
 *
 * @example minutesOf(125.9) // '2:05'
 */
export const minutesOf = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${twoDigits(Math.floor(seconds % 60))}`;
