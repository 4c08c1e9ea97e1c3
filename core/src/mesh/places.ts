/** Places by number: equal ones have the same, in the order they came. Nought has no sign. */
export class Places {
  private at = new Float32Array(3 * 64)
  private size = 0
  /** Numbers and 1 where a place was put, found by its digits; a power of two of them. */
  private slots = new Int32Array(256)
  private readonly floats = new Float32Array(3)
  private readonly digits = new Int32Array(this.floats.buffer)

  get count(): number {
    return this.size
  }

  /** x, y and z of all places, one after another; no copy. */
  get positions(): Float32Array {
    return this.at.subarray(0, 3 * this.size)
  }

  /** The number of a place, which it gets where it has none. */
  numberOf(x: number, y: number, z: number): number {
    this.floats[0] = x + 0
    this.floats[1] = y + 0
    this.floats[2] = z + 0
    const [px = 0, py = 0, pz = 0] = this.floats
    const last = this.slots.length - 1
    let slot = this.hash() & last
    for (let known = this.slots[slot]; known; known = this.slots[slot]) {
      const i = 3 * (known - 1)
      if (this.at[i] === px && this.at[i + 1] === py && this.at[i + 2] === pz) return known - 1
      slot = (slot + 1) & last
    }
    this.slots[slot] = this.put(px, py, pz) + 1
    if (2 * this.size > this.slots.length) this.widen()
    return this.size - 1
  }

  private put(x: number, y: number, z: number): number {
    const i = 3 * this.size
    if (i === this.at.length) {
      const more = new Float32Array(2 * i)
      more.set(this.at)
      this.at = more
    }
    this.at[i] = x
    this.at[i + 1] = y
    this.at[i + 2] = z
    return this.size++
  }

  private widen(): void {
    const last = 2 * this.slots.length - 1
    this.slots = new Int32Array(last + 1)
    for (let n = 0; n < this.size; n++) {
      this.floats.set(this.at.subarray(3 * n, 3 * n + 3))
      let slot = this.hash() & last
      while (this.slots[slot]) slot = (slot + 1) & last
      this.slots[slot] = n + 1
    }
  }

  /** Mixes the digits of the place that was put down last. */
  private hash(): number {
    const [a = 0, b = 0, c = 0] = this.digits
    let h = Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca77) ^ Math.imul(c, 0xc2b2ae3d)
    h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d)
    return h ^ (h >>> 13)
  }
}
