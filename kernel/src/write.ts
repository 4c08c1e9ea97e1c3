import { encodeExchangeText } from '@lathica/core'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade } from './openCascade'

interface WrittenBody {
  readonly name: string
  readonly colour: string
  readonly solid: NamedSolid
}

const FILE = '/out.step'

/** Bodies with names and colours as an exchange file (ISO 10303-21), in mm. */
export function writeStepOf(oc: OpenCascade, bodies: readonly WrittenBody[], name: string): string {
  return scoped((scope) => {
    const kind = scope.own(new oc.TCollection_ExtendedString('XmlOcaf', true))
    const document = scope.own(new oc.TDocStd_Document(kind))
    const shapes = scope.own(oc.XCAFDoc_DocumentTool.ShapeTool(scope.own(document.Main())))
    const colours = scope.own(oc.XCAFDoc_DocumentTool.ColorTool(scope.own(document.Main())))
    for (const body of bodies) {
      const label = scope.own(shapes.AddShape(body.solid.shape, false, true))
      const words = scope.own(
        new oc.TCollection_ExtendedString(encodeExchangeText(body.name), true),
      )
      scope.own(oc.TDataStd_Name.Set(label, words))
      const [r = 0, g = 0, b = 0] = [1, 3, 5].map(
        (i) => parseInt(body.colour.slice(i, i + 2), 16) / 255,
      )
      const tone = scope.own(new oc.Quantity_ColorRGBA(linear(r), linear(g), linear(b), 1))
      colours.SetColor(label, tone, oc.XCAFDoc_ColorType.XCAFDoc_ColorSurf)
    }
    const writer = scope.own(new oc.STEPCAFControl_Writer())
    writer.SetColorMode(true)
    writer.SetNameMode(true)
    const progress = scope.own(new oc.Message_ProgressRange())
    writer.Perform(document, FILE, progress)
    const text = oc.FS.readFile(FILE, { encoding: 'utf8' }) as string
    oc.FS.unlink(FILE)
    return headed(text, name)
  })
}

/** The kernel keeps colours in linear light (IEC 61966-2-1). */
const linear = (share: number): number =>
  share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4

/** Puts our own name and origin into the file's head. */
function headed(text: string, name: string): string {
  const time = /FILE_NAME\('[^']*','([^']*)'/.exec(text)?.[1] ?? ''
  return text.replace(
    /FILE_NAME\([\s\S]*?\);/,
    `FILE_NAME('${encodeExchangeText(name)}','${time}',(''),(''),'Lathica','Lathica','');`,
  )
}
