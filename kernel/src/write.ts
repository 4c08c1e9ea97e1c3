import { encodeExchangeText, lightOf, withValidation } from '@lathica/core/formats'
import { bulkOf } from './figures'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade } from './openCascade'

interface WrittenBody {
  readonly name: string
  readonly colour: string
  readonly solid: NamedSolid
}

const FILE = '/out.step'

/**
 * Bodies with names and colours as an exchange file (ISO 10303-21, schema of ISO 10303-242), in mm: one product under
 * the part's name, or one for each body under that.
 */
export function writeStepOf(oc: OpenCascade, bodies: readonly WrittenBody[], name: string): string {
  const [only] = bodies
  const products = only && bodies.length === 1 ? [{ ...only, name }] : bodies
  return scoped((scope) => {
    const kind = scope.own(new oc.TCollection_ExtendedString('XmlOcaf', true))
    const document = scope.own(new oc.TDocStd_Document(kind))
    const shapes = scope.own(oc.XCAFDoc_DocumentTool.ShapeTool(scope.own(document.Main())))
    const colours = scope.own(oc.XCAFDoc_DocumentTool.ColorTool(scope.own(document.Main())))
    const called = (label: Label, words: string): void => {
      scope.own(
        oc.TDataStd_Name.Set(label, scope.own(new oc.TCollection_ExtendedString(words, true))),
      )
    }
    const whole = products.length > 1 ? scope.own(shapes.NewShape()) : undefined
    const here = scope.own(new oc.TopLoc_Location())
    for (const [i, body] of products.entries()) {
      const label = scope.own(shapes.AddShape(body.solid.shape, false, true))
      called(label, placeholder(i))
      const tone = scope.own(new oc.Quantity_ColorRGBA(...lightOf(body.colour), 1))
      colours.SetColor(label, tone, oc.XCAFDoc_ColorType.XCAFDoc_ColorSurf)
      if (whole) called(scope.own(shapes.AddComponent(whole, label, here)), placeholder(i))
    }
    if (whole) {
      shapes.UpdateAssemblies()
      called(whole, WHOLE)
    }
    const writer = scope.own(new oc.STEPCAFControl_Writer())
    // Known once there is a writer.
    oc.Interface_Static.SetCVal('write.step.schema', 'AP242DIS')
    writer.SetColorMode(true)
    writer.SetNameMode(true)
    const progress = scope.own(new oc.Message_ProgressRange())
    writer.Perform(document, FILE, progress)
    const text = oc.FS.readFile(FILE, { encoding: 'utf8' }) as string
    oc.FS.unlink(FILE)
    const bulks = new Map(
      products.map((b, i) => [placeholder(i), bulkOf(oc, b.solid.shape, 'refined')]),
    )
    const valid = withValidation(headed(text, name), (product) => bulks.get(product))
    const names = new Map([
      [WHOLE, name],
      ...products.map((b, i) => [placeholder(i), b.name] as const),
    ])
    return valid.replace(/'(lathica-\w+)'/g, (own, key: string) => {
      const words = names.get(key)
      return words === undefined ? own : `'${encodeExchangeText(words)}'`
    })
  })
}

/**
 * What the kernel writes instead of names, which it would encode in a way of its own: they are put in afterwards.
 */
const WHOLE = 'lathica-part'
const placeholder = (body: number): string => `lathica-body${body}`

type Label = ReturnType<InstanceType<OpenCascade['XCAFDoc_ShapeTool']>['NewShape']>

/** Puts our own name and origin into the file's head. */
function headed(text: string, name: string): string {
  const time = /FILE_NAME\('[^']*','([^']*)'/.exec(text)?.[1] ?? ''
  return text.replace(
    /FILE_NAME\([\s\S]*?\);/,
    `FILE_NAME('${encodeExchangeText(name)}','${time}',(''),(''),'Lathica','Lathica','');`,
  )
}
