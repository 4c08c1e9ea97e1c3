import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate'

/** The longest packed file a part may hold. */
export const LARGEST_PACKED = 4_000_000

/** A text, deflated (RFC 1951) and in base64 (RFC 4648): exchange files shrink to a sixth. */
export function packText(text: string): string {
  const bytes = deflateSync(strToU8(text), { level: 9 })
  let letters = ''
  for (let i = 0; i < bytes.length; i += 8192) {
    letters += String.fromCharCode(...bytes.subarray(i, i + 8192))
  }
  return btoa(letters)
}

/** The text again. @throws when it is no packed text */
export function unpackText(packed: string): string {
  const letters = atob(packed)
  return strFromU8(inflateSync(Uint8Array.from(letters, (c) => c.charCodeAt(0))))
}
