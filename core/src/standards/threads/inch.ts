/*
 * Unified inch screw threads: sizes and threads per inch of ASME B1.1-2003, Table 1, for the series UNC, UNF and UNEF;
 * their basic profile is that of ISO 68-2, the same as the metric one. Stress area on D − 0.9743 / n (Appendix B).
 * Pipe threads where pressure-tight joints are not made on the threads: ISO 228-1:2000, Table 1, with a profile of 55°.
 */

const list = (text: string): ReadonlyMap<string, number> =>
  new Map(
    text
      .trim()
      .split(/\s*;\s*/)
      .map((row) => {
        const [size = '', perInch = ''] = row.split(':')
        return [size.trim(), Number(perInch)] as const
      }),
  )

export const INCH_SERIES = ['UNC', 'UNF', 'UNEF'] as const
export type InchSeries = (typeof INCH_SERIES)[number]

/** Threads per inch by nominal size, in inches or as a numbered size. */
export const INCH: Readonly<Record<InchSeries, ReadonlyMap<string, number>>> = {
  UNC: list(`
    #1:64; #2:56; #3:48; #4:40; #5:40; #6:32; #8:32; #10:24; #12:24; 1/4:20; 5/16:18; 3/8:16; 7/16:14; 1/2:13; 9/16:12;
    5/8:11; 3/4:10; 7/8:9; 1:8; 1 1/8:7; 1 1/4:7; 1 3/8:6; 1 1/2:6; 1 3/4:5; 2:4.5; 2 1/4:4.5; 2 1/2:4; 2 3/4:4; 3:4;
    3 1/4:4; 3 1/2:4; 3 3/4:4; 4:4
  `),
  UNF: list(`
    #0:80; #1:72; #2:64; #3:56; #4:48; #5:44; #6:40; #8:36; #10:32; #12:28; 1/4:28; 5/16:24; 3/8:24; 7/16:20; 1/2:20;
    9/16:18; 5/8:18; 3/4:16; 7/8:14; 1:12; 1 1/8:12; 1 1/4:12; 1 3/8:12; 1 1/2:12
  `),
  UNEF: list(`
    #12:32; 1/4:32; 5/16:32; 3/8:32; 7/16:28; 1/2:28; 9/16:24; 5/8:24; 11/16:24; 3/4:20; 13/16:20; 7/8:20; 15/16:20;
    1:20; 1 1/16:18; 1 1/8:18; 1 3/16:18; 1 1/4:18; 1 5/16:18; 1 3/8:18; 1 7/16:18; 1 1/2:18; 1 9/16:18; 1 5/8:18;
    1 11/16:18
  `),
}

/** A nominal size in inches: `#10` is 0.060 + 10 × 0.013. */
export function inches(size: string): number {
  const number = /^#(\d+)$/.exec(size)
  if (number) return 0.06 + 0.013 * Number(number[1])
  const [, whole = '0', above = '0', below = '1'] =
    /^(?:(\d+)(?!\/))?\s*(?:(\d+)\/(\d+))?$/.exec(size) ?? []
  return Number(whole) + Number(above) / Number(below)
}

/** Pipe threads: threads per inch and major diameter in mm. */
export const PIPE: ReadonlyMap<string, readonly [perInch: number, major: number]> = new Map([
  ['1/16', [28, 7.723]],
  ['1/8', [28, 9.728]],
  ['1/4', [19, 13.157]],
  ['3/8', [19, 16.662]],
  ['1/2', [14, 20.955]],
  ['5/8', [14, 22.911]],
  ['3/4', [14, 26.441]],
  ['7/8', [14, 30.201]],
  ['1', [11, 33.249]],
  ['1 1/8', [11, 37.897]],
  ['1 1/4', [11, 41.91]],
  ['1 1/2', [11, 47.803]],
  ['1 3/4', [11, 53.746]],
  ['2', [11, 59.614]],
  ['2 1/4', [11, 65.71]],
  ['2 1/2', [11, 75.184]],
  ['2 3/4', [11, 81.534]],
  ['3', [11, 87.884]],
  ['3 1/2', [11, 100.33]],
  ['4', [11, 113.03]],
  ['4 1/2', [11, 125.73]],
  ['5', [11, 138.43]],
  ['5 1/2', [11, 151.13]],
  ['6', [11, 163.83]],
])
