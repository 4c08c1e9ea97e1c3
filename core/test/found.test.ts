import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { KINDS } from '../../fuzz/kinds'

const folder = join(import.meta.dirname, '../../fuzz/found')

describe('what trials at random once found', () => {
  it.each(readdirSync(folder).filter((f) => f.endsWith('.json')))('%s holds now', (file) => {
    const { kind, found } = JSON.parse(readFileSync(join(folder, file), 'utf8')) as {
      kind: string
      found: unknown
    }
    const known = KINDS.find((k) => k.name === kind)
    expect(known?.name).toBe(kind)
    expect(known?.fault(found)).toBeUndefined()
  })
})
