<script setup lang="ts">
import { changePicture, removePicture } from '@lathica/core/edit'
import { Button, Switch } from 'ant-design-vue'
import { computed } from 'vue'
import { choosePicture } from '../board/boardPicture'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** The picture behind the board: how much of it is seen, and where it lies. */
const board = useBoardStore()
const parts = usePartStore()
const picture = computed(() => parts.history?.part.picture)

function setStrength(event: Event): void {
  parts.run(changePicture({ strength: Number((event.target as HTMLInputElement).value) }))
}
</script>

<template>
  <section v-if="picture" class="picture" aria-label="Picture to draw after">
    <div class="fields">
      <label for="picture-shown">Picture</label>
      <span class="row">
        <Switch
          id="picture-shown"
          size="small"
          :checked="picture.shown"
          @change="parts.run(changePicture({ shown: !picture.shown }))"
        />
        <input
          type="range"
          min="0.1"
          max="1"
          step="0.05"
          aria-label="How much of the picture is seen"
          :value="picture.strength"
          :disabled="!picture.shown"
          @change="setStrength"
          @keydown.stop
        />
      </span>
    </div>
    <div class="buttons">
      <Button size="small" @click="board.useTool('placePicture')">Place</Button>
      <Button size="small" @click="choosePicture">Another</Button>
      <Button size="small" danger @click="parts.run(removePicture())">Remove</Button>
    </div>
  </section>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.picture {
  margin-top: 12px;
}

.row {
  display: flex;
  align-items: center;
  gap: 10px;
}

.row input {
  flex: 1;
  min-width: 0;
  accent-color: var(--accent);
}

.buttons {
  margin-top: 8px;
}

.fields > label {
  color: var(--ink-soft);
}
</style>
