import type { Place } from '../../geometry'
import { Instances } from './instances'
import { realText } from './text'

/** What whoever reads a solid may compare theirs with: in mm³, mm² and mm. */
export interface Bulk {
  readonly volume: number
  readonly area: number
  readonly centre: Place
}

/**
 * An exchange file with volume, surface and centre of its products, as properties by which a reader can tell whether it
 * has read them as they were meant (geometric validation properties, by the entities of ISO 10303-41 and -43).
 * @param text with lengths in mm
 * @param bulkOf what the product of a name has; of others nothing is added
 */
export function withValidation(
  text: string,
  bulkOf: (product: string) => Bulk | undefined,
): string {
  const file = new Instances(text)
  const lines: string[] = []
  let last = file.largest()
  const add = (instance: string): string => {
    last += 1
    lines.push(`#${last}=${instance};`)
    return `#${last}`
  }
  for (const id of file.called('SHAPE_DEFINITION_REPRESENTATION')) {
    const [shape, representation] = file.refs(id)
    if (shape === undefined || representation === undefined) continue
    if (!file.of(representation).startsWith('ADVANCED_BREP')) continue
    const bulk = bulkOf(file.productOf(shape))
    const context = file.refs(representation).at(-1)
    const length =
      context === undefined
        ? undefined
        : file.refs(context).find((u) => file.of(u).includes('LENGTH_UNIT'))
    if (bulk && context !== undefined && length !== undefined) {
      properties(add, bulk, `#${shape}`, `#${context}`, `#${length}`)
    }
  }
  const end = text.lastIndexOf('ENDSEC;')
  return lines.length === 0 || end < 0
    ? text
    : `${text.slice(0, end)}${lines.join('\n')}\n${text.slice(end)}`
}

function properties(
  add: (instance: string) => string,
  { volume, area, centre }: Bulk,
  shape: string,
  context: string,
  length: string,
): void {
  const measured = (kind: 'VOLUME' | 'AREA', value: number, name: string): string => {
    const unit = add(`DERIVED_UNIT_ELEMENT(${length},${kind === 'VOLUME' ? '3.' : '2.'})`)
    const whole = add(`DERIVED_UNIT((${unit}))`)
    return add(
      `MEASURE_REPRESENTATION_ITEM('${name}',${kind}_MEASURE(${realText(value)}),${whole})`,
    )
  }
  const told: readonly (readonly [string, string])[] = [
    ['volume', measured('VOLUME', volume, 'volume measure')],
    ['surface area', measured('AREA', area, 'surface area measure')],
    [
      'centroid',
      add(
        `CARTESIAN_POINT('centre point',(${[centre.x, centre.y, centre.z].map(realText).join(',')}))`,
      ),
    ],
  ]
  for (const [name, item] of told) {
    const property = add(`PROPERTY_DEFINITION('geometric validation property','${name}',${shape})`)
    const value = add(`REPRESENTATION('${name}',(${item}),${context})`)
    add(`PROPERTY_DEFINITION_REPRESENTATION(${property},${value})`)
  }
}
