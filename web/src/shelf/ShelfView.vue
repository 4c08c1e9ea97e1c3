<script setup lang="ts">
import type { Part } from '@lathica/core/part'
import { Button, Modal, Result, Spin } from 'ant-design-vue'
import { Search } from 'lucide-vue-next'
import { useStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { PartCard, ProjectCard } from '@lathica/core/wire'
import { draftsLeft } from '../drafts/drafts'
import { cancelIdle, whenIdle } from '../idle'
import { later } from '../ui/later'
import PlainSelect from '../ui/PlainSelect.vue'
import ThemeButton from '../ui/ThemeButton.vue'
import ProjectShelf from './ProjectShelf.vue'
import { useShelf } from './useShelf'

const shelf = useShelf()
const { projects, loading, problem } = shelf
const router = useRouter()
const query = ref('')
const naming = ref(false)
const newName = ref('')

onMounted(shelf.load)

/** What is asked for next is fetched while nothing else is to be done: what parts are opened with, above all. */
const fetchBoard = (): void => {
  const screens = [
    ...[import('./NewPartDialog.vue'), import('./HandOverDialog.vue'), import('./partFiles')],
    ...[import('../model/PartView.vue'), import('../model/ModelView.vue')],
  ]
  // What did not come is asked for again, and told, when it is needed.
  Promise.all(screens).catch(() => undefined)
}
let fetching = 0
watch(loading, (isLoading) => {
  if (!isLoading && fetching === 0) fetching = whenIdle(fetchBoard, 10_000)
})
onBeforeUnmount(() => {
  cancelIdle(fetching)
})

/** Work that was not saved, told with what it takes to compare it, where there is some. */
const hasDrafts = ref(false)
const DraftList = later(
  () => import('../drafts/DraftList.vue'),
  () => (hasDrafts.value = false),
)
onMounted(async () => {
  hasDrafts.value = (await draftsLeft()).length > 0
})

const words = computed(() => query.value.toLowerCase().split(/\s+/).filter(Boolean))
const matches = (part: PartCard): boolean =>
  words.value.every((w) => `${part.name} ${part.summary?.material ?? ''}`.toLowerCase().includes(w))
/** How parts stand on the shelf; kept in the browser. */
const order = useStorage<'name' | 'changed'>('lathica.shelf.order', 'name')
const ORDERS = [
  { value: 'name' as const, label: 'by name' },
  { value: 'changed' as const, label: 'last changed first' },
]
const sorted = (parts: readonly PartCard[]): readonly PartCard[] =>
  order.value === 'name' ? parts : [...parts].sort((a, b) => b.updatedAt.localeCompare(a.updatedAt))
const shown = computed(() =>
  projects.value
    .map((project) => ({ project, parts: sorted(project.parts.filter(matches)) }))
    .filter(({ parts }) => words.value.length === 0 || parts.length > 0),
)

/** Parts that were there when one looked at the shelf last; all of them when one looks for the first time. */
const seen = useStorage<string[]>('lathica.shelf.seen', [])
const before = new Set(seen.value)
const fresh = computed(
  () =>
    new Set(
      before.size === 0
        ? []
        : projects.value.flatMap((p) => p.parts.flatMap((x) => (before.has(x.id) ? [] : x.id))),
    ),
)
watch(projects, (all) => (seen.value = all.flatMap((p) => p.parts.map((x) => x.id))))

const known = computed(() => new Set(projects.value.flatMap((p) => p.parts.map((part) => part.id))))

async function create(project: ProjectCard, part: Part): Promise<void> {
  const id = await shelf.createPart(project.id, part)
  if (id !== undefined) await router.push({ name: 'model', params: { id } })
}

/** Takes files onto the shelf; a single one that came from elsewhere is opened with its report. */
async function bring(projectId: string, files: readonly File[]): Promise<void> {
  const id = await shelf.importFiles(projectId, files)
  if (id !== undefined) await router.push({ name: 'model', params: { id } })
}

async function createProject(): Promise<void> {
  const name = newName.value.trim()
  if (name === '') return
  naming.value = false
  newName.value = ''
  await shelf.createProject(name)
}
</script>

<template>
  <div class="shelf">
    <header class="top">
      <img src="/mark.svg" alt="" width="26" height="26" />
      <h1>Lathica</h1>
      <span class="gap" />
      <label class="find">
        <Search :size="15" :stroke-width="1.5" />
        <input v-model="query" type="search" placeholder="Find a part" aria-label="Find a part" />
      </label>
      <PlainSelect
        id="shelf-order"
        v-model="order"
        class="order"
        aria-label="Order of the parts"
        :options="ORDERS"
      />
      <Button @click="naming = true">New project</Button>
      <ThemeButton />
    </header>
    <DraftList v-if="hasDrafts && !loading && !problem" :parts="known" @kept="shelf.load" />
    <main>
      <Spin v-if="loading" class="loading" tip="Looking through the shelf …"><div /></Spin>
      <Result
        v-else-if="problem"
        status="warning"
        :title="problem.message"
        sub-title="Start it with npm run demo, then try again."
      >
        <template #icon><span class="figure big" aria-hidden="true">⌀ ?</span></template>
        <template #extra><Button type="primary" @click="shelf.load">Try again</Button></template>
      </Result>
      <p v-else-if="projects.length === 0" class="none">
        The shelf is empty. Begin a project; its parts stand here.
        <Button type="primary" @click="naming = true">New project</Button>
      </p>
      <p v-else-if="shown.length === 0" class="none">No part has these words: “{{ query }}”.</p>
      <ProjectShelf
        v-for="{ project, parts } in shown"
        :key="project.id"
        :project="project"
        :parts="parts"
        :fresh="fresh"
        @create="create(project, $event)"
        @import="bring(project.id, $event)"
        @rename="shelf.renameProject(project.id, $event)"
        @remove="shelf.removeProject(project)"
        @remove-part="shelf.removePart"
        @duplicate-part="shelf.duplicate(project.id, $event)"
        @download-part="shelf.download"
      />
    </main>
    <Modal
      v-model:open="naming"
      title="New project"
      ok-text="Create"
      :ok-button-props="{ disabled: newName.trim() === '' }"
      width="400px"
      @ok="createProject"
    >
      <input
        v-model="newName"
        class="project-name"
        maxlength="80"
        placeholder="Name of the project"
        aria-label="Name of the project"
        @keydown.enter="createProject"
      />
    </Modal>
  </div>
</template>

<style scoped>
.shelf {
  height: 100%;
  overflow: auto;
}

.top {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  align-items: center;
  gap: 10px;
  height: 52px;
  padding: 0 24px;
  border-bottom: 1px solid var(--rule);
  background: var(--panel);
}

h1 {
  font-size: 18px;
  font-weight: 600;
}

.gap {
  flex: 1;
}

.order {
  width: 160px;
}

.find {
  display: flex;
  align-items: center;
  gap: 6px;
  width: 220px;
  height: 30px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  color: var(--ink-soft);
}

.find:focus-within {
  outline: 2px solid var(--accent);
}

.find input {
  flex: 1;
  min-width: 0;
  border: 0;
  outline: 0;
  background: none;
}

main {
  max-width: 1480px;
  margin: 0 auto;
  padding: 12px;
}

.loading {
  display: block;
  margin-top: 20vh;
}

.none {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 14px;
  margin-top: 18vh;
  color: var(--ink-soft);
  font-size: 14px;
}

.big {
  font-size: 44px;
  color: var(--pencil);
}

.project-name {
  width: 100%;
  height: 32px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
}
</style>
