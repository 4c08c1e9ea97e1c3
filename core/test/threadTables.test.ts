import { describe, expect, test } from 'vitest'
import { readThread, threadsFor, type Thread } from '@lathica/core/standards'

const thread = (text: string): Thread => {
  const found = readThread(text)
  if (!found.ok) throw new Error(`${text}: ${found.problem.message}`)
  return found.value
}
const refusal = (text: string): string => {
  const found = readThread(text)
  return found.ok ? found.value.words : `${found.problem.code} ${found.problem.message}`
}

/**
 * As the standards print them, typed by themselves: pitch diameter, minor diameter and root in mm (ISO 724), stress area
 * in mm² (ISO 898-1) and the drill (ISO 2306).
 */
const METRIC = `
  M1.6 1.373 1.221 1.171 1.27 1.25; M2 1.740 1.567 1.509 2.07 1.6; M2.5 2.208 2.013 1.948 3.39 2.05;
  M3 2.675 2.459 2.387 5.03 2.5; M3.5 3.110 2.850 2.764 6.78 2.9; M4 3.545 3.242 3.141 8.78 3.3;
  M5 4.480 4.134 4.019 14.2 4.2; M6 5.350 4.917 4.773 20.1 5; M8 7.188 6.647 6.466 36.6 6.8;
  M10 9.026 8.376 8.160 58.0 8.5; M12 10.863 10.106 9.853 84.3 10.2; M14 12.701 11.835 11.546 115 12;
  M16 14.701 13.835 13.546 157 14; M18 16.376 15.294 14.933 192 15.5; M20 18.376 17.294 16.933 245 17.5;
  M22 20.376 19.294 18.933 303 19.5; M24 22.051 20.752 20.319 353 21; M27 25.051 23.752 23.319 459 24;
  M30 27.727 26.211 25.706 561 26.5; M33 30.727 29.211 28.706 694 29.5; M36 33.402 31.670 31.093 817 32;
  M39 36.402 34.670 34.093 976 35; M42 39.077 37.129 36.479 1121 37.5; M48 44.752 42.587 41.866 1473 43;
  M56 52.428 50.046 49.252 2030 50.5; M64 60.103 57.505 56.639 2676 58;
  M8x1 7.350 6.917 6.773 39.2 7; M10x1 9.350 8.917 8.773 64.5 9; M10x1.25 9.188 8.647 8.466 61.2 8.8;
  M12x1.5 11.026 10.376 10.160 88.1 10.5; M12x1.25 11.188 10.647 10.466 92.1 10.8; M16x1.5 15.026 14.376 14.160 167 14.5;
  M20x1.5 19.026 18.376 18.160 272 18.5; M24x2 22.701 21.835 21.546 384 22; M30x2 28.701 27.835 27.546 621 28;
  M36x3 34.051 32.752 32.319 865 33
`

describe('threads of the standards', () => {
  test.each(METRIC.trim().split(/;\s*/))('%s', (row) => {
    const [words = '', ...figures] = row.trim().split(/\s+/)
    const t = thread(words)
    const [pitch, minor, root, area = 0, drill] = figures.map(Number)
    expect([t.pitchDiameter, t.minor, t.root].map((v) => Number(v.toFixed(3)))).toEqual([
      pitch,
      minor,
      root,
    ])
    // Areas are printed to three figures.
    expect(Math.abs((t.stressArea ?? 0) / area - 1)).toBeLessThan(0.006)
    expect(t.drill).toBe(drill)
  })

  test('pipe threads: ISO 228-1, Table 1', () => {
    const rows: readonly [string, number, number, number, number][] = [
      ['G 1/8', 0.907, 9.147, 8.566, 9.728],
      ['G 1/4', 1.337, 12.301, 11.445, 13.157],
      ['G 3/8', 1.337, 15.806, 14.95, 16.662],
      ['G 1/2', 1.814, 19.793, 18.631, 20.955],
      ['G 3/4', 1.814, 25.279, 24.117, 26.441],
      ['G 1', 2.309, 31.77, 30.291, 33.249],
      ['G 1 1/4', 2.309, 40.431, 38.952, 41.91],
      ['G 1 1/2', 2.309, 46.324, 44.845, 47.803],
      ['G 2', 2.309, 58.135, 56.656, 59.614],
      ['G 3', 2.309, 86.405, 84.926, 87.884],
      ['G 4', 2.309, 111.551, 110.072, 113.03],
    ]
    for (const [words, pitch, pitchDiameter, minor, major] of rows) {
      const t = thread(words)
      const told = [t.pitch, t.pitchDiameter, t.minor, t.major].map((v) => Number(v.toFixed(3)))
      expect([words, ...told]).toEqual([words, pitch, pitchDiameter, minor, major])
    }
  })

  test('unified threads: ASME B1.1, stress areas in square inches', () => {
    const rows: readonly [string, number, number][] = [
      ['#6-32 UNC', 0.138, 0.00909],
      ['#10-24 UNC', 0.19, 0.0175],
      ['#10-32 UNF', 0.19, 0.02],
      ['1/4-20 UNC', 0.25, 0.0318],
      ['1/4-28 UNF', 0.25, 0.0364],
      ['3/8-16 UNC', 0.375, 0.0775],
      ['1/2-13 UNC', 0.5, 0.1419],
      ['1/2-20 UNF', 0.5, 0.1599],
      ['5/8-11 UNC', 0.625, 0.226],
      ['3/4-10 UNC', 0.75, 0.334],
      ['1-8 UNC', 1, 0.606],
      ['1-12 UNF', 1, 0.663],
      ['1 1/2-6 UNC', 1.5, 1.405],
      ['2-4.5 UNC', 2, 2.5],
    ]
    for (const [words, major, area] of rows) {
      const t = thread(words)
      expect(t.major / 25.4).toBeCloseTo(major, 9)
      expect(Math.abs((t.stressArea ?? 0) / 25.4 ** 2 / area - 1)).toBeLessThan(0.004)
    }
    // The pitch diameter of 1/2-13: 0.4500 in, of 1/4-20: 0.2175 in.
    expect(thread('1/2-13 UNC').pitchDiameter / 25.4).toBeCloseTo(0.45, 4)
    expect(thread('1/4-20 UNC-2A').pitchDiameter / 25.4).toBeCloseTo(0.2175, 4)
  })

  test('trapezoidal threads: ISO 2904', () => {
    const rows: readonly [string, number, number, number][] = [
      ['Tr 8x1.5', 7.25, 6.2, 6.5],
      ['Tr 16x4', 14, 11.5, 12],
      ['Tr 24x5', 21.5, 18.5, 19],
      ['Tr 40x7', 36.5, 32, 33],
      ['Tr 60x9', 55.5, 50, 51],
      ['Tr 100x20', 90, 78, 80],
    ]
    for (const [words, pitchDiameter, root, minor] of rows) {
      const t = thread(words)
      expect([words, t.pitchDiameter, t.root, t.minor]).toEqual([words, pitchDiameter, root, minor])
    }
  })
})

describe('a callout is read whole', () => {
  test.each([
    ['M16x1.5 - 6g LH', 'M16×1.5-6g LH'],
    ['m16', 'M16'],
    ['M16x2', 'M16×2'],
    ['M16 × 1,5-5g6g', 'M16×1.5-5g6g'],
    ['M12-6H', 'M12-6H'],
    ['M20xPh3P1.5', 'M20×Ph3P1.5'],
    ['1/2-13 UNC-2A', '1/2-13 UNC-2A'],
    ['1/2 UNC', '1/2-13 UNC'],
    ['#10-32 UNF-2B', '#10-32 UNF-2B'],
    ['1-1/4-7 UNC-2A LH', '1 1/4-7 UNC-2A LH'],
    ['G 3/4 A', 'G 3/4 A'],
    ['G1 1/2', 'G 1 1/2'],
    ['Tr 24 x 5', 'Tr 24×5'],
    ['Tr40x14(P7)LH', 'Tr 40×14(P7) LH'],
    ['Tr 40x14(P7) LH-7e', 'Tr 40×14(P7)-7e LH'],
  ])('%s', (text, words) => {
    expect(thread(text).words).toBe(words)
  })

  test('starts, lead, hand and side', () => {
    expect(thread('Tr 40x14(P7) LH-7e')).toMatchObject({
      ...{ starts: 2, lead: 14, pitch: 7, left: true, side: 'outside' },
    })
    expect(thread('M20xPh3P1.5')).toMatchObject({ starts: 2, lead: 3, pitch: 1.5, left: false })
    expect(thread('M12-6H').side).toBe('inside')
    expect(thread('M12').side).toBeUndefined()
  })

  test.each([
    ['', 'thread.empty'],
    ['W 1/2', 'thread.form “W”'],
    ['M1000', 'thread.size ISO 261 has no M1000.'],
    ['M16.2', 'thread.size ISO 261 has no M16.2.'],
    ['M16x3', 'thread.pitch ISO 261 has no M16 with a pitch of 3 mm.'],
    ['M16x1.5-6q', 'thread.word “6q” cannot be read here.'],
    ['M16-6gH', 'thread.word “6gH”'],
    ['M16-1g', 'thread.word “1g”'],
    ['M20xPh4P1.5', 'thread.lead A lead of 4 mm'],
    ['1/2-14 UNC', 'thread.pitch “14”'],
    ['1/2-13 UNX', 'thread.word “UNX”'],
    ['11/16 UNC', 'thread.size ASME B1.1 has no 11/16 UNC.'],
    ['1/2-13 UNC-4A', 'thread.word “4A”'],
    ['G 5/16', 'thread.size ISO 228 has no G 5/16.'],
    ['G 1/2 C', 'thread.word “C”'],
    ['Tr 24', 'thread.pitch A trapezoidal thread'],
    ['Tr 24x6', 'thread.pitch ISO 2902 has no Tr 24'],
    ['Tr 23x5', 'thread.size'],
  ])('%s is refused: %s', (text, said) => {
    expect(refusal(text)).toContain(said)
  })

  test('what fits a land is offered', () => {
    expect(threadsFor(16, 'outside')).toEqual(['M16', 'M16x1.5', 'M16x1', 'Tr 16x4', 'Tr 16x2'])
    expect(threadsFor(20.955, 'outside')).toEqual(['G 1/2 A'])
    expect(threadsFor(12.7, 'outside')).toEqual(['1/2-13 UNC', '1/2-20 UNF', '1/2-28 UNEF'])
    expect(threadsFor(8.4, 'inside')).toEqual(['M10', '3/8-24 UNF'])
    expect(threadsFor(15.37, 'outside')).toEqual([])
  })
})
