import { describe, expect, it } from 'vitest'
import {
  EMPTY_SECTION,
  METRIC,
  SECTION_ID,
  addRevolve,
  addStep,
  changeStep,
  cornersOf,
  edgesOf,
  faceWords,
  lostCorners,
  offeredGroove,
  removeStep,
  AXIS_ID,
  ORIGIN_ID,
  addSize,
  addSketch,
  changeSize,
  createPart,
  describeItem,
  drawChain,
  drawPiece,
  evaluate,
  linesOf,
  locator,
  perform,
  readPartFile,
  removeItems,
  startDrag,
  withDragged,
  writePartFile,
  type End,
  type Part,
  type Sketch,
  type Vec,
} from '../src'
import { must } from './support/parts'

const FIRST = 'sketch2'
const end = (x: number, y: number): End => ({ at: { x, y } })

/** The nth profile of a part. */
function nth(part: Part, n: number): Sketch {
  const sketch = part.sketches[n]
  if (!sketch) throw new Error(`there is no profile ${n}`)
  return sketch
}

/** A pin with its diameter and length, and an empty second profile. */
function pin(): Part {
  const drawn = must(
    createPart({ name: 'Float rod' }),
    drawChain(
      FIRST,
      [
        { at: { x: 0, y: 0 }, point: ORIGIN_ID },
        end(0, 10),
        end(40, 10),
        { at: { x: 40, y: 0 }, on: [AXIS_ID] },
      ],
      [['radial'], ['axial'], ['radial']],
    ),
  )
  const land = linesOf(nth(drawn, 0))[1]
  if (!land) throw new Error('a land is drawn')
  return must(
    drawn,
    addSize(FIRST, { kind: 'length', line: land.id }, '40'),
    addSize(FIRST, { kind: 'diameter', point: land.from }, '20'),
    addSketch(),
  )
}

/** Where the nth point of the second profile stands. */
function second(part: Part, n: number): Vec {
  const sketch = nth(part, 1)
  return locator(sketch)(sketch.points[n]?.id ?? '')
}

describe('links between profiles', () => {
  /** A collar drawn on the pin's right corner, outwards. */
  function collar(): Part {
    const part = pin()
    const corner = linesOf(nth(part, 0))[1]?.to ?? ''
    return must(
      part,
      drawPiece({
        sketch: nth(part, 1).id,
        from: { at: { x: 40, y: 10 }, link: { profile: FIRST, item: corner } },
        to: end(40, 25),
        role: 'outline',
        directions: ['radial'],
      }),
    )
  }

  it('keep a point on a corner when that moves', () => {
    const part = collar()
    expect(second(part, 0)).toMatchObject({ x: 40, y: 10 })
    const [length, diameter] = nth(part, 0).sizes
    const longer = must(
      part,
      changeSize(FIRST, length?.id ?? '', '55'),
      changeSize(FIRST, diameter?.id ?? '', '30'),
    )
    expect(second(longer, 0)).toMatchObject({ x: expect.closeTo(55, 9), y: expect.closeTo(15, 9) })
    expect(second(longer, 1).x).toBeCloseTo(55, 9)
    expect(evaluate(longer).sketches.get(nth(longer, 1).id)?.lostLinks).toEqual([])
  })

  it('follow while the other profile is dragged', () => {
    const part = must(collar(), removeItems(FIRST, [nth(collar(), 0).sizes[1]?.id ?? '']))
    const corner = linesOf(nth(part, 0))[1]?.to ?? ''
    const session = startDrag(nth(part, 0), new Map([[nth(part, 0).sizes[0]?.id ?? '', 40]]), [
      corner,
    ])
    const dragged = withDragged(part, FIRST, session.move({ x: 0, y: 3 }))
    expect(second(dragged, 0).y).toBeCloseTo(13, 8)
  })

  it('lay a point on an edge, which is drawn along for construction, once for all', () => {
    const part = pin()
    const land = linesOf(nth(part, 0))[1]
    const link = { profile: FIRST, item: land?.id ?? '' }
    const { id } = nth(part, 1)
    const piece = { sketch: id, role: 'outline' as const }
    const tied = must(
      part,
      drawPiece({ ...piece, from: { at: { x: 12, y: 10 }, link }, to: end(12, 20) }),
      drawPiece({ ...piece, from: { at: { x: 20, y: 10 }, link }, to: end(20, 20) }),
    )
    const along = nth(tied, 1).entities.filter((e) => e.role === 'construction')
    expect(along).toHaveLength(1)
    const wider = must(tied, changeSize(FIRST, nth(tied, 0).sizes[1]?.id ?? '', '26'))
    const outlines = linesOf(nth(wider, 1)).filter((l) => l.role === 'outline')
    const locate = locator(nth(wider, 1))
    for (const l of outlines) expect(locate(l.from).y).toBeCloseTo(13, 8)
  })

  it('keep their place when the source goes, and say so', () => {
    const part = collar()
    const gone = must(
      part,
      removeItems(
        FIRST,
        nth(part, 0).entities.map((e) => e.id),
      ),
    )
    expect(second(gone, 0)).toMatchObject({ x: 40, y: 10 })
    const lost = evaluate(gone).sketches.get(nth(gone, 1).id)?.lostLinks ?? []
    expect(lost).toHaveLength(1)
    const freed = must(gone, removeItems(nth(gone, 1).id, lost))
    expect(evaluate(freed).sketches.get(nth(freed, 1).id)?.lostLinks).toEqual([])
  })

  it('are kept in the file and told in words', () => {
    const part = collar()
    const read = readPartFile(writePartFile(part))
    if (!read.ok) throw new Error(read.problem.message)
    expect(read.value.sketches).toEqual(part.sketches)
    const link = nth(part, 1).constraints.find((c) => c.kind === 'linked')
    if (!link) throw new Error('a link is made')
    expect(describeItem(nth(part, 1), link)).toBe('point 1 on a corner of another profile')
  })

  it('to what is not there leave a free point', () => {
    const part = pin()
    const made = perform(
      part,
      drawPiece({
        sketch: nth(part, 1).id,
        from: { at: { x: 5, y: 5 }, link: { profile: 'nowhere', item: 'p1' } },
        to: end(9, 9),
        role: 'outline',
      }),
    )
    expect(made.ok && nth(made.value, 1).constraints).toEqual([])
  })

  /** A pin with a groove, and a second profile from the groove's near lip to its floor's edge. */
  function onGroove(): Part {
    const turned = must(pin(), addRevolve(FIRST))
    const [body] = evaluate(turned).bodies
    const land = edgesOf(body?.section ?? EMPTY_SECTION).find(
      (e) => faceWords(e, METRIC) === 'cylinder ⌀20',
    )
    if (!land) throw new Error('no land')
    const grooved = must(turned, addStep(offeredGroove('body1', land, 'rectangular', METRIC)))
    const corners = cornersOf(evaluate(grooved).bodies[0]?.section ?? EMPTY_SECTION)
    const lip = corners.find((c) => c.key.includes('near') && c.turn > 0)
    const bottom = corners.find((c) => c.key.includes('near') && c.turn < 0)
    if (!lip || !bottom) throw new Error('no groove')
    const floor = corners.find((c) => c.key.includes('far') && c.turn < 0) ?? bottom
    return must(
      grooved,
      drawPiece({
        sketch: nth(grooved, 1).id,
        from: { at: lip.at, link: { profile: SECTION_ID, item: lip.key } },
        to: {
          at: { x: (bottom.at.x + floor.at.x) / 2, y: bottom.at.y },
          link: { profile: SECTION_ID, item: 'floor', between: [bottom, floor] },
        },
        role: 'outline',
      }),
    )
  }

  it('follow corners and edges that a groove has left', () => {
    const part = onGroove()
    const [, groove] = part.route
    const deeper = must(
      part,
      changeStep(groove?.id ?? '', (s) =>
        s.kind === 'groove' ? { ...s, sizes: { ...s.sizes, width: '6', depth: '4' } } : s,
      ),
    )
    const line = linesOf(nth(deeper, 1)).find((l) => l.role === 'outline')
    const locate = locator(nth(deeper, 1))
    expect(locate(line?.from ?? '').x).toBeCloseTo(17, 8)
    expect(locate(line?.to ?? '').y).toBeCloseTo(6, 8)
    const read = readPartFile(writePartFile(deeper))
    expect(read.ok && read.value.sketches).toEqual(deeper.sketches)
    // Without the groove they keep their places and say that they are lost.
    const gone = must(deeper, removeStep(groove?.id ?? ''))
    expect(lostCorners(gone, evaluate(gone), nth(gone, 1))).toHaveLength(3)
    expect(locator(nth(gone, 1))(line?.from ?? '').x).toBeCloseTo(17, 8)
  })
})
