import { METRIC, type UnitSettings } from '../units'
import { emptySketch } from '../sketch'
import { STOCK_MATERIALS } from './materials'
import { PART_VERSION, type Body, type Material, type Part } from './types'

export interface NewPart {
  readonly name: string
  readonly lie?: Part['lie']
  readonly units?: UnitSettings
  readonly material?: Material
}

export function newBody(id: string, name: string, material: string): Body {
  const state = { visible: true, reference: false, locked: false }
  return { id, name, material, colour: '', look: '', ...state }
}

/** A part with one body and an empty sketch, ready to be drawn. */
export function createPart({ name, lie, units, material }: NewPart): Part {
  const chosen = material ?? STOCK_MATERIALS[0]
  return {
    format: 'lathica-part',
    version: PART_VERSION,
    name,
    lie: lie ?? 'lying',
    units: units ?? METRIC,
    nextId: 3,
    values: [],
    materials: chosen ? [chosen] : [],
    bodies: [newBody('body1', 'body 1', chosen?.id ?? '')],
    sketches: [emptySketch('sketch2', 'A')],
    route: [],
    checks: [],
  }
}
