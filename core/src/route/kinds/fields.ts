import { lazy, string } from 'yup'
import { LARGEST_PACKED } from '../../solid'
import { byKind, exactly, id, key, list } from '../../part/fields'

/** Fields that several kinds of steps have. */

export const effect = exactly('add', 'cut', 'common')
export const end = exactly('left', 'right')

export const cornerPick = byKind({
  corners: { corners: list(key) },
  solid: { edges: list(key) },
  inside: {},
  outside: {},
  step: { step: id },
})

export const wholeProfile = exactly('all')
const someAreas = list(list(id))
export const regions: ReturnType<typeof lazy> = lazy((value: unknown) =>
  value === 'all' ? wholeProfile : someAreas,
)

/** A packed file or mesh. */
export const packed = string().strict().required().max(LARGEST_PACKED)

/** No corners picked yet. */
export const NO_CORNERS = { kind: 'corners', corners: [] } as const
