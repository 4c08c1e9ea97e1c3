import type { Problem } from '@lathica/core/result'
import { STOCK_MATERIALS, type Material } from '@lathica/core/part'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { ApiError, api, refusalOf } from '../api/client'

/** Materials on offer: one's own, kept by the server for all parts, and those in stock. */
export const useLibraryStore = defineStore('library', () => {
  const own = shallowRef<readonly Material[]>([])
  let asked: Promise<void> | undefined

  const all = computed(() => [...own.value, ...STOCK_MATERIALS])

  /** Reads the library once; without a server there is what is in stock. */
  function load(): Promise<void> {
    asked ??= read()
    return asked
  }

  async function read(): Promise<void> {
    try {
      own.value = await api.materials()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      asked = undefined
    }
  }

  /** Adds a material, or changes the one of its id. @returns what stands in the way, if anything */
  async function put(material: Material): Promise<Problem | undefined> {
    return refusalOf(async () => {
      const kept = await api.putMaterial(material)
      const rest = own.value.filter((m) => m.id !== material.id)
      own.value = [...rest, { ...kept, id: material.id }]
    })
  }

  async function remove(id: string): Promise<Problem | undefined> {
    return refusalOf(async () => {
      await api.deleteMaterial(id)
      own.value = own.value.filter((m) => m.id !== id)
    })
  }

  return { own, all, load, put, remove }
})
