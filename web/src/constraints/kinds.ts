import type { Constraint } from '@lathica/core/sketch'

/** How a kind of constraint is shown: its sign beside the drawing, and its place on the pad. */
interface ConstraintLooks {
  /** Its icon: strokes on 20 × 20. */
  readonly icon: string
  /** Its key, name and help on the pad; absent where a tool makes it. */
  readonly pad?: {
    readonly key: string
    readonly label: string
    readonly help: string
    /** Its name and help in a sketch across the axis, where they are something else. */
    readonly across?: { readonly label: string; readonly help: string }
  }
}

type Kind = Constraint['kind']

/** Every kind of constraint, in the order of the pad. */
export const CONSTRAINT_LOOKS: Readonly<Record<Kind, ConstraintLooks>> = {
  axial: {
    icon: 'M3 6h14M2 13h4M8.500 13h3M14 13h4',
    pad: {
      key: 'w',
      label: 'Axial',
      help: 'Lines run along the axis.',
      across: { label: 'Level', help: 'Lines run level.' },
    },
  },
  radial: {
    icon: 'M10 2.500v10M2 16h4M8.500 16h3M14 16h4',
    pad: {
      key: 'e',
      label: 'Radial',
      help: 'Lines run square to the axis.',
      across: { label: 'Upright', help: 'Lines stand upright.' },
    },
  },
  parallel: {
    icon: 'M5 16L9.500 4M10.500 16L15 4',
    pad: { key: 'r', label: 'Parallel', help: 'Lines run in the direction of the first.' },
  },
  perpendicular: {
    icon: 'M3 16h14M10 16V4M10 12.500h3.500V16',
    pad: { key: 't', label: 'Perpendicular', help: 'Lines stand square to the first.' },
  },
  equal: {
    icon: 'M4 7.500h12M4 12.500h12',
    pad: { key: 'a', label: 'Equal', help: 'Lines are as long as the first, or arcs as round.' },
  },
  coincident: {
    icon: 'M3 16l6-6M17 4l-6 6M10 8.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600z',
    pad: { key: 'd', label: 'Meet', help: 'Points become one: coincident.' },
  },
  pointOn: {
    icon: 'M2.500 15L17.500 7M10 9.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600z',
    pad: {
      key: 'f',
      label: 'On curve',
      help: 'Points lie on a line, an arc or the axis; lines become collinear.',
      across: { label: 'On curve', help: 'Points lie on a line, an arc or the level centre line.' },
    },
  },
  fixed: {
    icon: 'M10 4v7M6 11h8M6 11l-2 4M10 11l-2 4M14 11l-2 4M10 2.400a1.600 1.600 0 1 1 0 3.200 1.600 1.600 0 0 1 0-3.200z',
    pad: { key: 'g', label: 'Fixed', help: 'Points stay where they are.' },
  },
  inLine: {
    icon: 'M2.500 10h3M8.500 10h3M14.500 10h3M4 6.500v7M16 6.500v7',
    pad: {
      key: 'z',
      label: 'In line',
      help: 'Points stand in line, along the axis or square to it.',
      across: { label: 'In line', help: 'Points stand in line, level or upright.' },
    },
  },
  symmetric: {
    icon: 'M10 2.500v4M10 8.500v3M10 13.500v4M4 7l3 3-3 3M16 7l-3 3 3 3',
    pad: {
      key: 'x',
      label: 'Symmetric',
      help: 'Two points or curves mirror one another about a line or a point.',
    },
  },
  midpoint: {
    icon: 'M2.500 15L17.500 5M2.500 12v3.500h3.500M17.500 8V5h-3.500M10 8.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600z',
    pad: { key: 'c', label: 'Midpoint', help: 'A point lies in the middle of a line.' },
  },
  tangent: {
    icon: 'M2 15.500h16M10 4.500a5.500 5.500 0 1 1 0 11 5.500 5.500 0 0 1 0-11z',
    pad: { key: 'v', label: 'Tangent', help: 'Curves touch, or go on from one another smoothly.' },
  },
  curvature: {
    icon: 'M2 16.500h3.500M5.500 16.500C12 16.500 15.500 12 15.500 4M8 13v-3M11.500 11L10 8.500M14 8l-2.500-1.200',
  },
  concentric: {
    icon: 'M10 3a7 7 0 1 1 0 14 7 7 0 0 1 0-14zM10 7a3 3 0 1 1 0 6 3 3 0 0 1 0-6z',
    pad: { key: 'b', label: 'Concentric', help: 'Arcs and circles have one centre.' },
  },
  linked: {
    icon: 'M8.500 11.500a3 3 0 0 1 0-4.200l2-2a3 3 0 0 1 4.200 4.200l-1 1M11.500 8.500a3 3 0 0 1 0 4.200l-2 2a3 3 0 0 1-4.200-4.200l1-1',
  },
  repeat: {
    icon: 'M2 15l1.500-6L6 15l1.500-6L10 15l1.500-6L14 15l1.500-6L18 15M4 4.500h12M13.500 2.500l2.500 2-2.500 2',
  },
}

const KINDS = Object.keys(CONSTRAINT_LOOKS) as Kind[]

/** The icons of constraints by kind. */
export const CONSTRAINT_ICONS = Object.fromEntries(
  KINDS.map((kind) => [kind, CONSTRAINT_LOOKS[kind].icon]),
) as Readonly<Record<Kind, string>>

/** The kinds on the pad. */
export const PAD_CONSTRAINTS = KINDS.flatMap((kind) => {
  const { pad } = CONSTRAINT_LOOKS[kind]
  return pad ? [{ kind, ...pad }] : []
})
