<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { Button, Modal, Result, Spin } from 'ant-design-vue'
import { computed, onBeforeUnmount, watch } from 'vue'
import { onBeforeRouteLeave, onBeforeRouteUpdate, useRouter } from 'vue-router'
import { api } from '../api/client'
import { useBoardStore } from '../store/board'
import { useLookStore } from '../store/look'
import { usePartStore } from '../store/part'
import { useViewsStore } from '../store/views'
import DraftBanner from '../drafts/DraftBanner.vue'
import GoneBanner from './GoneBanner.vue'
import PartHeader from './PartHeader.vue'
import StaleBanner from './StaleBanner.vue'

const props = defineProps<{ id: string }>()
const parts = usePartStore()
const board = useBoardStore()
const look = useLookStore()
const router = useRouter()
const views = useViewsStore()
watch(
  () => views.asked,
  (asked) => void (asked && router.push({ name: asked.view })),
)

watch(
  () => props.id,
  (id) => {
    board.reset()
    look.reset()
    void parts.open(id)
  },
  { immediate: true },
)
watch(
  () => parts.history?.part.name,
  (name) => (document.title = name === undefined ? 'Lathica' : `${name} · Lathica`),
)

/** How long leaving waits for the server; what it does not take stays in the browser. */
const LEAVE_MS = 1500
const saveBeforeLeaving = async (): Promise<boolean> => {
  board.field = undefined
  await Promise.race([parts.saveNow(), new Promise((done) => setTimeout(done, LEAVE_MS))])
  return !wouldLose() || askedToLeave()
}

/** What is neither saved nor kept by the browser is lost with the page. */
const wouldLose = (): boolean => parts.save.kind !== 'saved' && !parts.isKept

const askedToLeave = (): Promise<boolean> =>
  new Promise((resolve) => {
    Modal.confirm({
      title: 'Leave unsaved work behind?',
      content: 'It is not on the server, and this browser cannot keep it.',
      okText: 'Leave it',
      cancelText: 'Stay',
      onOk: () => resolve(true),
      onCancel: () => resolve(false),
    })
  })

useEventListener('beforeunload', (event) => {
  if (wouldLose()) event.preventDefault()
})
/** Whether something is stored that cannot be read: not where the part is gone, or nobody answers. */
const isThere = computed(() => /^(part\.damaged|file\.)/.test(parts.loadProblem?.code ?? ''))

onBeforeRouteLeave(saveBeforeLeaving)
onBeforeRouteUpdate(async (to) => {
  return to.params['id'] === props.id || saveBeforeLeaving()
})
onBeforeUnmount(() => {
  parts.close()
  document.title = 'Lathica'
})
</script>

<template>
  <div class="part-view">
    <Result
      v-if="parts.loadProblem"
      status="warning"
      :title="parts.loadProblem.message"
      :sub-title="parts.loadProblem.mend"
    >
      <template #icon><span class="figure big" aria-hidden="true">⌀ ?</span></template>
      <template #extra>
        <Button type="primary" @click="parts.open(id)">Try again</Button>
        <Button v-if="isThere" :href="api.rawPart(id)" download>Download what is stored</Button>
        <Button @click="router.push('/')">To the shelf</Button>
      </template>
    </Result>
    <div v-else-if="!parts.part" class="opening"><Spin tip="Opening the part …" /></div>
    <template v-else>
      <PartHeader />
      <StaleBanner v-if="parts.save.kind === 'stale'" />
      <GoneBanner v-else-if="parts.save.kind === 'gone'" />
      <DraftBanner v-for="draft in parts.drafts" :key="`${draft.tab} ${draft.at}`" :draft="draft" />
      <RouterView />
    </template>
  </div>
</template>

<style scoped>
.part-view {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow: hidden;
}

.opening {
  display: grid;
  place-items: center;
  height: 100%;
}

.big {
  font-size: 44px;
  color: var(--pencil);
}
</style>
