/** What a size is measured with. */

/** What kind of place is measured. */
export type Place = 'outer' | 'inner' | 'depth' | 'length' | 'radius' | 'other'

/**
 * An instrument is proposed whose reading is at most a tenth of the tolerance, the plainest first: a sliding caliper
 * that reads 0.02 mm, a micrometer that reads 0.001 mm; what is closer is compared with gauge blocks.
 * @param band from the lower limit to the upper one, in mm; undefined where there are none
 */
export function instrumentForLength(place: Place, band: number | undefined): string {
  const wide = band === undefined || band >= 10 * CALIPER
  const fine = band !== undefined && band < 10 * MICROMETER
  const [plain, close, closest] = TOOLS[place]
  return wide ? plain : fine ? closest : close
}

/** What they read, in mm. */
const CALIPER = 0.02
const MICROMETER = 0.001

const TOOLS: Readonly<Record<Place, readonly [string, string, string]>> = {
  outer: ['caliper', 'micrometer', 'comparator, gauge blocks'],
  inner: ['caliper', 'bore gauge', 'air gauge, setting ring'],
  depth: ['depth caliper', 'depth micrometer', 'comparator, gauge blocks'],
  length: ['caliper', 'micrometer', 'comparator, gauge blocks'],
  radius: ['radius gauges', 'contour tester', 'contour tester'],
  other: ['caliper', 'measuring machine', 'measuring machine'],
}

/** A bevel protractor reads five minutes; what is closer takes a sine bar. @param band in radians */
export const instrumentForAngle = (band: number | undefined): string =>
  band === undefined || band >= (50 / 60) * (Math.PI / 180)
    ? 'bevel protractor'
    : 'sine bar, dial gauge'
