<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { onMounted, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '../api/client'
import { offerBack } from '../offerBack'
import { usePartStore } from '../store/part'
import { sameDocument } from '../store/sameDocument'
import BannerLine from '../ui/BannerLine.vue'
import { draftsLeft, type Draft } from './drafts'
import { momentOf, nameAsPart } from './words'

/** The ids of the parts on the shelf: work on others is on parts that are gone. */
const props = defineProps<{ parts: ReadonlySet<string> }>()
const emit = defineEmits<{ kept: [] }>()
const store = usePartStore()
const router = useRouter()
const drafts = shallowRef<readonly Draft[]>([])

const look = async (): Promise<void> => {
  const left = await draftsLeft()
  const isUnsaved = await Promise.all(left.map(differs))
  drafts.value = left.filter((_, i) => isUnsaved[i])
}
onMounted(look)

/** Whether the server has something else than a draft; one that is saved waits for its part to be opened. */
async function differs(draft: Draft): Promise<boolean> {
  const stored = await api.part(draft.partId).catch(() => undefined)
  return !sameDocument(stored?.document, draft.document)
}

async function keep(draft: Draft): Promise<void> {
  const id = await store.keepDraftAsPart(draft, nameAsPart(draft))
  if (id === undefined) return
  emit('kept')
  await look()
}

async function drop(draft: Draft): Promise<void> {
  const back = await store.letGoDraft(draft)
  await look()
  offerBack('The unsaved work was dropped.', async () => {
    await back()
    await look()
  })
}

const isThere = ({ partId }: Draft): boolean => props.parts.has(partId)
const openPart = ({ partId }: Draft) => router.push({ name: 'model', params: { id: partId } })
</script>

<template>
  <BannerLine v-for="draft in drafts" :key="`${draft.tab} ${draft.partId}`" tone="asks">
    Work of {{ momentOf(draft) }} on <b>{{ draft.name }}</b> was not saved{{
      isThere(draft) ? '.' : '; the part itself was deleted.'
    }}
    <template #choices>
      <Button v-if="isThere(draft)" size="small" @click="openPart(draft)">Open the part</Button>
      <Button size="small" @click="keep(draft)">Keep as a part of its own</Button>
      <Button size="small" @click="drop(draft)">Drop it</Button>
    </template>
  </BannerLine>
</template>
