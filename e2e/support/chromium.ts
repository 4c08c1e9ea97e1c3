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

/** The one without a window of its own comes first: it takes half the work of the whole browser. */
const NAMES = [
  'chromium-headless-shell',
  'chromium',
  'chromium-browser',
  'google-chrome',
  'google-chrome-stable',
]

/** The Chromium of this machine: named by LATHICA_CHROMIUM, or on the path. */
export function chromiumPath(): string {
  const named = process.env['LATHICA_CHROMIUM']
  if (named) return named
  const folders = (process.env['PATH'] ?? '').split(delimiter)
  const found = NAMES.flatMap((n) => folders.map((f) => join(f, n))).find((p) => existsSync(p))
  if (found === undefined) throw new Error('There is no Chromium; npm test installs one.')
  return found
}
