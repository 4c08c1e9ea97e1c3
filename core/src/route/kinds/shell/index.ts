import type { ShellStep } from '../../../part'
import { exactly, formula, id, key, list, record } from '../../../part/fields'
import { proportion } from '../../proportion'
import { shell as run } from './run'
import type { OfferedRules } from '../kind'

export const shell: OfferedRules<ShellStep> = {
  name: 'shell',
  fields: {
    body: id,
    side: exactly('inside', 'outside'),
    thickness: formula,
    open: list(key),
    faces: list(record({ edge: key, thickness: formula })),
    corners: exactly('sharp', 'round'),
    follow: exactly('turn', 'solid'),
  },
  offer: ({ body, section, units }) => ({
    ...{ kind: 'shell', body, side: 'inside', thickness: proportion(section, 0.05, units) },
    ...{ open: [], faces: [], corners: 'sharp', follow: 'turn' },
  }),
  run,
}
