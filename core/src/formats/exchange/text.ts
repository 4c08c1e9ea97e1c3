/**
 * A text as an exchange file has it between its quotes (ISO 10303-21:2016, clause 6.4.3): quotes and backslashes
 * doubled, what is not ASCII by its code points.
 */
export function encodeExchangeText(text: string): string {
  return [...text]
    .map((letter) => {
      const code = letter.codePointAt(0) ?? 63
      if (letter === "'" || letter === '\\') return letter + letter
      if (code >= 32 && code < 127) return letter
      const hex = code.toString(16).toUpperCase()
      return code < 0x10000
        ? `\\X2\\${hex.padStart(4, '0')}\\X0\\`
        : `\\X4\\${hex.padStart(8, '0')}\\X0\\`
    })
    .join('')
}

/** What stands for one or more letters: doubled signs, code points of two and four bytes, single bytes. */
const ENCODED =
  /''|\\\\|\\X2\\((?:[0-9A-F]{4})+)\\X0\\|\\X4\\((?:[0-9A-F]{8})+)\\X0\\|\\X\\([0-9A-F]{2})|\\S\\(.)|\\P[A-I]\\|\r?\n/gis

/** The text that stands encoded between the quotes of an exchange file. */
export function decodeExchangeText(encoded: string): string {
  return encoded.replace(
    ENCODED,
    (all: string, two?: string, four?: string, one?: string, shifted?: string) => {
      if (all === "''") return "'"
      if (all === '\\\\') return '\\'
      const hex = two ?? four ?? one
      if (hex !== undefined) {
        const digits = two !== undefined ? 4 : four !== undefined ? 8 : 2
        const codes = hex.match(new RegExp(`.{${digits}}`, 'g')) ?? []
        return codes.map((c) => letterOf(parseInt(c, 16))).join('')
      }
      // One letter of the upper half of ISO 8859-1, by that of its lower half.
      return shifted === undefined ? '' : letterOf(shifted.charCodeAt(0) + 128)
    },
  )
}

const letterOf = (code: number): string => (code <= 0x10ffff ? String.fromCodePoint(code) : '')

/** A real as the grammar of an exchange file wants it: with a point, and an exponent in capitals. */
export function realText(value: number): string {
  if (value === 0) return '0.'
  const text = String(value).toUpperCase().replace('E+', 'E')
  if (text.includes('E')) return text.includes('.') ? text : text.replace('E', '.E')
  return text.includes('.') ? text : `${text}.`
}
