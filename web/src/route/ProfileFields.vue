<script setup lang="ts">
import { changeSketch, moveSketch, removeSketch } from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** What a profile is called, its place among the others, and the way to delete it. */
const board = useBoardStore()
const parts = usePartStore()

const at = computed(() => parts.profiles.findIndex((p) => p.id === board.sketch.id))
const listed = computed(() => parts.profiles[at.value])

function rename(event: Event): void {
  const input = event.target as HTMLInputElement
  const { id, name } = board.sketch
  if (!parts.run(changeSketch(id, { name: input.value }))) input.value = name
}
</script>

<template>
  <div v-if="listed" class="own">
    <label for="profile-name">Name</label>
    <input
      id="profile-name"
      class="text"
      maxlength="40"
      :value="listed.name"
      @change="rename"
      @keydown.stop
    />
    <template v-if="parts.profiles.length > 1">
      <Button
        size="small"
        title="Before the one above it in the list; a profile can follow points of those before it"
        :disabled="at === 0"
        @click="parts.run(moveSketch(listed.id, -1))"
      >
        Earlier
      </Button>
      <Button
        size="small"
        :disabled="at + 1 === parts.profiles.length"
        @click="parts.run(moveSketch(listed.id, 1))"
      >
        Later
      </Button>
      <Button size="small" danger @click="parts.run(removeSketch(listed.id))">Delete</Button>
    </template>
  </div>
  <p v-if="listed?.locked" class="note">
    Locked: nothing in it is changed by hand.
    <button
      type="button"
      class="plain"
      @click="parts.run(changeSketch(listed.id, { locked: false }))"
    >
      Unlock
    </button>
  </p>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.own {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-top: 12px;
}

.own label {
  color: var(--ink-soft);
}

.own input {
  flex: 1;
  width: 0;
  min-width: 60px;
}

.note {
  margin-top: 8px;
  font-size: 12px;
}
</style>
