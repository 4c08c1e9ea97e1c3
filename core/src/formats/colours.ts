/** The three tones of a colour told as #rrggbb, from 0 to 1. */
export const tonesOf = (colour: string): readonly [number, number, number] => [
  parseInt(colour.slice(1, 3), 16) / 255,
  parseInt(colour.slice(3, 5), 16) / 255,
  parseInt(colour.slice(5, 7), 16) / 255,
]

/** The same as linear light, as files of pictures and the solid kernel keep it (IEC 61966-2-1). */
export const lightOf = (colour: string): readonly [number, number, number] => {
  const [r, g, b] = tonesOf(colour).map((tone) =>
    tone <= 0.04045 ? tone / 12.92 : ((tone + 0.055) / 1.055) ** 2.4,
  )
  return [r ?? 0, g ?? 0, b ?? 0]
}
