<script setup lang="ts">
import type { Part } from '@lathica/core/part'
import { Button } from 'ant-design-vue'
import { PackageCheck, Pencil, Trash2, Upload } from 'lucide-vue-next'
import { nextTick, ref, useTemplateRef } from 'vue'
import type { PartCard as PartOnShelf, ProjectCard } from '@lathica/core/wire'
import { FOREIGN_FILES } from '../files/kinds'
import IconButton from '../ui/IconButton.vue'
import { later } from '../ui/later'
import PartCard from './PartCard.vue'

const props = defineProps<{
  project: ProjectCard
  parts: readonly PartOnShelf[]
  /** Ids of parts that were not there when one looked last. */
  fresh: ReadonlySet<string>
}>()
const emit = defineEmits<{
  create: [part: Part]
  import: [files: readonly File[]]
  rename: [name: string]
  remove: []
  removePart: [part: PartOnShelf]
  duplicatePart: [part: PartOnShelf]
  downloadPart: [part: PartOnShelf]
}>()

const making = ref(false)
const handingOver = ref(false)
const NewPartDialog = later(
  () => import('./NewPartDialog.vue'),
  () => (making.value = false),
)
const HandOverDialog = later(
  () => import('./HandOverDialog.vue'),
  () => (handingOver.value = false),
)
const dropping = ref(false)
const renaming = ref(false)
const name = ref('')
const nameInput = useTemplateRef<HTMLInputElement>('nameInput')
const fileInput = useTemplateRef<HTMLInputElement>('fileInput')

async function beginRename(): Promise<void> {
  name.value = props.project.name
  renaming.value = true
  await nextTick()
  nameInput.value?.select()
}

function finishRename(): void {
  if (!renaming.value) return
  renaming.value = false
  const next = name.value.trim()
  if (next !== '' && next !== props.project.name) emit('rename', next)
}

function drop(event: DragEvent): void {
  dropping.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length > 0) emit('import', files)
}

function chosen(event: Event): void {
  const input = event.target as HTMLInputElement
  if (input.files) emit('import', [...input.files])
  input.value = ''
}
</script>

<template>
  <section
    class="project"
    :class="{ dropping }"
    :aria-label="project.name"
    @dragover.prevent="dropping = true"
    @dragleave.self="dropping = false"
    @drop.prevent="drop"
  >
    <header>
      <input
        v-if="renaming"
        ref="nameInput"
        v-model="name"
        maxlength="80"
        aria-label="name of the project"
        @blur="finishRename"
        @keydown.enter="finishRename"
        @keydown.esc="renaming = false"
      />
      <h2 v-else>{{ project.name }}</h2>
      <IconButton label="Rename the project" @click="beginRename">
        <Pencil :size="15" :stroke-width="1.5" />
      </IconButton>
      <IconButton label="Delete the project" @click="emit('remove')">
        <Trash2 :size="15" :stroke-width="1.5" />
      </IconButton>
      <span class="gap" />
      <input
        ref="fileInput"
        type="file"
        class="visually-hidden"
        :accept="`.json,${FOREIGN_FILES}`"
        multiple
        tabindex="-1"
        aria-label="part files, STEP, STL or 3MF files to import"
        @change="chosen"
      />
      <Button @click="fileInput?.click()">
        <span class="with-icon"><Upload :size="15" :stroke-width="1.5" /> Import</span>
      </Button>
      <Button v-if="project.parts.length > 0" @click="handingOver = true">
        <span class="with-icon"><PackageCheck :size="15" :stroke-width="1.5" /> Hand over</span>
      </Button>
      <Button type="primary" @click="making = true">New part</Button>
    </header>
    <p v-if="parts.length === 0" class="none">
      {{
        project.parts.length === 0
          ? 'No parts yet. Make a new one, or drop a part file here, or a STEP, STL or 3MF file.'
          : 'No part of this project has these words.'
      }}
    </p>
    <div class="cards">
      <PartCard
        v-for="part in parts"
        :key="part.id"
        :part="part"
        :fresh="fresh.has(part.id)"
        @remove="emit('removePart', part)"
        @duplicate="emit('duplicatePart', part)"
        @download="emit('downloadPart', part)"
      />
    </div>
    <HandOverDialog v-if="handingOver" :project="project" @close="handingOver = false" />
    <NewPartDialog v-if="making" @close="making = false" @create="emit('create', $event)" />
  </section>
</template>

<style scoped>
.project {
  padding: 12px;
  border: 1px dashed transparent;
  border-radius: 3px;
}

.dropping {
  border-color: var(--accent);
  background: var(--accent-wash);
}

header {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-bottom: 12px;
}

h2 {
  font-size: 17px;
}

header input:not([type='file']) {
  height: 30px;
  padding: 0 6px;
  border: 1px solid var(--accent);
  border-radius: 3px;
  background: var(--panel);
  font-size: 16px;
}

header :deep(.icon-button) {
  color: var(--ink-soft);
}

.gap {
  flex: 1;
}

.with-icon {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}

.none {
  padding: 18px 0;
  color: var(--ink-soft);
}

.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 14px;
}
</style>
