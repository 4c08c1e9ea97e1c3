<script setup lang="ts">
import type { Body } from '@lathica/core/part'
import { changeBody } from '@lathica/core/edit'
import { useLookStore } from '../store/look'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'

/** The part's bodies, each to be opened, shown or hidden; a single one only to be opened. */
defineEmits<{ open: [body: string] }>()
const parts = usePartStore()
const route = useRouteStore()
const look = useLookStore()

const stateOf = ({ reference, locked }: Body): string =>
  [reference ? 'reference' : '', locked ? 'locked' : ''].filter((w) => w !== '').join(', ')
</script>

<template>
  <template v-if="parts.bodies.length > 1">
    <h3>Bodies</h3>
    <ul aria-label="Bodies">
      <li v-for="b in parts.bodies" :key="b.id" :class="{ hidden: !b.visible }">
        <button
          type="button"
          class="plain name"
          :aria-pressed="route.bodyId === b.id"
          @click="$emit('open', b.id)"
        >
          {{ b.name }} <span v-if="stateOf(b)" class="soft">{{ stateOf(b) }}</span>
        </button>
        <button
          type="button"
          class="plain way"
          :aria-label="`show ${b.name} alone`"
          :aria-pressed="look.alone === b.id"
          title="Shows this body alone on the solid pane"
          @click="look.alone = look.alone === b.id ? undefined : b.id"
        >
          alone
        </button>
        <button
          type="button"
          class="plain way"
          :aria-label="`see through ${b.name}`"
          :aria-pressed="look.glassy.has(b.id)"
          title="Draws this body see-through on the solid pane"
          @click="look.toggleGlassy(b.id)"
        >
          through
        </button>
        <button
          type="button"
          class="plain way"
          :aria-label="`${b.visible ? 'hide' : 'show'} ${b.name}`"
          @click="parts.run(changeBody(b.id, { visible: !b.visible }))"
        >
          {{ b.visible ? 'hide' : 'show' }}
        </button>
      </li>
    </ul>
  </template>
  <button
    v-else-if="parts.bodies[0]"
    type="button"
    class="plain only"
    :aria-pressed="route.bodyId === parts.bodies[0].id"
    @click="$emit('open', parts.bodies[0].id)"
  >
    Body: {{ parts.bodies[0].name }}
  </button>
</template>

<style scoped src="./nameList.css"></style>
<style scoped>
.only {
  margin: 6px 10px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
