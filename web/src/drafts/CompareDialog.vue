<script setup lang="ts">
import { formatLength } from '@lathica/core/units'
import type { Part } from '@lathica/core/part'
import { summarise } from '@lathica/core/inspect'
import { readPart } from '@lathica/core/formats'
import { Button, Modal } from 'ant-design-vue'
import { computed } from 'vue'
import PartPicture from '../shelf/PartPicture.vue'
import { differencesOf } from './differences'
import type { Draft } from './drafts'
import { useFindingsStore } from '../store/findings'
import { momentOf } from './words'

/** More rows than this no one reads; the rest is counted. */
const MOST_ROWS = 60

const props = defineProps<{ part: Part; draft: Draft }>()
const open = defineModel<boolean>('open', { required: true })
const findings = useFindingsStore()
const emit = defineEmits<{ take: [] }>()

const read = computed(() => (open.value ? readPart(props.draft.document) : undefined))
const other = computed(() => (read.value?.ok ? read.value.value : undefined))
const rows = computed(() => (other.value ? differencesOf(props.part, other.value) : []))
const shown = computed(() => rows.value.slice(0, MOST_ROWS))

const states = computed(() =>
  other.value
    ? [
        { called: 'as it is now', summary: summarise(findings.stateOf(props.part)) },
        {
          called: `work of ${momentOf(props.draft)}`,
          summary: summarise(findings.stateOf(other.value)),
        },
      ].map((state) => ({ ...state, size: sizeOf(state.summary) }))
    : [],
)

function sizeOf({ overall, units }: ReturnType<typeof summarise>): string {
  if (!overall) return 'nothing turned yet'
  const [diameter, length] = [overall.diameter, overall.length].map((l) => formatLength(l, units))
  return `⌀${diameter} × ${length} ${units.length}`
}
</script>

<template>
  <Modal v-model:open="open" title="Unsaved work beside the part" width="680px">
    <p v-if="read && !read.ok">{{ read.problem.message }} {{ read.problem.mend }}</p>
    <template v-else>
      <div class="states">
        <figure v-for="{ called, summary, size } in states" :key="called">
          <div class="picture"><PartPicture :summary="summary" /></div>
          <figcaption>
            <b>{{ called }}</b> <span class="figure soft">{{ size }}</span>
          </figcaption>
        </figure>
      </div>
      <p v-if="rows.length === 0" class="soft">Both say the same.</p>
      <div v-else class="scrolled">
        <table>
          <thead>
            <tr>
              <th>What differs</th>
              <th>as it is now</th>
              <th>work of {{ momentOf(draft) }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, i) in shown" :key="i">
              <td>{{ row.what }}</td>
              <td class="figure">{{ row.before || '—' }}</td>
              <td class="figure">{{ row.after || '—' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="rows.length > shown.length" class="soft">
        and {{ rows.length - shown.length }} more
      </p>
    </template>
    <template #footer>
      <Button @click="open = false">Back</Button>
      <Button type="primary" :disabled="!other" @click="emit('take')">Take it up</Button>
    </template>
  </Modal>
</template>

<style scoped>
.states {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}

figure {
  margin: 0;
}

.picture {
  height: 130px;
  border: 1px solid var(--rule);
  border-radius: 3px;
}

figcaption {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 4px 2px 10px;
}

.scrolled {
  max-height: 260px;
  overflow: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th {
  text-align: left;
  font-weight: 600;
}

th,
td {
  padding: 3px 14px 3px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
</style>
