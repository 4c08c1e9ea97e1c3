import { strToU8, zipSync } from 'fflate'
import { welded } from '../mesh'
import type { MeshedBody } from './solids'

const TYPES = `<?xml version="1.0" encoding="UTF-8"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`

const RELATIONS = `<?xml version="1.0" encoding="UTF-8"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="model" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`

/**
 * Bodies as 3MF (3MF Core Specification 1.3): triangles in mm with a name and a colour each, the
 * axis along Z.
 */
export function write3mf(bodies: readonly MeshedBody[], title: string): Uint8Array {
  const materials = bodies.map(
    ({ name, colour }) =>
      `<base name="${escaped(name)}" displaycolor="${colour.toUpperCase()}FF"/>`,
  )
  const objects = bodies.map((body, i) => objectOf(body, i))
  const items = bodies.map((_, i) => `<item objectid="${i + 2}"/>`)
  const model = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">',
    `<metadata name="Title">${escaped(title)}</metadata>`,
    '<metadata name="Application">Lathica</metadata>',
    `<resources><basematerials id="1">${materials.join('')}</basematerials>`,
    ...objects,
    `</resources><build>${items.join('')}</build></model>`,
  ].join('\n')
  return zipSync({
    '[Content_Types].xml': strToU8(TYPES),
    '_rels/.rels': strToU8(RELATIONS),
    '3D/3dmodel.model': strToU8(model),
  })
}

function objectOf({ name, mesh }: MeshedBody, number: number): string {
  const { positions, indices } = welded(mesh)
  const lines = [
    `<object id="${number + 2}" type="model" name="${escaped(name)}" pid="1" pindex="${number}"><mesh><vertices>`,
  ]
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = positions.slice(i, i + 3).map((v) => Number(v.toFixed(6)))
    lines.push(`<vertex x="${x}" y="${y}" z="${z}"/>`)
  }
  lines.push('</vertices><triangles>')
  for (let i = 0; i < indices.length; i += 3) {
    lines.push(`<triangle v1="${indices[i]}" v2="${indices[i + 1]}" v3="${indices[i + 2]}"/>`)
  }
  lines.push('</triangles></mesh></object>')
  return lines.join('\n')
}

function escaped(text: string): string {
  return text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
}
