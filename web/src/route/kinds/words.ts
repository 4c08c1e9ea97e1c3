import type { Telling } from './kind'

/** How many times, before what is told once; nothing for one. */
export const timesOf = (count: string, figure: Telling['figure']): string =>
  count.trim() === '1' ? '' : `${figure(count, 'number')} × `
