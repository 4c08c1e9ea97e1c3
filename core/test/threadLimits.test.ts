import { describe, expect, test } from 'vitest'
import {
  CENTRE_PILOTS,
  centreHole,
  centreWords,
  generalForm,
  readThread,
  threadLimits,
  undercutFor,
} from '@lathica/core/standards'

const limits = (callout: string, side: 'outside' | 'inside' = 'outside') => {
  const found = readThread(callout)
  if (!found.ok) throw new Error(found.problem.message)
  return threadLimits(found.value, side)
}
const wide = (of: { readonly least: number | undefined; readonly greatest: number | undefined }) =>
  Math.round(((of.greatest ?? 0) - (of.least ?? 0)) * 1000)

/** Tolerances of the pitch diameter in µm as ISO 965-1, Tables 4 and 5 print them, typed by themselves. */
const OUTSIDE = `
  M1.6 4:40 5:50 6:63; M2 4:42 5:53 6:67; M3 3:38 4:48 5:60 6:75 7:95; M4 3:45 4:56 5:71 6:90 7:112;
  M5 3:48 4:60 5:75 6:95 7:118 8:150 9:190; M6 3:56 4:71 5:90 6:112 7:140 8:180 9:224; M8x0.75 4:63 5:80 6:100 7:125;
  M8 3:60 4:75 5:95 6:118 7:150 8:190 9:236; M10 3:67 4:85 5:106 6:132 7:170 8:212 9:265; M12x1 4:75 5:95 6:118 7:150;
  M12x1.25 3:67 4:85 5:106 6:132 7:170; M16x1.5 3:71 4:90 5:112 6:140 7:180 8:224 9:280;
  M12 3:75 4:95 5:118 6:150 7:190 8:236 9:300; M16 3:80 4:100 5:125 6:160 7:200 8:250 9:315;
  M20 3:85 4:106 5:132 6:170 7:212 8:265 9:335; M24x1 4:80 5:100 6:125 7:160; M30x1.5 4:95 5:118 6:150 7:190;
  M24x2 4:106 5:132 6:170 7:212; M24 3:100 4:125 5:160 6:200 7:250 8:315 9:400; M30 4:132 5:170 6:212 7:265;
  M36 4:140 5:180 6:224 7:280; M42 4:150 5:190 6:236 7:300; M48x1.5 4:100 5:125 6:160 7:200; M48 4:160 5:200 6:250;
  M64 3:140 4:180 5:224 6:280 7:355
`
const INSIDE = `
  M3 4:63 5:80 6:100 7:125; M4 4:75 5:95 6:118 7:150; M5 4:80 5:100 6:125 7:160 8:200; M6 4:95 5:118 6:150 7:190 8:236;
  M8 4:100 5:125 6:160 7:200 8:250; M10 4:112 5:140 6:180 7:224 8:280; M12x1 4:100 5:125 6:160 7:200;
  M16x1.5 4:118 5:150 6:190 7:236 8:300; M12 4:125 5:160 6:200 7:250 8:315; M16 4:132 5:170 6:212 7:265 8:335;
  M20 4:140 5:180 6:224 7:280 8:355; M24 4:170 5:212 6:265 7:335 8:425; M24x2 4:140 5:180 6:224 7:280
`
const rowsOf = (text: string) =>
  text
    .trim()
    .split(/;\s*/)
    .map((row) => {
      const [callout = '', ...grades] = row.trim().split(/\s+/)
      return { callout, grades: grades.map((g) => g.split(':')) }
    })

describe('limits of metric threads, ISO 965-1', () => {
  test.each(rowsOf(OUTSIDE))('pitch diameter outside: $callout', ({ callout, grades }) => {
    for (const [g = '', um] of grades) {
      const crest = Number(g) <= 5 ? 4 : Number(g) >= 8 ? (callout === 'M3' ? 6 : 8) : 6
      const found = limits(`${callout}-${g}h${crest}h`)
      expect(found && wide(found.pitch), `${callout}-${g}h`).toBe(Number(um))
      expect(found?.pitch.greatest).toBeCloseTo(limits(`${callout}-6h`)?.pitch.greatest ?? 0, 9)
    }
  })

  test.each(rowsOf(INSIDE))('pitch diameter inside: $callout', ({ callout, grades }) => {
    for (const [g = '', um] of grades) {
      const found = limits(`${callout}-${g}H${Math.min(Number(g), 6)}H`, 'inside')
      expect(found && wide(found.pitch), `${callout}-${g}H`).toBe(Number(um))
    }
  })

  /** As ISO 965-2 and -4 list them whole: largest and smallest major, pitch and minor diameters. */
  test('the limits of usual threads', () => {
    const outside = (callout: string) => {
      const l = limits(callout)
      return [l?.major.greatest, l?.major.least, l?.pitch.greatest, l?.pitch.least].map((v) =>
        Number(v?.toFixed(3)),
      )
    }
    expect(outside('M6-6g')).toEqual([5.974, 5.794, 5.324, 5.212])
    expect(outside('M10-6g')).toEqual([9.968, 9.732, 8.994, 8.862])
    expect(outside('M16x1.5-6g')).toEqual([15.968, 15.732, 14.994, 14.854])
    expect(outside('M20-6g')).toEqual([19.958, 19.623, 18.334, 18.164])
    const inside = (callout: string) => {
      const l = limits(callout, 'inside')
      return [l?.pitch.greatest, l?.pitch.least, l?.minor.greatest, l?.minor.least].map((v) =>
        Number(v?.toFixed(3)),
      )
    }
    expect(inside('M6-6H')).toEqual([5.5, 5.35, 5.153, 4.917])
    expect(inside('M10-6H')).toEqual([9.206, 9.026, 8.676, 8.376])
    expect(inside('M16-6H')).toEqual([14.913, 14.701, 14.21, 13.835])
    // A class is of pitch diameter and crest; where none is written it is the medium one.
    expect(limits('M10-5g6g')?.major).toEqual(limits('M10-6g')?.major)
    expect(wide(limits('M10-5g6g')?.pitch ?? { least: 0, greatest: 0 })).toBe(106)
    expect(limits('M10')).toEqual(limits('M10-6g'))
    expect(limits('M10', 'inside')).toEqual(limits('M10-6H', 'inside'))
  })

  test('what the tables leave out has no limits', () => {
    expect(limits('M3-8h')).toBeUndefined()
    expect(limits('M10-5h')).toBeUndefined()
    expect(limits('M1')).toBeUndefined()
    expect(limits('M10-6H', 'outside')).toBeUndefined()
    expect(limits('G 1/2 A')).toBeUndefined()
    expect(limits('M20xPh3P1.5-6g')).toBeUndefined()
  })

  /** The second way: the formulas of clause 13 against what was typed, which rounds by a step at times. */
  test('deviations and tolerances of crests are near their formulas', () => {
    const step = 10 ** (1 / 40)
    for (const callout of ['M2x0.25', 'M1.6', 'M3', 'M4', 'M5', 'M6', 'M8', 'M10', 'M12', 'M16']) {
      const read = readThread(callout)
      if (!read.ok) continue
      const p = read.value.pitch
      const major = wide(limits(`${callout}-6g`)?.major ?? { least: 0, greatest: 0 })
      const formula = 180 * Math.cbrt(p * p) - 3.15 / Math.sqrt(p)
      expect(Math.abs(Math.log(major / formula)) / Math.log(step)).toBeLessThan(1.2)
      const minor = limits(`${callout}-5H`, 'inside')?.minor
      const inner = 0.8 * (p < 1 ? 433 * p - 190 * p ** 1.22 : 230 * p ** 0.7)
      const steps = Math.log(wide(minor ?? { least: 0, greatest: 0 }) / inner) / Math.log(step)
      expect(Math.abs(steps)).toBeLessThan(1.6)
      const off = (read.value.major - (limits(`${callout}-6g`)?.major.greatest ?? 0)) * 1000
      expect(Math.abs(off - (15 + 11 * p))).toBeLessThan(1.5)
    }
  })
})

describe('what goes with a thread or an end', () => {
  test('undercuts are three pitches wide, and slope by 30° to their least width (ISO 4755)', () => {
    for (const pitch of [0.25, 0.5, 0.8, 1, 1.25, 1.5, 1.75, 2, 2.5, 3, 3.5, 4, 4.5, 5, 6]) {
      const cut = undercutFor(pitch)
      expect(cut?.width).toBeCloseTo(3 * pitch, 9)
      const slope = (cut?.below ?? 0) / 2 / Math.tan(Math.PI / 6)
      expect(Math.abs((cut?.width ?? 0) - (cut?.least ?? 0) - slope)).toBeLessThan(0.2)
    }
    expect(undercutFor(5.5)).toBeUndefined()
  })

  test('undercuts clear the thread: they lie below its root', () => {
    for (const callout of ['M6', 'M10', 'M16x1.5', 'M20', 'M36']) {
      const read = readThread(callout)
      if (!read.ok) continue
      const { pitch, major, root } = read.value
      expect(major - (undercutFor(pitch)?.below ?? 0)).toBeLessThan(root)
    }
  })

  /** Depths of the cones as the tables print them: type A (ISO 866) and type B (ISO 2540). */
  test('centre holes: the cones are as deep as the tables say', () => {
    const A = [0.97, 1.21, 1.52, 1.95, 2.42, 3.07, 3.9, 4.85, 5.98, 7.79, 9.7]
    const B = [1.27, 1.6, 1.99, 2.54, 3.2, 4.03, 5.05, 6.41, 7.36, 9.36, 11.66]
    CENTRE_PILOTS.forEach((pilot, i) => {
      const hole = centreHole(pilot)
      if (!hole) throw new Error(`${pilot}`)
      const cone = (hole.cone - pilot) / 2 / Math.tan(Math.PI / 6)
      const guard = (hole.guard - hole.cone) / 2 / Math.tan(Math.PI / 3)
      expect(Math.abs(cone - (A[i] ?? 0))).toBeLessThan(0.011)
      expect(Math.abs(cone + guard - (B[i] ?? 0))).toBeLessThan(0.012)
    })
    const [small] = [centreHole(2.5)]
    expect(small && centreWords('B', small)).toBe('ISO 6411 - B 2.5/8')
    expect(small && centreWords('R', small)).toBe('ISO 6411 - R 2.5/5.3')
  })

  test('general tolerances of form (ISO 2768-2)', () => {
    expect(generalForm('H', 'flatness', 80)).toBe(0.1)
    expect(generalForm('K', 'flatness', 10)).toBe(0.05)
    expect(generalForm('L', 'perpendicularity', 100.5)).toBe(1)
    expect(generalForm('K', 'symmetry', 400)).toBe(0.8)
    expect(generalForm('H', 'runOut', 5)).toBe(0.1)
    expect(generalForm('H', 'flatness', 4000)).toBeUndefined()
  })
})
