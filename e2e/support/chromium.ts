import { existsSync } from 'node:fs'
import { delimiter, join } from 'node:path'

/** Flags for a Chromium that runs as root, without a graphics card and without the network. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--enable-unsafe-swiftshader',
]

/** The Chromium of this machine: named by LATHICA_CHROMIUM, or on the path. */
export function chromiumPath(): string {
  const named = process.env['LATHICA_CHROMIUM']
  if (named) return named
  const names = ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable']
  const folders = (process.env['PATH'] ?? '').split(delimiter)
  const found = folders.flatMap((f) => names.map((n) => join(f, n))).find((p) => existsSync(p))
  if (found === undefined) throw new Error('There is no Chromium; npm test installs one.')
  return found
}
