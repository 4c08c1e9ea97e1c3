import { describe, expect, it } from 'vitest'
import {
  copyMark,
  cornerName,
  edgeCalled,
  edgeOfPlace,
  edgesOfCorner,
  edgesToggled,
  faceInStep,
  faceName,
  faceOfOtherStep,
  idsInName,
  isCornerName,
  isFaceName,
  isFaceOf,
  meetingKey,
  numbered,
  placeName,
  pointCalled,
  pointName,
  poleName,
  stepOfFace,
  stretchKey,
  wholeKey,
  withoutCopy,
} from '../src'

const wall = faceName('step7', 'wall')

describe('the name of a face', () => {
  it('is its step and what it is there, as files have it', () => {
    expect(wall).toBe('step7/wall')
    expect([stepOfFace(wall), faceInStep(wall)]).toEqual(['step7', 'wall'])
    expect([stepOfFace('sketch2.p5'), faceInStep('sketch2.p5')]).toEqual(['', ''])
    expect([isFaceName(wall), isFaceName('sketch2.p5')]).toEqual([true, false])
  })

  it('belongs to its own step, and to none whose id begins the same way', () => {
    expect(['step7', 'step70', 'step', 'wall'].filter((id) => isFaceOf(id, wall))).toEqual([
      'step7',
    ])
    expect(isFaceOf('step7', 'step12/in(step7/wall)')).toBe(false)
  })

  it('of a copy tells the first by what stands before the mark', () => {
    const third = `${wall}${copyMark(3)}`
    expect(third).toBe('step7/wall@3')
    expect([withoutCopy(third), withoutCopy(wall), faceInStep(third)]).toEqual([wall, wall, 'wall'])
    // A copy of a copy has two marks.
    const again = `${third}${copyMark('step9', 2)}`
    expect(again).toBe('step7/wall@3@step9.2')
    expect(withoutCopy(again)).toBe(wall)
  })

  it('as done by another step keeps what it is', () => {
    expect(faceOfOtherStep(`${wall}@2`, 'step7', 'step12')).toBe('step12/wall@2')
    expect(faceOfOtherStep(wall, 'step1', 'step12')).toBe(wall)
  })
})

describe('the name of a corner', () => {
  const [one, two] = ['step1/e3', 'step1/e4']

  it('is that of its two edges, whichever is told first', () => {
    expect(cornerName(one, two)).toBe('step1/e3|step1/e4')
    expect(cornerName(two, one)).toBe(cornerName(one, two))
    expect(edgesOfCorner(cornerName(two, one))).toEqual([one, two])
    expect([isCornerName(cornerName(one, two)), isCornerName(one)]).toEqual([true, false])
  })

  it('has a number from the second of its name on', () => {
    const corner = cornerName(one, two)
    expect([1, 2, 13].map((n) => numbered(corner, n))).toEqual([
      corner,
      `${corner}#2`,
      `${corner}#13`,
    ])
    expect(edgesOfCorner(numbered(corner, 13))).toEqual([one, two])
    // Only the number at the end is one.
    expect(edgesOfCorner(cornerName('a/x#2y', 'b/e1'))).toEqual(['a/x#2y', 'b/e1'])
  })

  it('on the axis is that of its one edge', () => {
    expect(poleName(one)).toBe('step1/e3|axis')
    expect(isCornerName(poleName(one))).toBe(true)
  })
})

describe('the name of a place', () => {
  it('is the edge it tells part of, and words', () => {
    expect(placeName('step1/e3', 'centre')).toBe('step1/e3:centre')
    expect(placeName('step1', 'path', 2, 'from')).toBe('step1:path:2:from')
    expect(edgeOfPlace('step1/e3:centre')).toBe('step1/e3')
    expect(edgeOfPlace('step1:path:2:from')).toBe('step1:path:2')
    expect(edgeOfPlace(':centre')).toBe('')
    expect(edgeOfPlace('step1/e3')).toBeUndefined()
  })

  it('of a sketch’s point is both ids', () => {
    expect(pointName('sketch2', 'p5')).toBe('sketch2.p5')
    expect(pointCalled('sketch2.p5')).toEqual({ sketch: 'sketch2', point: 'p5' })
    expect(pointCalled('sketch2')).toEqual({ sketch: 'sketch2', point: '' })
  })

  it('falls apart into the ids in it, each whole', () => {
    expect(idsInName('step12/in(step7/wall+step1/e_3)@step-9.2')).toEqual([
      ...['step12', 'in', 'step7', 'wall', 'step1', 'e_3', 'step-9', '2'],
    ])
  })
})

describe('the name of an edge of the solid', () => {
  const edge = meetingKey('step7/wall', 'base/e1')

  it('is that of the two faces that meet, whichever is told first', () => {
    expect(meetingKey('step7/wall', 'base/e1')).toBe('base/e1&step7/wall')
    expect(meetingKey('base/e1', 'step7/wall')).toBe('base/e1&step7/wall')
    expect(edgeCalled(edge)).toEqual({ faces: ['base/e1', 'step7/wall'] })
    expect(edgeCalled('base/e1')).toBeUndefined()
    expect(edgeCalled('a/b&c/d&e/f')).toBeUndefined()
  })

  it('has a number for one stretch of it', () => {
    expect(stretchKey(edge, 2)).toBe(`${edge}#2`)
    expect(edgeCalled(stretchKey(edge, 2))).toEqual({
      faces: ['base/e1', 'step7/wall'],
      stretch: 2,
    })
    expect([wholeKey(stretchKey(edge, 2)), wholeKey(edge)]).toEqual([edge, edge])
  })

  it('stands for all stretches, and takes their place when all are chosen', () => {
    const all = [1, 2, 3].map((n) => stretchKey(edge, n))
    const [first = '', second = '', third = ''] = all
    expect(edgesToggled(['other/a&b/c'], edge, all)).toEqual(['other/a&b/c', edge])
    expect(edgesToggled([edge], edge, all)).toEqual([])
    expect(edgesToggled([edge], second, all)).toEqual([first, third])
    expect(edgesToggled([first, third], second, all)).toEqual([edge])
    expect(edgesToggled([first], first, all)).toEqual([])
    expect(edgesToggled([first], first, [])).toEqual([])
    expect(edgesToggled(['a/b&c/d', first], second, all)).toEqual(['a/b&c/d', first, second])
    // Of one stretch only there is nothing but the whole.
    expect(edgesToggled([], edge, [])).toEqual([edge])
  })
})
