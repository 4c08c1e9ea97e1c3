<script setup lang="ts">
import { renamePart, setMaterial } from '@lathica/core/edit'
import { Redo2, Undo2 } from 'lucide-vue-next'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { clock } from '../clock'
import { usePartStore } from '../store/part'
import type { SaveState } from '../store/saver'
import MaterialSelect from '../materials/MaterialSelect.vue'
import IconButton from '../ui/IconButton.vue'
import ThemeButton from '../ui/ThemeButton.vue'

const parts = usePartStore()
const renaming = ref(false)
const name = ref('')
const input = useTemplateRef<HTMLInputElement>('input')

async function beginRename(): Promise<void> {
  name.value = parts.name
  renaming.value = true
  await nextTick()
  input.value?.select()
}

function finishRename(): void {
  if (!renaming.value) return
  renaming.value = false
  if (name.value.trim() !== '' && name.value !== parts.name) parts.run(renamePart(name.value))
}

const saved = computed(() => {
  const words = saveWords(parts.save)
  if (parts.save.kind === 'saved' || parts.isKept) return words
  return {
    text: 'not saved, and not kept',
    title: `This browser cannot keep unsaved work: leave the page open until it is saved. ${words.title}`,
  }
})

/** How the part stands with the server, in a word or two and in a sentence. */
function saveWords(save: SaveState): { readonly text: string; readonly title: string } {
  switch (save.kind) {
    case 'saved': {
      const time = save.at ? ` ${clock(new Date(save.at))}` : ''
      return { text: `saved${time}`, title: 'Every accepted edit is saved.' }
    }
    case 'waiting':
    case 'saving':
      return { text: 'saving …', title: 'Being sent to the server.' }
    case 'unreachable':
      return {
        text: 'not saved yet',
        title: `${save.problem.message} ${save.problem.mend} Tried again by itself.`,
      }
    case 'refused':
      return { text: 'not saved', title: `${save.problem.message} ${save.problem.mend}` }
    case 'stale':
      return { text: 'not saved: changed elsewhere', title: 'Choose in the line below.' }
    case 'gone':
      return { text: 'not saved: deleted elsewhere', title: 'Choose in the line below.' }
  }
}

const warns = computed(
  () =>
    ['unreachable', 'refused', 'stale', 'gone'].includes(parts.save.kind) ||
    (parts.save.kind !== 'saved' && !parts.isKept),
)
const body = computed(() => parts.bodies[0])
</script>

<template>
  <header class="header">
    <RouterLink to="/" class="shelf" title="To the shelf">‹ {{ parts.project.name }}</RouterLink>
    <input
      v-if="renaming"
      ref="input"
      v-model="name"
      class="name"
      maxlength="80"
      aria-label="name of the part"
      @blur="finishRename"
      @keydown.enter="finishRename"
      @keydown.esc="renaming = false"
    />
    <button v-else type="button" class="plain name" title="Rename" @click="beginRename">
      {{ parts.name }}
    </button>
    <div v-if="body" class="material">
      <MaterialSelect
        id="part-material"
        aria-label="material"
        :model-value="body.material"
        @update:model-value="body && parts.run(setMaterial(body.id, $event))"
      />
    </div>
    <span class="figure soft" title="unit of lengths">{{ parts.units.length }}</span>
    <span
      class="saved"
      :class="{ warns }"
      :title="saved.title"
      role="status"
      :data-save="parts.save.kind"
    >
      {{ saved.text }}
    </span>
    <span class="gap" />
    <div class="icons">
      <IconButton
        label="Undo"
        :disabled="!parts.undoLabel"
        :title="parts.undoLabel ? `Undo: ${parts.undoLabel} (Ctrl+Z)` : 'Nothing to undo'"
        @click="parts.stepBack()"
      >
        <Undo2 :size="18" :stroke-width="1.5" />
      </IconButton>
      <IconButton
        label="Redo"
        :disabled="!parts.redoLabel"
        :title="parts.redoLabel ? `Redo: ${parts.redoLabel} (Ctrl+Shift+Z)` : 'Nothing to redo'"
        @click="parts.stepForth()"
      >
        <Redo2 :size="18" :stroke-width="1.5" />
      </IconButton>
      <ThemeButton />
    </div>
    <nav aria-label="Views of the part">
      <RouterLink :to="{ name: 'model' }">Model</RouterLink>
      <RouterLink :to="{ name: 'inspect' }">Inspect</RouterLink>
      <RouterLink :to="{ name: 'sheet' }">Sheet</RouterLink>
      <RouterLink :to="{ name: 'dispatch' }">Dispatch</RouterLink>
    </nav>
  </header>
</template>

<style scoped>
.header {
  display: flex;
  align-items: center;
  gap: 14px;
  flex: none;
  height: 40px;
  padding: 0 14px;
  border-bottom: 1px solid var(--rule);
  background: var(--panel);
}

.shelf {
  color: var(--ink-soft);
  text-decoration: none;
  white-space: nowrap;
}

.shelf:hover {
  color: var(--ink);
}

.name {
  font-size: 15px;
  font-weight: 600;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

input.name {
  width: 200px;
  height: 28px;
  padding: 0 6px;
  border: 1px solid var(--accent);
  border-radius: 3px;
  background: var(--panel);
}

.material {
  width: 184px;
}

.saved {
  color: var(--ink-soft);
  white-space: nowrap;
}

.saved.warns {
  color: var(--conflict);
  font-weight: 600;
}

.gap {
  flex: 1;
}

.icons {
  display: flex;
  gap: 4px;
}

nav {
  display: flex;
  align-self: stretch;
}

nav a {
  display: flex;
  align-items: center;
  padding: 0 14px;
  border-bottom: 2px solid transparent;
  color: var(--ink-soft);
  text-decoration: none;
}

nav a:hover {
  color: var(--ink);
}

nav a.router-link-exact-active {
  border-bottom-color: var(--accent);
  color: var(--ink);
  font-weight: 600;
}
</style>
