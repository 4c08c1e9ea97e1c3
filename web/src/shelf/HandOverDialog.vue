<script setup lang="ts">
import { EXPORT_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { EXPORTERS } from '@lathica/core/formats'
import { Button, Modal, Progress } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { ProjectCard } from '@lathica/core/wire'
import PlainSelect from '../ui/PlainSelect.vue'
import { useHandOver } from './useHandOver'

/** Hands over several parts of a project at once, in one archive that the server writes. */
const props = defineProps<{ project: ProjectCard }>()
const emit = defineEmits<{ close: [] }>()
const { job, problem, busy, start, cancel } = useHandOver()

const chosen = ref(new Set(props.project.parts.map((p) => p.id)))
const format = ref('step')
const tolerance = ref(EXPORT_CHORD_TOLERANCE)
const formats = EXPORTERS.map((e) => ({ value: e.id, label: e.name }))
const hasTriangles = computed(
  () => EXPORTERS.find((e) => e.id === format.value)?.triangles === true,
)
const wrong = computed(() => {
  if (chosen.value.size === 0) return 'Tick a part at least.'
  const fits = tolerance.value >= 1e-3 && tolerance.value <= 10
  return hasTriangles.value && !fits ? 'A tolerance lies between 0.001 and 10 mm.' : ''
})
const percent = computed(() => {
  const { done, of } = job.value?.progress ?? { done: 0, of: 1 }
  return Math.round((100 * done) / Math.max(1, of))
})

const all = computed(() => chosen.value.size === props.project.parts.length)
function toggleAll(): void {
  chosen.value = new Set(all.value ? [] : props.project.parts.map((p) => p.id))
}
function toggle(id: string): void {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
function handOver(): void {
  const parts = props.project.parts.map((p) => p.id).filter((id) => chosen.value.has(id))
  const used = hasTriangles.value ? tolerance.value : EXPORT_CHORD_TOLERANCE
  void start(parts, format.value, used, props.project.name)
}
</script>

<template>
  <Modal
    open
    :title="`Hand over parts of ${project.name}`"
    width="520px"
    :mask-closable="!busy"
    @cancel="emit('close')"
  >
    <fieldset :disabled="busy">
      <div class="line">
        <label for="hand-over-format">As</label>
        <PlainSelect id="hand-over-format" v-model="format" :options="formats" />
        <template v-if="hasTriangles">
          <label for="hand-over-tolerance">within</label>
          <input
            id="hand-over-tolerance"
            v-model.number="tolerance"
            class="figure"
            type="number"
            step="0.01"
          />
          <span class="figure soft">mm</span>
        </template>
      </div>
      <label class="part head">
        <input type="checkbox" :checked="all" @change="toggleAll" />
        all {{ project.parts.length }} parts
      </label>
      <div class="parts">
        <label v-for="part in project.parts" :key="part.id" class="part">
          <input type="checkbox" :checked="chosen.has(part.id)" @change="toggle(part.id)" />
          {{ part.name }}
        </label>
      </div>
    </fieldset>
    <div v-if="job && job.state !== 'cancelled'" class="progress" aria-live="polite">
      <Progress
        :percent="percent"
        :status="job.state === 'failed' ? 'exception' : job.state === 'done' ? 'success' : 'active'"
        size="small"
        stroke-color="var(--accent)"
      />
      <p class="soft">
        {{ job.state === 'done' ? `${job.file?.name ?? ''} was handed over.` : job.progress.words }}
      </p>
      <p v-for="note in job.notes" :key="note" class="note">{{ note }}</p>
    </div>
    <p v-else-if="job" class="soft" role="status">Cancelled; nothing was handed over.</p>
    <p v-if="problem || wrong" class="wrong" role="alert">
      {{ wrong || `${problem?.message} ${problem?.mend}` }}
    </p>
    <template #footer>
      <Button v-if="busy" @click="cancel">Cancel the work</Button>
      <Button v-else @click="emit('close')">Close</Button>
      <Button type="primary" :disabled="wrong !== '' || busy" @click="handOver">Hand over</Button>
    </template>
  </Modal>
</template>

<style scoped>
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}

.line {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 12px;
}

.line input {
  width: 84px;
  height: 30px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
}

.parts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 16px;
  max-height: 240px;
  padding: 8px 0;
  overflow: auto;
}

.part {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 0;
  cursor: pointer;
}

input[type='checkbox'] {
  accent-color: var(--accent);
}

.head {
  padding-bottom: 6px;
  border-bottom: 1px solid var(--rule);
}

.progress {
  margin-top: 10px;
}

.note {
  color: var(--caution-deep, var(--ink));
  font-size: 12px;
  font-style: italic;
}

.wrong {
  margin-top: 8px;
  color: var(--conflict);
}
</style>
