import { realText } from './text'

/** The numbered instances of an exchange file. */
export class StepData {
  readonly lines: string[] = []
  private readonly known = new Map<string, string>()

  /** Adds an instance and returns the reference to it. */
  add(text: string): string {
    const id = `#${this.lines.length + 1}`
    this.lines.push(`${id}=${text};`)
    return id
  }

  /** The same for what many refer to: equal ones are written once. */
  shared(text: string): string {
    const known = this.known.get(text)
    if (known !== undefined) return known
    const id = this.add(text)
    this.known.set(text, id)
    return id
  }

  point(x: number, y: number, z: number): string {
    return this.shared(`CARTESIAN_POINT('',(${[x, y, z].map(realText).join(',')}))`)
  }

  direction(x: number, y: number, z: number): string {
    return this.shared(`DIRECTION('',(${[x, y, z].map(realText).join(',')}))`)
  }

  /** A place on the axis with Z along the axis, or against it. */
  placement(axial: number, way: 1 | -1 = 1): string {
    const parts = [this.point(0, 0, axial), this.direction(0, 0, way), this.direction(1, 0, 0)]
    return this.shared(`AXIS2_PLACEMENT_3D('',${parts.join(',')})`)
  }
}
