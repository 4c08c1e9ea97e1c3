import { VERTEX_TOLERANCE } from '../../tolerances'
import { tonesOf } from '../colours'
import type { StepData } from './data'
import { encodeExchangeText, realText } from './text'

/** A text between the quotes of the file. */
export const quoted = (text: string): string => `'${encodeExchangeText(text)}'`

export function headOf(name: string, at: Date): string {
  const time = quoted(at.toISOString().slice(0, 19))
  return [
    'ISO-10303-21;',
    'HEADER;',
    "FILE_DESCRIPTION(('turned part'),'2;1');",
    `FILE_NAME(${quoted(name)},${time},(''),(''),'Lathica','Lathica','');`,
    "FILE_SCHEMA(('AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF { 1 0 10303 442 1 1 4 }'));",
    'ENDSEC;\n',
  ].join('\n')
}

/** A body as it goes out: its solids, and their colour as #rrggbb. */
export interface Product {
  readonly name: string
  readonly solids: readonly string[]
  readonly colour: string
}

/** A product with its definition and the shape it has. */
interface Defined {
  readonly definition: string
  readonly representation: string
  readonly placement: string
}

/** What the solids are: one product, or several under one that puts them together, each in its colour. */
export function writeProducts(file: StepData, name: string, products: readonly Product[]): void {
  const context = file.add("APPLICATION_CONTEXT('managed model based 3d engineering')")
  file.add(
    `APPLICATION_PROTOCOL_DEFINITION('international standard','ap242_managed_model_based_3d_engineering',2014,${context})`,
  )
  const contexts = {
    product: file.add(`PRODUCT_CONTEXT('',${context},'mechanical')`),
    design: file.add(`PRODUCT_DEFINITION_CONTEXT('part definition',${context},'design')`),
  }
  const space = spaceOf(file)
  const placement = file.placement(0)
  const defined = (own: string, items: readonly string[], kind: string): Defined => {
    const product = file.add(`PRODUCT(${quoted(own)},${quoted(own)},'',(${contexts.product}))`)
    file.add(`PRODUCT_RELATED_PRODUCT_CATEGORY('part','',(${product}))`)
    const formation = file.add(`PRODUCT_DEFINITION_FORMATION('','',${product})`)
    const definition = file.add(`PRODUCT_DEFINITION('','',${formation},${contexts.design})`)
    const shape = file.add(`PRODUCT_DEFINITION_SHAPE('','',${definition})`)
    const all = [placement, ...items].join(',')
    const representation = file.add(`${kind}(${quoted(own)},(${all}),${space})`)
    file.add(`SHAPE_DEFINITION_REPRESENTATION(${shape},${representation})`)
    return { definition, representation, placement }
  }
  const bodies = products.map((p) =>
    defined(p.name, p.solids, 'ADVANCED_BREP_SHAPE_REPRESENTATION'),
  )
  if (bodies.length > 1) {
    const whole = defined(name, [], 'SHAPE_REPRESENTATION')
    bodies.forEach((body, i) => writeOccurrence(file, whole, body, products[i]?.name ?? '', i + 1))
  }
  const styled = products.flatMap(({ solids, colour }) =>
    solids.map((solid) => file.add(`STYLED_ITEM('',(${styleOf(file, colour)}),${solid})`)),
  )
  file.add(
    `MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION('',(${styled.join(',')}),${space})`,
  )
}

/** A product where it stands in another: as it is, since all bodies are told in the part's own space. */
function writeOccurrence(
  file: StepData,
  whole: Defined,
  own: Defined,
  name: string,
  number: number,
): void {
  const used = file.add(
    `NEXT_ASSEMBLY_USAGE_OCCURRENCE('${number}',${quoted(name)},'',${whole.definition},${own.definition},$)`,
  )
  const placed = file.add(`PRODUCT_DEFINITION_SHAPE('','',${used})`)
  const moved = file.add(`ITEM_DEFINED_TRANSFORMATION('','',${own.placement},${whole.placement})`)
  const related = file.add(
    `(REPRESENTATION_RELATIONSHIP('','',${own.representation},${whole.representation})` +
      `REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(${moved})SHAPE_REPRESENTATION_RELATIONSHIP())`,
  )
  file.add(`CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(${related},${placed})`)
}

/** Space in mm and radians, with how near places must be to be one. */
function spaceOf(file: StepData): string {
  const length = file.add('(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))')
  const angle = file.add('(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))')
  const solid = file.add('(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())')
  const near = file.add(
    `UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(${realText(VERTEX_TOLERANCE)}),${length},'distance_accuracy_value','')`,
  )
  return file.add(
    `(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((${near}))` +
      `GLOBAL_UNIT_ASSIGNED_CONTEXT((${length},${angle},${solid}))REPRESENTATION_CONTEXT('',''))`,
  )
}

function styleOf(file: StepData, colour: string): string {
  const [r, g, b] = tonesOf(colour).map(realText)
  const tone = file.shared(`COLOUR_RGB('',${r},${g},${b})`)
  const fill = file.shared(`FILL_AREA_STYLE_COLOUR('',${tone})`)
  const area = file.shared(`FILL_AREA_STYLE('',(${fill}))`)
  const surface = file.shared(`SURFACE_STYLE_FILL_AREA(${area})`)
  const side = file.shared(`SURFACE_SIDE_STYLE('',(${surface}))`)
  const usage = file.shared(`SURFACE_STYLE_USAGE(.BOTH.,${side})`)
  return file.shared(`PRESENTATION_STYLE_ASSIGNMENT((${usage}))`)
}
