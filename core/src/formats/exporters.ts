import {
  drawingOf,
  drawSheet,
  drawSheets,
  NOTHING_SEEN,
  type Page,
  type SeenLines,
} from '../drawing'
import type { Part } from '../part'
import { planCsvRows, planReport } from '../plan'
import { fail, succeed, type Result } from '../result'
import type { PartState } from '../route'
import { writeCsv } from './csv'
import { writeDrawingSvg } from './drawingSvg'
import { writeGlb } from './glb'
import { writePartFile } from './partFile'
import { writeSectionSvg } from './sectionSvg'
import { writeSizes } from './sizesCsv'
import { meshedBodies, needsKernel, type BuiltGeometry } from './solids'
import { writeStep } from './step'
import { writeStl } from './stl'
import { write3mf } from './threeMf'

/** What a file is made with. */
export interface ExportSettings {
  /** How far triangles may lie from the surface, in mm. */
  readonly tolerance: number
  /** Whether threads are cut into triangles; plain where this is left out. */
  readonly cutsThreads?: boolean
  /** What the kernel sees of parts that are no full turn, for their sheets. */
  readonly seen?: SeenLines
  /** The exporter’s pages as PDF: its writer is loaded only where it is wanted. */
  readonly pdf?: Uint8Array
  /** The time that is written into files that tell one. */
  readonly at: Date
  /** What the solid kernel built, for parts that are no full turn. */
  readonly built?: BuiltGeometry
}

/** A kind of file a part is handed over as. */
export interface Exporter {
  /** As the command line calls it. */
  readonly id: string
  readonly name: string
  readonly extension: string
  readonly type: string
  /** One sentence: what it holds and for whom. */
  readonly about: string
  /** True where triangles stand for surfaces, within a tolerance. */
  readonly triangles: boolean
  /** What of a part goes into it: its document, its section, or its solids. */
  readonly of: 'document' | 'section' | 'solids'
  /** Whether it is drawn: it takes what the kernel sees. */
  readonly drawn?: true
  /** What goes into a PDF, which is made of it first: see `pdf`. */
  readonly pages?: (state: PartState, seen: SeenLines, at: Date) => PagesToWrite
  readonly write: (state: PartState, settings: ExportSettings) => Result<string | Uint8Array>
}

/** Pages of a PDF, and what their reader should know. */
export interface PagesToWrite {
  readonly pages: readonly Page[]
  readonly told: readonly string[]
}

/** A PDF of pages, as soon as it was made of them. */
const asPdf: Exporter['write'] = (state, { pdf }) => {
  if (!drawSheet(state)) return nothing(state)
  return pdf
    ? succeed(pdf)
    : fail('export.pdf', 'The pages are not drawn yet.', 'Try again in a moment.')
}

/** All sheets of a part, with gaps where nothing stands on one. */
const sheetsIn = (state: PartState, seen: SeenLines) =>
  drawingOf(state.part).sheets.map((_, i) => drawSheet(state, seen, i))

/** Why a part has nothing to hand over. */
const nothing = ({ bodies }: PartState): Result<never> =>
  bodies.some((b) => b.reference && (b.mesh || b.section.regions.length > 0))
    ? fail(
        'export.nothing',
        'Only what is to go by is there, and that is not handed over.',
        'Revolve a profile, or let a body be no reference.',
      )
    : fail(
        'export.nothing',
        'Nothing is turned yet, so there is nothing to export.',
        'Revolve a profile.',
      )

const notBuilt = (): Result<never> =>
  fail('export.kernel', 'The solid is not built yet.', 'Wait until it is, and try again.')

/** An exporter of the triangles of all bodies. */
const ofTriangles =
  (write: (bodies: ReturnType<typeof meshedBodies>, part: Part) => Uint8Array): Exporter['write'] =>
  (state, { tolerance, built, cutsThreads }) => {
    if (needsKernel(state) && !built) return notBuilt()
    const bodies = meshedBodies(state, tolerance, built, cutsThreads)
    return bodies.length === 0 ? nothing(state) : succeed(write(bodies, state.part))
  }

/** Every kind of file, in the order it is offered. */
export const EXPORTERS: readonly Exporter[] = [
  {
    ...{ id: 'json', name: 'Part file', extension: 'lathica.json', type: 'application/json' },
    about:
      'Everything: profiles with their constraints and sizes, values, materials, the route and the inspection sheet. It opens here again, and the command line reads it.',
    ...{ triangles: false, of: 'document' },
    write: ({ part }) => succeed(writePartFile(part)),
  },
  {
    ...{ id: 'step', name: 'STEP, ISO 10303', extension: 'step', type: 'model/step' },
    about:
      'Exact solids for other programs: true planes, cylinders, cones, spheres and tori, in mm, the axis along Z; every body with its name and colour, and volume, area and centre to check by.',
    ...{ triangles: false, of: 'solids' },
    write: (state, { at, built }) => {
      if (needsKernel(state) && !built) return notBuilt()
      const text = built?.step ?? writeStep(state, at)
      return text === undefined ? nothing(state) : succeed(text)
    },
  },
  {
    ...{ id: 'pdf', name: 'Sheet, PDF', extension: 'pdf', type: 'application/pdf' },
    about:
      'The drawing for the workshop, in true size, a page for each sheet: lines and text as such, with the fonts inside.',
    ...{ triangles: false, of: 'section', drawn: true },
    pages: (state, seen) => {
      const pages = drawSheets(state, seen)
      return { pages, told: pages.flatMap((p) => p.told) }
    },
    write: asPdf,
  },
  {
    ...{ id: 'sheet', name: 'Sheet, SVG', extension: 'sheet.svg', type: 'image/svg+xml' },
    about:
      'The same drawing as a picture of lines, for documents and pages; every size is a group with its name. Of several sheets it is the first.',
    ...{ triangles: false, of: 'section', drawn: true },
    write: (state, { seen }) => {
      const drawing = drawSheet(state, seen)
      return drawing ? succeed(writeDrawingSvg(drawing, state.part.name)) : nothing(state)
    },
  },
  {
    ...{ id: 'plan', name: 'Inspection plan, CSV', extension: 'plan.csv', type: 'text/csv' },
    about:
      'Everything that the drawing asks of a piece, with limits, instruments and what was measured, for spreadsheets.',
    ...{ triangles: false, of: 'section', drawn: true },
    write: (state, { seen = NOTHING_SEEN }) =>
      drawSheet(state)
        ? succeed(writeCsv(planCsvRows(state, sheetsIn(state, seen))))
        : nothing(state),
  },
  {
    ...{ id: 'report', name: 'Inspection report, PDF', extension: 'report.pdf' },
    ...{ type: 'application/pdf' },
    about: 'The same on paper, with what is out of its limits in frames.',
    ...{ triangles: false, of: 'section', drawn: true },
    pages: (state, seen, at) => {
      const drawings = sheetsIn(state, seen)
      const isDrawn = drawings.some((d) => d !== undefined)
      return {
        pages: isDrawn ? planReport(state, drawings, at.toISOString().slice(0, 10)) : [],
        told: [],
      }
    },
    write: asPdf,
  },
  {
    ...{ id: 'svg', name: 'Section, SVG', extension: 'svg', type: 'image/svg+xml' },
    about:
      'A drawing for documents and cutters: the section through the axis and the view from the right, in mm, with true arcs and curves.',
    ...{ triangles: false, of: 'section' },
    write: (state) => {
      const text = writeSectionSvg(state)
      return text === undefined ? nothing(state) : succeed(text)
    },
  },
  {
    ...{ id: 'csv', name: 'Sizes, CSV', extension: 'csv', type: 'text/csv' },
    about:
      'A table of all named values and sizes of profiles: what was typed, and what it comes to.',
    ...{ triangles: false, of: 'document' },
    write: (state) => {
      const text = writeSizes(state)
      return text === undefined
        ? fail('export.nothing', 'There are no sizes and values yet.', 'Give the profile a size.')
        : succeed(text)
    },
  },
  {
    ...{ id: '3mf', name: '3MF', extension: '3mf', type: 'model/3mf' },
    about: 'Watertight triangles for printing, in mm, with names and colours.',
    ...{ triangles: true, of: 'solids' },
    write: ofTriangles((bodies, part) => write3mf(bodies, part.name)),
  },
  {
    ...{ id: 'stl', name: 'STL, binary', extension: 'stl', type: 'model/stl' },
    about: 'Triangles for printing and viewing, in mm, the axis along Z.',
    ...{ triangles: true, of: 'solids' },
    write: ofTriangles((bodies, part) =>
      writeStl(
        bodies.map((b) => b.mesh),
        part.name,
      ),
    ),
  },
  {
    ...{ id: 'glb', name: 'glTF, binary', extension: 'glb', type: 'model/gltf-binary' },
    about: 'A picture in space for viewers and web pages: names, colours and surfaces, in metres.',
    ...{ triangles: true, of: 'solids' },
    write: ofTriangles((bodies, part) => writeGlb(bodies, part.name, part.lie)),
  },
]
