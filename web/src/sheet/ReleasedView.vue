<script setup lang="ts">
import { Button, Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'
import { api } from '../api/client'
import { saveFile } from '../dispatch/saveFile'
import { usePartStore } from '../store/part'
import { useReleasesStore } from '../store/releases'
import { pictureOf } from './png'

/** A drawing as it was released: its sheets as pictures, its PDF and its part to be had. */
const parts = usePartStore()
const releases = useReleasesStore()
const pictures = ref<readonly string[]>([])

watch(
  () => releases.shown,
  async (shown) => {
    pictures.value = []
    if (!shown) return
    const made = await Promise.all(shown.sheets.map(pictureOf))
    if (releases.shown === shown) pictures.value = made
  },
  { immediate: true },
)

function savePart(): void {
  const { shown } = releases
  if (!shown) return
  const text = `${JSON.stringify(shown.document, null, 2)}\n`
  saveFile(text, `${parts.name} ${shown.mark}.lathica.json`, 'application/json')
}
</script>

<template>
  <Modal
    :open="releases.shown !== undefined"
    :title="`Revision ${releases.shown?.mark ?? ''}, as it was released`"
    width="min(1180px, 94vw)"
    :footer="null"
    @cancel="releases.shown = undefined"
  >
    <div v-if="releases.shown" class="released">
      <div class="row">
        <p>
          {{ releases.shown.words }}
          <span class="soft">{{ releases.shown.at.slice(0, 10) }}</span>
        </p>
        <Button
          type="primary"
          :href="api.releasedPdf(parts.id, releases.shown.mark)"
          :download="`${parts.name} ${releases.shown.mark}.pdf`"
        >
          PDF
        </Button>
        <Button @click="savePart">Part file</Button>
      </div>
      <img
        v-for="(src, i) in pictures"
        :key="i"
        :src="src"
        :alt="`Sheet ${i + 1} of revision ${releases.shown.mark}`"
      />
    </div>
  </Modal>
</template>

<style scoped>
.row {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 10px;
}

p {
  flex: 1;
  margin: 0;
}

.soft {
  color: var(--ink-soft);
}

img {
  display: block;
  width: 100%;
  margin-bottom: 10px;
  border: 1px solid var(--rule-strong);
  background: #fff;
}
</style>
