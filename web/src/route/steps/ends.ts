import type { Part } from '@lathica/core/part'

/** The ends of a part as it lies. */
export const endsOf = (part: Part): Readonly<Record<'left' | 'right', string>> =>
  part.lie === 'lying'
    ? { left: 'the left', right: 'the right' }
    : { left: 'below', right: 'above' }
