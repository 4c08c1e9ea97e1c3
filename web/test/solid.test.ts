// @vitest-environment jsdom
import { ORIGIN_ID } from '@lathica/core/sketch'
import { edgesOf, type Section } from '@lathica/core/section'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { perform, addRevolve, drawDraft, steppedShaft, type Command } from '@lathica/core/edit'
import { Mesh, Ray, Triangle, Vector3, type BufferGeometry } from 'three'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { capsOf, cutSpec, isCutAway, planesOf, type CutSpec } from '../src/solid/cutting'
import { nearestHit } from '../src/solid/picking'
import { refWords, viewWords } from '../src/solid/words'
import { DISPLAYS, useLookStore } from '../src/store/look'

function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(result.problem.message)
    return result.value
  }, part)
}

/** ⌀40 × 20 and ⌀20 × 30 from the datum on. */
function spindle(): Part {
  const start = createPart({ name: 'Spindle' })
  const id = start.sketches[0]?.id ?? ''
  const pairs = [
    [40, 20],
    [20, 30],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const shaft = steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, pairs)
  return run(start, drawDraft('draw', id, shaft), addRevolve(id))
}
const part = spindle()
const section: Section = evaluate(part).bodies[0]?.section ?? { regions: [] }
const bodies = [{ id: 'body1', section, chord: 0.01 }]
const ray = (x: number, y: number, z: number, dx: number, dy: number, dz: number): Ray =>
  new Ray(new Vector3(x, y, z), new Vector3(dx, dy, dz))

describe('a cut', () => {
  const specs: CutSpec[] = [
    cutSpec('half', 'lying', 0),
    cutSpec('quarter', 'lying', 0),
    cutSpec('half', 'standing', 0),
    cutSpec('quarter', 'standing', 0),
    cutSpec('across', 'lying', 25),
    cutSpec('beside', 'lying', 3),
    cutSpec('beside', 'standing', -4),
    cutSpec('aslant', 'lying', 20, 0.5),
    cutSpec('aslant', 'standing', 12, 1.2),
  ]

  it('takes away what lies behind all its planes, and nothing else', () => {
    for (const spec of specs) {
      const planes = planesOf(spec)
      for (let i = 0; i < 60; i++) {
        const angle = 0.013 + i * 0.41
        const axial = (i * 7) % 50
        const place = new Vector3(9 * Math.cos(angle), 9 * Math.sin(angle), axial)
        const behind = planes.every((p) => p.distanceToPoint(place) < 0)
        expect(isCutAway(spec, angle, axial, 9), `${JSON.stringify(spec)} ${i}`).toBe(behind)
      }
    }
  })

  it('takes half or a quarter of a turn, on the side of the viewer', () => {
    const share = (spec: CutSpec): number => {
      const all = Array.from({ length: 360 }, (_, i) => ((i + 0.5) * Math.PI) / 180)
      return all.filter((a) => isCutAway(spec, a, 0, 9)).length / 360
    }
    expect(specs.slice(0, 4).map(share)).toEqual([0.5, 0.25, 0.5, 0.25])
    // A lying part is seen from y of its model, a standing one from −y.
    expect(isCutAway(cutSpec('half', 'lying', 0), Math.PI / 2, 0, 9)).toBe(true)
    expect(isCutAway(cutSpec('half', 'standing', 0), -Math.PI / 2, 0, 9)).toBe(true)
  })
})

describe('the cut faces', () => {
  // Hatches are drawn on a canvas, which this test's document has none of.
  beforeEach(() => {
    vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null)
  })
  const tones = { face: '#fff', line: '#000', edge: '#000' }
  const bar = ring(0, 10, 200)
  const areaOf = (spec: CutSpec): number => {
    let area = 0
    for (const item of capsOf(bar, spec, 4, false, tones).children) {
      if (!(item instanceof Mesh)) continue
      const { geometry } = item as Mesh<BufferGeometry>
      const [places, index] = [geometry.getAttribute('position'), geometry.getIndex()]
      const corner = (i: number): Vector3 =>
        new Vector3().fromBufferAttribute(places, index?.getX(i) ?? i).applyMatrix4(item.matrix)
      for (let i = 0; i < (index?.count ?? 0); i += 3) {
        area += new Triangle(corner(i), corner(i + 1), corner(i + 2)).getArea()
      }
    }
    return area
  }

  it('of a bar are strips beside the axis and an ellipse aslant', () => {
    expect(areaOf(cutSpec('half', 'lying', 0))).toBeCloseTo(20 * 200, 6)
    expect(areaOf(cutSpec('beside', 'lying', 6))).toBeCloseTo(16 * 200, 6)
    const tilt = 0.6
    const ellipse = Math.PI * 10 * (10 / Math.sin(tilt))
    const found = areaOf(cutSpec('aslant', 'standing', 100, tilt))
    // Chords within the ellipse.
    expect(found / ellipse).toBeLessThan(1)
    expect(found / ellipse).toBeGreaterThan(0.998)
  })

  it('lie in the plane that cuts', () => {
    const spec = cutSpec('aslant', 'lying', 60, 0.9)
    const [plane] = planesOf(spec)
    for (const item of capsOf(bar, spec, 4, false, tones).children) {
      if (!(item instanceof Mesh)) continue
      const places = (item as Mesh<BufferGeometry>).geometry.getAttribute('position')
      for (let i = 0; i < places.count; i++) {
        const at = new Vector3().fromBufferAttribute(places, i).applyMatrix4(item.matrix)
        expect(plane?.distanceToPoint(at)).toBeCloseTo(0, 4)
      }
    }
  })
})

describe('what lies under the pointer', () => {
  it('is the surface nearest to the eye', () => {
    const hit = nearestHit(bodies, ray(0, 100, 10, 0, -1, 0), undefined)
    expect(hit).toMatchObject({ body: 'body1', t: 80, at: { x: 10, y: 20 } })
    expect(nearestHit(bodies, ray(30, 100, 10, 0, -1, 0), undefined)).toBeUndefined()
    // What lies behind the eye is not seen.
    expect(nearestHit(bodies, ray(0, -100, 10, 0, -1, 0), undefined)).toBeUndefined()
  })

  it('is a cut face where the surface before it is cut away', () => {
    const cut = cutSpec('half', 'lying', 0)
    const face = nearestHit(bodies, ray(5, 100, 10, 0, -1, 0), cut)
    expect(face?.t).toBeCloseTo(100, 9)
    expect(face?.at.x).toBeCloseTo(10, 9)
    expect(face?.at.y).toBeCloseTo(5, 9)
    // Below the axis it is the other half of the cut.
    expect(nearestHit(bodies, ray(-5, 100, 10, 0, -1, 0), cut)?.at.y).toBeCloseTo(5, 9)
    // From behind nothing is cut.
    expect(nearestHit(bodies, ray(5, -100, 10, 0, 1, 0), cut)?.at.y).toBeCloseTo(20, 9)
  })

  it('is the ring of a cut across the axis, or what is left beyond it', () => {
    const cut = cutSpec('across', 'lying', 10)
    const ring = nearestHit(bodies, ray(3, 4, 100, 0, 0, -1), cut)
    expect(ring).toMatchObject({ t: 90, at: { x: 10, y: 5 } })
    expect(nearestHit(bodies, ray(0, 100, 30, 0, -1, 0), cut)).toBeUndefined()
  })

  it('is the face of a cut beside the axis, at its own radius', () => {
    const cut = cutSpec('beside', 'lying', 12)
    // The plane lies 12 towards the viewer; 5 up on it the radius is 13.
    const face = nearestHit(bodies, ray(5, 100, 10, 0, -1, 0), cut)
    expect(face?.t).toBeCloseTo(88, 9)
    expect(face?.at.y).toBeCloseTo(13, 9)
    // The thin land does not reach the plane, and is seen whole.
    expect(nearestHit(bodies, ray(0, 100, 30, 0, -1, 0), cut)?.t).toBeCloseTo(90, 9)
  })

  it('is the face of a cut aslant, at its own radius', () => {
    const cut = cutSpec('aslant', 'lying', 10, Math.PI / 4)
    // At 2 before the place where it meets the axis the plane stands 2 towards the viewer.
    const face = nearestHit(bodies, ray(5, 100, 8, 0, -1, 0), cut)
    expect(face?.t).toBeCloseTo(98, 9)
    expect(face?.at.x).toBeCloseTo(8, 9)
    expect(face?.at.y).toBeCloseTo(Math.hypot(2, 5), 9)
  })

  it('is the body in front of others', () => {
    const both = [...bodies, { id: 'cover', section: ring(25, 30), chord: 0.01 }]
    expect(nearestHit(both, ray(0, 100, 10, 0, -1, 0), undefined)?.body).toBe('cover')
    expect(nearestHit(both, ray(0, 100, 10, 0, -1, 0), cutSpec('half', 'lying', 0))?.at.y).toBe(0)
  })
})

function ring(inner: number, outer: number, length = 20): Section {
  const corners = [
    { x: 0, y: inner },
    { x: length, y: inner },
    { x: length, y: outer },
    { x: 0, y: outer },
  ]
  const edges = corners.map((from, i) => ({
    piece: { kind: 'line' as const, from, to: corners[(i + 1) % 4] ?? from },
    name: { step: 'cover', entity: `e${i}`, role: 'made' as const },
  }))
  return { regions: [{ outer: edges, holes: [] }] }
}

describe('words of faces and views', () => {
  it('tell what a face is, how far it goes and the step it is from', () => {
    const words = edgesOf(section).map((edge) => refWords({ edge }, part))
    expect(words).toContain('cylinder ⌀40 × 20, from step 10')
    expect(words).toContain('face at 20, ⌀20–⌀40, from step 10')
    expect(words).toContain('face at 50, ⌀20, from step 10')
    expect(refWords({}, part)).toBe('')
  })

  it('call the ends of a standing part its top and bottom', () => {
    expect(viewWords('end', 'lying').words).toBe('right end')
    expect(viewWords('end', 'standing').words).toBe('upper end')
    expect(viewWords('front', 'standing').words).toBe('from the front')
  })
})

describe('how the part is looked at', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  it('goes round all displays and comes back', () => {
    const look = useLookStore()
    const seen = DISPLAYS.map(() => {
      look.nextDisplay()
      return look.display
    })
    expect(new Set(seen).size).toBe(DISPLAYS.length)
    expect(seen.at(-1)).toBe('edged')
  })

  it('takes a cut off by choosing it again, and another in its place', () => {
    const look = useLookStore()
    look.chooseCut('quarter')
    expect(look.cut).toBe('quarter')
    look.chooseCut('half')
    expect(look.cut).toBe('half')
    look.chooseCut('half')
    expect(look.cut).toBeUndefined()
    look.isCut = true
    expect(look.cut).toBe('half')
  })

  it('asks for the same view twice, and forgets bodies with the part', () => {
    const look = useLookStore()
    look.ask('front')
    const first = look.viewAsked
    look.ask('front')
    expect(look.viewAsked).not.toEqual(first)
    look.toggleGlassy('body1')
    look.toggleGlassy('body2')
    look.toggleGlassy('body1')
    expect([...look.glassy]).toEqual(['body2'])
    look.alone = 'body2'
    look.reset()
    expect([look.glassy.size, look.alone, look.cut]).toEqual([0, undefined, undefined])
  })
})
