/**
 * Lettering (ISO 3098-1:2015): heights of capitals in mm. The typeface is one of constant spacing, so that what a text is
 * wide is known without the font.
 */

/** Capitals of the typeface are so many of its em high, and every character is so many wide. */
export const CAPITAL = 0.698
const ADVANCE = 0.6

/** How far one character goes, for a height of capitals of 1. */
export const CHARACTER = ADVANCE / CAPITAL

/** How far a text goes in mm. */
export const widthOf = (text: string, height: number): number =>
  [...text].length * CHARACTER * height

/** Words in lines of so many characters at most, broken between them; a longer word stands by itself. */
export function wrapped(words: string, most: number): string[] {
  const lines: string[] = []
  for (const word of words.split(/\s+/)) {
    const joined = `${lines.at(-1) ?? ''} ${word}`
    if (lines.length > 0 && [...joined].length <= most) lines[lines.length - 1] = joined
    else lines.push(word)
  }
  return lines
}

/** As much of a text as is so wide, in mm, with a mark where it is cut. */
export function shortened(text: string, width: number, height: number): string {
  const most = Math.floor(width / (height * CHARACTER) + 1e-9)
  const letters = [...text]
  return letters.length > most ? `${letters.slice(0, most - 1).join('')}…` : text
}

/**
 * Signs that are drawn, as strokes in a box as high as a capital and one character wide, y upwards (ISO 129-1:2018, Table 1;
 * ISO 15786:2008): they stand in no common font.
 */
export const SIGNS: Readonly<Record<string, readonly SignStroke[]>> = {
  '⌀': [
    { kind: 'circle', at: [0.43, 0.5], radius: 0.36 },
    {
      kind: 'line',
      points: [
        [0.1, -0.02],
        [0.76, 1.02],
      ],
    },
  ],
  '□': [
    {
      kind: 'line',
      points: [
        [0.08, 0],
        [0.78, 0],
        [0.78, 0.7],
        [0.08, 0.7],
        [0.08, 0],
      ],
    },
  ],
  '⌒': [{ kind: 'bow', from: [0.06, 0.45], to: [0.8, 0.45], over: 0.75 }],
  '⌴': [
    {
      kind: 'line',
      points: [
        [0.06, 0.7],
        [0.06, 0.05],
        [0.8, 0.05],
        [0.8, 0.7],
      ],
    },
  ],
  '⌵': [
    {
      kind: 'line',
      points: [
        [0.06, 0.7],
        [0.43, 0.05],
        [0.8, 0.7],
      ],
    },
  ],
  '↧': [
    {
      kind: 'line',
      points: [
        [0.1, 0.95],
        [0.76, 0.95],
      ],
    },
    {
      kind: 'line',
      points: [
        [0.43, 0.95],
        [0.43, 0],
      ],
    },
    {
      kind: 'line',
      points: [
        [0.25, 0.3],
        [0.43, 0],
        [0.61, 0.3],
      ],
    },
  ],
  'Ⓔ': circled(
    [
      [0.58, 0.75],
      [0.3, 0.75],
      [0.3, 0.25],
      [0.58, 0.25],
    ],
    [
      [0.3, 0.5],
      [0.54, 0.5],
    ],
  ),
  'Ⓜ': circled([
    [0.23, 0.27],
    [0.23, 0.73],
    [0.43, 0.45],
    [0.63, 0.73],
    [0.63, 0.27],
  ]),
  'Ⓛ': circled([
    [0.33, 0.77],
    [0.33, 0.25],
    [0.58, 0.25],
  ]),
  'Ⓟ': circled([
    [0.33, 0.22],
    [0.33, 0.77],
    [0.5, 0.77],
    [0.58, 0.64],
    [0.5, 0.5],
    [0.33, 0.5],
  ]),
}

export type SignStroke =
  | { readonly kind: 'line'; readonly points: readonly (readonly [number, number])[] }
  | { readonly kind: 'circle'; readonly at: readonly [number, number]; readonly radius: number }
  /** Half an ellipse or less, from one point over a height to another. */
  | {
      readonly kind: 'bow'
      readonly from: readonly [number, number]
      readonly to: readonly [number, number]
      readonly over: number
    }

function circled(...lines: (readonly (readonly [number, number])[])[]): SignStroke[] {
  return [
    { kind: 'circle', at: [0.43, 0.5], radius: 0.43 },
    ...lines.map((points) => ({ kind: 'line' as const, points })),
  ]
}

export const isSign = (character: string): boolean => Object.hasOwn(SIGNS, character)

/** What is shown for a sign where only plain characters can stand. */
export const PLAIN_SIGNS: Readonly<Record<string, string>> = {
  ...{ '⌀': 'Ø', '□': 'SQ', '⌒': 'arc', '⌴': 'cbore', '⌵': 'csk', '↧': 'deep' },
  ...{ 'Ⓔ': '(E)', 'Ⓜ': '(M)', 'Ⓛ': '(L)', 'Ⓟ': '(P)' },
}
