<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { offerBack } from '../offerBack'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import BannerLine from '../ui/BannerLine.vue'
import CompareDialog from './CompareDialog.vue'
import type { Draft } from './drafts'
import { momentOf, nameAsPart } from './words'

const props = defineProps<{ draft: Draft }>()
const parts = usePartStore()
const board = useBoardStore()
const router = useRouter()
const comparing = ref(false)
const busy = ref(false)

async function doing(what: () => Promise<void>): Promise<void> {
  comparing.value = false
  busy.value = true
  await what().finally(() => (busy.value = false))
}

const take = (): Promise<void> =>
  doing(async () => {
    await parts.takeDraft(props.draft)
    board.fit()
  })

const keep = (): Promise<void> =>
  doing(async () => {
    const id = await parts.keepDraftAsPart(props.draft, nameAsPart(props.draft))
    if (id !== undefined) await router.push({ name: 'model', params: { id } })
  })

const drop = (): Promise<void> =>
  doing(async () => {
    offerBack('The unsaved work was dropped.', await parts.letGoDraft(props.draft))
  })
</script>

<template>
  <BannerLine tone="asks">
    Work of {{ momentOf(draft) }} on this part was not saved.
    <template #choices>
      <Button size="small" :disabled="busy" @click="comparing = true">Compare</Button>
      <Button size="small" type="primary" :disabled="busy" @click="take">Take it up</Button>
      <Button size="small" :disabled="busy" @click="keep">Keep as a part of its own</Button>
      <Button size="small" :disabled="busy" @click="drop">Drop it</Button>
    </template>
  </BannerLine>
  <CompareDialog
    v-if="parts.history"
    v-model:open="comparing"
    :part="parts.history.part"
    :draft="draft"
    @take="take"
  />
</template>
