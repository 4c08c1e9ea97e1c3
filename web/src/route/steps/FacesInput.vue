<script setup lang="ts">
import { isFaceOf } from '@lathica/core/names'
import { faceWords, solidFaceWords, type BodyState } from '@lathica/core/route'
import { computed } from 'vue'
import { refsCalled, type Accept } from '../../board/refs'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { useRouteStore } from '../../store/route'

/** Faces of the section that a step refers to, picked on the board or the solid. */
const props = defineProps<{
  label: string
  accept: Accept
  many: boolean
  keys: readonly string[]
  none: string
  /** Faces of a solid that no full turn made are taken too. */
  solids?: boolean
  /** The bodies as the step finds them. */
  bodies: readonly BodyState[]
}>()
const emit = defineEmits<{ choose: [keys: readonly string[]] }>()
const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()

const chosen = computed(() =>
  props.keys.map((key) => {
    const [ref] = refsCalled(props.bodies, [key])
    return { key, words: ref?.edge ? faceWords(ref.edge, parts.units) : solidWords(key) }
  }),
)
/** A face that no full turn made goes by its step; it is gone with that. */
const solidWords = (key: string): string => {
  const known = props.solids === true && parts.route.some((s) => isFaceOf(s.id, key))
  return known ? solidFaceWords(key, parts.route) : 'gone'
}
/** The button by which faces are asked for stays pressed while they are. */
const mine = computed(() => route.ask?.hint === hint.value)
const hint = computed(() =>
  props.many
    ? `${props.label}: click faces on the board or the solid; Enter is done.`
    : `${props.label}: click a face on the board or the solid.`,
)

function ask(): void {
  if (mine.value) {
    board.useTool('pick')
    return
  }
  const { bodies } = props
  board.startAsking({
    hint: hint.value,
    accept: props.accept,
    bodies: () => bodies,
    chosen: () => props.keys,
    ...(props.solids === true ? { solids: true } : {}),
    take({ key }) {
      if (!props.many) {
        emit('choose', [key])
        route.stopAsking()
      } else if (props.keys.includes(key)) drop(key)
      else emit('choose', [...props.keys, key])
    },
  })
}

function drop(key: string): void {
  emit(
    'choose',
    props.keys.filter((k) => k !== key),
  )
}
</script>

<template>
  <ul class="faces">
    <li v-if="chosen.length === 0" class="none">{{ none }}</li>
    <li
      v-for="face in chosen"
      :key="face.key"
      :class="{ gone: face.words === 'gone' }"
      @pointerenter="route.hoverRef = refsCalled(bodies, [face.key])[0]"
      @pointerleave="route.hoverRef = undefined"
    >
      <span class="figure">{{ face.words }}</span>
      <button
        v-if="many || none !== 'pick one'"
        type="button"
        class="plain"
        :aria-label="`let go of ${face.words}`"
        @click="drop(face.key)"
      >
        ×
      </button>
    </li>
    <li>
      <button type="button" class="plain pick" :aria-pressed="mine" @click="ask">
        {{ mine ? 'picking …' : chosen.length > 0 && !many ? 'pick another' : 'pick' }}
      </button>
    </li>
  </ul>
</template>

<style scoped src="./picks.css"></style>

<style scoped>
.faces {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 12px;
}

.none {
  color: var(--ink-soft);
}
</style>
