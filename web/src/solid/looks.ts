import type { Look } from '@lathica/core/part'
import {
  Color,
  DoubleSide,
  CanvasTexture,
  MeshBasicMaterial,
  MeshMatcapMaterial,
  MeshPhysicalMaterial,
  MeshStandardMaterial,
  SRGBColorSpace,
  type Material,
} from 'three'
import type { Display } from '../store/look'

/** How a surface of each kind takes the light in the studio. */
const STUDIO: Readonly<
  Record<
    Look,
    Partial<
      Pick<
        MeshPhysicalMaterial,
        | 'metalness'
        | 'roughness'
        | 'clearcoat'
        | 'transmission'
        | 'thickness'
        | 'ior'
        | 'sheen'
        | 'opacity'
        | 'envMapIntensity'
      >
    >
  >
> = {
  metal: { metalness: 0.95, roughness: 0.28, envMapIntensity: 1.1 },
  plastic: { metalness: 0, roughness: 0.38, clearcoat: 0.25 },
  glass: { metalness: 0, roughness: 0.05, clearcoat: 1, opacity: 0.42, envMapIntensity: 1.5 },
  ceramic: { metalness: 0, roughness: 0.22, clearcoat: 0.7 },
  wood: { metalness: 0, roughness: 0.72 },
  fabric: { metalness: 0, roughness: 0.95, sheen: 0.6 },
}

export interface Tones {
  readonly edge: string
  readonly paper: string
  readonly dark: boolean
}

/** Pushed a little away from the eye, so that edges on the surface are seen whole. */
const BEHIND_EDGES = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 }

/** The surface of a body in a display; none where only edges are drawn. */
export function surfaceOf(
  display: Display,
  look: Look,
  colour: string,
  glassy: boolean,
  tones: Tones,
): Material | undefined {
  if (glassy || display === 'glassy') {
    return new MeshStandardMaterial({
      ...{ color: colour, roughness: 0.4, metalness: 0.1, side: DoubleSide },
      ...{ transparent: true, opacity: 0.24, depthWrite: false },
    })
  }
  switch (display) {
    case 'edges':
      return undefined
    case 'hidden':
      return new MeshBasicMaterial({ color: tones.paper, side: DoubleSide, ...BEHIND_EDGES })
    case 'studio': {
      const glass = look === 'glass'
      return new MeshPhysicalMaterial({
        ...{ color: new Color(colour), side: DoubleSide, ...STUDIO[look] },
        ...(glass ? { transparent: true, depthWrite: false } : {}),
      })
    }
    case 'stripes':
      return new MeshMatcapMaterial({ matcap: stripes(), side: DoubleSide, ...BEHIND_EDGES })
    case 'shaded':
    case 'edged':
      return new MeshStandardMaterial({
        ...{ color: colour, side: DoubleSide, ...BEHIND_EDGES },
        ...(look === 'metal'
          ? { roughness: 0.42, metalness: 0.35 }
          : { roughness: 0.6, metalness: 0 }),
        ...(look === 'glass' ? { transparent: true, opacity: 0.5 } : {}),
      })
  }
}

let striped: CanvasTexture | undefined

/**
 * Stripes as a surface shows them that mirrors a row of lamps: where they break a face has a corner, where they bend
 * sharply its curvature jumps.
 */
function stripes(): CanvasTexture {
  if (striped) return striped
  const side = 1024
  const canvas = document.createElement('canvas')
  canvas.width = side
  canvas.height = side
  const ctx = canvas.getContext('2d')
  if (ctx) {
    ctx.fillStyle = '#f4f1e8'
    ctx.fillRect(0, 0, side, side)
    ctx.fillStyle = '#1e2a32'
    for (let i = 0; i < LAMPS; i++) {
      ctx.fillRect(0, ((i + 0.25) * side) / LAMPS, side, side / LAMPS / 2)
    }
  }
  striped = new CanvasTexture(canvas)
  striped.colorSpace = SRGBColorSpace
  return striped
}

/** How many stripes there are from one side of a ball to the other. */
const LAMPS = 14

/** How strongly edges are drawn in a display; 0 for not at all. */
export const EDGE_STRENGTH: Readonly<Record<Display, number>> = {
  shaded: 0,
  edged: 0.85,
  hidden: 1,
  edges: 1,
  glassy: 0.8,
  studio: 0,
  stripes: 0,
}
