import type { Part } from '@lathica/core/part'
import { NEW_BODY } from './field'

/** Which body gets what a step makes; its own, or another that has nothing yet. */
export const intoBodies = (part: Part, own: string, joins: string): Record<string, string> => ({
  ...Object.fromEntries(part.bodies.map((b) => [b.id, b.id === own ? joins : `makes ${b.name}`])),
  [NEW_BODY]: 'makes a new body',
})
