import type { TitleBlock } from '@lathica/core/part'
import type { Problem } from '@lathica/core/result'
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { ApiError, api, refusalOf } from '../api/client'

/** Title blocks of one's own, kept by the server for all parts. */
export const useTitleBlocksStore = defineStore('titleBlocks', () => {
  const kept = shallowRef<readonly TitleBlock[]>([])
  let asked: Promise<void> | undefined

  /** Reads them once; without a server there are none. */
  function load(): Promise<void> {
    asked ??= read()
    return asked
  }

  async function read(): Promise<void> {
    try {
      kept.value = await api.titleBlocks()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      asked = undefined
    }
  }

  /** Keeps a block by its name. @returns what stands in the way, if anything */
  async function put(block: TitleBlock): Promise<Problem | undefined> {
    return refusalOf(async () => {
      const made = await api.putTitleBlock(block)
      const others = kept.value.filter((b) => b.name !== made.name)
      kept.value = [...others, made].sort((a, b) => a.name.localeCompare(b.name))
    })
  }

  async function remove(name: string): Promise<Problem | undefined> {
    return refusalOf(async () => {
      await api.deleteTitleBlock(name)
      kept.value = kept.value.filter((b) => b.name !== name)
    })
  }

  return { kept, load, put, remove }
})
