<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { keyLabel } from './keys'
import { ALSO_CALLED } from './alsoCalled'
import type { Action, Page } from './registry'

const props = defineProps<{ actions: readonly Action[] }>()
const emit = defineEmits<{ close: [] }>()
const query = ref('')
const chosen = ref(0)
const input = useTemplateRef<HTMLInputElement>('input')

/** What has all the words: first by its name, then by what it does, then by what others call it. */
const found = computed(() => {
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  const has = (text: string): boolean => words.every((word) => text.toLowerCase().includes(word))
  const rank = (a: Action): number => {
    // What can be done now comes before what cannot.
    const later = a.enabled?.() === false ? 0.5 : 0
    if (has(a.label)) return later
    if (has(`${a.label} ${a.help}`)) return 1 + later
    return has(`${a.label} ${a.help} ${ALSO_CALLED[a.id] ?? ''}`) ? 2 + later : Infinity
  }
  return props.actions
    .map((action, i) => ({ action, i, rank: rank(action) }))
    .filter((f) => f.rank < Infinity)
    .sort((a, b) => (words.length > 0 ? a.rank - b.rank : 0) || a.i - b.i)
    .map((f) => f.action)
})

const PAGE_WORDS: Readonly<Record<Page, string>> = {
  draw: 'Draw',
  edit: 'Edit',
  tie: 'Tie',
  turn: 'Turn',
  mill: 'Mill',
  note: 'Note',
}

/** Where it stands: its page of the pad. */
const standsOn = ({ pages = [] }: Action): string =>
  pages.length > 0 && pages.length < 3 ? pages.map((p) => PAGE_WORDS[p]).join(', ') : ''
watch(query, () => (chosen.value = 0))
onMounted(() => nextTick(() => input.value?.focus()))

function go(by: number): void {
  const count = found.value.length
  if (count > 0) chosen.value = (chosen.value + by + count) % count
}

function run(action: Action | undefined): void {
  if (!action || action.enabled?.() === false) return
  emit('close')
  action.run()
}
</script>

<template>
  <div class="veil" @click.self="emit('close')">
    <div class="search" role="dialog" aria-label="Search commands">
      <input
        ref="input"
        v-model="query"
        placeholder="Search every command"
        aria-label="Search every command"
        role="combobox"
        aria-expanded="true"
        aria-controls="found-commands"
        :aria-activedescendant="found[chosen] ? `command-${chosen}` : undefined"
        @keydown.down.prevent="go(1)"
        @keydown.up.prevent="go(-1)"
        @keydown.enter.prevent="run(found[chosen])"
        @keydown.esc.prevent="emit('close')"
      />
      <ul id="found-commands" role="listbox" aria-label="Commands">
        <li
          v-for="(action, i) in found"
          :id="`command-${i}`"
          :key="action.id"
          role="option"
          :aria-selected="i === chosen"
          :aria-disabled="action.enabled?.() === false"
          @pointermove="chosen = i"
          @click="run(action)"
        >
          <span>
            <b>{{ action.label }}</b> <span class="soft">{{ action.help }}</span>
          </span>
          <span class="where">
            <span v-if="standsOn(action)" class="soft">pad, {{ standsOn(action) }}</span>
            <kbd v-if="action.key">{{ keyLabel(action.key) }}</kbd>
          </span>
        </li>
      </ul>
      <p v-if="found.length === 0" class="none">No command has these words.</p>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  z-index: 20;
  background: rgb(30 42 50 / 20%);
}

.search {
  width: min(620px, 90vw);
  margin: 9vh auto 0;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
  box-shadow: 0 4px 18px rgb(30 42 50 / 22%);
}

input {
  width: 100%;
  height: 42px;
  padding: 0 14px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  font-size: 15px;
}

input:focus-visible {
  outline-offset: -2px;
}

ul {
  max-height: 55vh;
  margin: 0;
  padding: 4px 0;
  overflow: auto;
  list-style: none;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 6px 14px;
  cursor: pointer;
}

li[aria-selected='true'] {
  background: var(--halo-wash);
}

li[aria-disabled='true'] {
  opacity: 0.55;
  cursor: default;
}

.where {
  display: flex;
  flex: none;
  align-items: baseline;
  gap: 8px;
  font-size: 12px;
}

.none {
  padding: 10px 14px;
  color: var(--ink-soft);
}
</style>
