<script setup lang="ts">
import { computed, watch } from 'vue'
import { PAD_KEYS, type Action, type Page } from '../commands/registry'
import { NAMES, isNamed, names, shortName, type Names } from '../commands/known'
import TurnIcon from '../icons/TurnIcon.vue'
import { prepareKernel } from '../kernel/client'
import { useBoardStore } from '../store/board'

const props = defineProps<{ actions: readonly Action[] }>()
const page = defineModel<Page>('page', { required: true })

// Whoever looks at the mill will need the solid kernel soon.
watch(page, (now) => {
  if (now === 'mill') void prepareKernel()
})
const board = useBoardStore()

const PAGES: readonly { readonly id: Page; readonly label: string; readonly key: string }[] = [
  { id: 'draw', label: 'Draw', key: '1' },
  { id: 'edit', label: 'Edit', key: '2' },
  { id: 'tie', label: 'Tie', key: '3' },
  { id: 'turn', label: 'Turn', key: '4' },
  { id: 'mill', label: 'Mill', key: '5' },
  { id: 'note', label: 'Note', key: '6' },
]

const places = computed(() =>
  PAD_KEYS.map((key) => ({
    key,
    action: props.actions.find((a) => a.key === key && a.pages?.includes(page.value)),
  })),
)
const NAME_WORDS: Readonly<Record<Names, string>> = {
  ...{ new: 'until known', always: 'always', never: 'never' },
}
const inHand = computed(() => props.actions.find((a) => a.tool === board.toolId))
const isOff = (action: Action): boolean => action.enabled?.() === false
</script>

<template>
  <section class="pad" aria-label="Tool pad">
    <div class="pages" role="tablist" aria-label="Pages of the pad">
      <button
        v-for="p in PAGES"
        :key="p.id"
        type="button"
        role="tab"
        :aria-selected="page === p.id"
        :title="`${p.label} (${p.key})`"
        @click="page = p.id"
      >
        {{ p.label }}
      </button>
    </div>
    <div class="grid">
      <template v-for="{ key, action } in places" :key="key">
        <button
          v-if="action"
          type="button"
          class="tool"
          :class="{ held: action.tool === board.toolId, fits: action.fits?.() }"
          :disabled="isOff(action)"
          :aria-pressed="action.tool ? action.tool === board.toolId : undefined"
          :aria-label="action.label"
          :title="`${action.label}: ${action.help}`"
          @click="action.run()"
        >
          <span class="key figure" aria-hidden="true">{{ key.toUpperCase() }}</span>
          <TurnIcon v-if="action.icon" :name="action.icon" />
          <span v-if="isNamed(action)" class="name" aria-hidden="true" lang="en">{{
            shortName(action)
          }}</span>
        </button>
        <span v-else class="tool vacant" aria-hidden="true" />
      </template>
    </div>
    <p class="about">
      <template v-if="inHand">
        <strong>{{ inHand.label }}</strong> · {{ inHand.help }}
      </template>
      <button
        type="button"
        class="plain names"
        title="Names under the icons: until a tool has been used three times, always, or never"
        @click="names = NAMES[(NAMES.indexOf(names) + 1) % NAMES.length] ?? 'new'"
      >
        names: {{ NAME_WORDS[names] }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.pad {
  padding: 10px;
  background: var(--panel);
  overflow: hidden auto;
}

.pages {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  margin-bottom: 10px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  overflow: hidden;
}

.pages button {
  height: 26px;
  border: 0;
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
}

.pages button:focus-visible {
  outline-offset: -2px;
}

.pages [aria-selected='true'] {
  background: var(--halo-wash);
  color: var(--ink);
  font-weight: 600;
}

.grid {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 4px;
}

.tool {
  position: relative;
  display: grid;
  place-items: center;
  min-height: 44px;
  padding: 8px 1px 0;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  cursor: pointer;
}

.tool:hover:not(:disabled) {
  border-color: var(--halo);
}

.tool:disabled {
  color: var(--rule-strong);
  cursor: default;
}

.tool.vacant {
  background: none;
  border-style: dotted;
  cursor: default;
}

.tool.fits {
  border-color: var(--accent);
  background: var(--accent-wash);
}

.tool.held {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--on-ink);
}

.key {
  position: absolute;
  top: 2px;
  left: 4px;
  font-size: 11px;
  line-height: 1.2;
  opacity: 0.75;
}

.name {
  align-self: start;
  padding-bottom: 3px;
  font-size: 10px;
  line-height: 1.05;
  text-align: center;
}

.names {
  margin-left: 6px;
  padding: 0;
  color: var(--ink-soft);
  font-size: 11px;
}

.about {
  margin-top: 10px;
  color: var(--ink-soft);
  font-size: 12px;
}

.about strong {
  color: var(--ink);
}
</style>
