<script setup lang="ts">
import { usesSketch, type KnownStep, type Step } from '@lathica/core/part'
import {
  changeStep,
  duplicateStep,
  intoNewBody,
  intoOtherBody,
  removeStep,
  setAside,
  setMaterial,
} from '@lathica/core/edit'
import { Button, Switch } from 'ant-design-vue'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { useRouteStore } from '../../store/route'
import PlainSelect from '../../ui/PlainSelect.vue'
import MaterialSelect from '../../materials/MaterialSelect.vue'
import CornersInput from './CornersInput.vue'
import FacesInput from './FacesInput.vue'
import { NEW_BODY, type ChoiceField, type Field } from './field'
import { fieldsOf, stepTitle } from '../kinds'
import RegionsInput from './RegionsInput.vue'
import StepDependence from './StepDependence.vue'
import { useStepEdit } from './useStepEdit'
import ValueInput from './ValueInput.vue'
import WordsInput from './WordsInput.vue'

/** The card of a step: its fields, live on board and solid while they are typed. */
const props = defineProps<{ step: KnownStep }>()
const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()
const card = useTemplateRef<HTMLElement>('card')
const edit = useStepEdit(props.step.id)
const refused = ref('')

const bodyId = computed(() => ('body' in props.step ? props.step.body : ''))
const before = computed(() => route.before(props.step.id))
const own = computed(() =>
  before.value.filter((b) => bodyId.value === '' || b.bodyId === bodyId.value),
)
const fields = computed<readonly Field[]>(() => {
  const part = parts.history?.part
  const all = part ? fieldsOf(props.step, { part, before: own.value[0] }) : []
  // With one body there is nothing to choose.
  return all.filter((f) => f.kind !== 'body' || f.mayBeNew || parts.bodies.length > 1)
})
const profile = computed(() =>
  usesSketch(props.step)
    ? (parts.part?.sketches.find((s) => s.id === (props.step as { sketch: string }).sketch)?.name ??
      'gone')
    : undefined,
)
const body = computed(() => parts.bodies.find((b) => b.id === bodyId.value))

/** What the card points at is lit on board and solid. */
const marked = computed(() =>
  fields.value.flatMap((f) => {
    if (f.kind === 'faces') return [...f.keys]
    if (f.kind !== 'corners') return []
    if (f.pick.kind === 'solid') return [...f.pick.edges]
    return f.pick.kind === 'corners' ? [...f.pick.corners] : []
  }),
)
watch(marked, (keys) => (route.marked = keys), { immediate: true })

onMounted(async () => {
  if (route.fresh !== props.step.id) return
  route.fresh = undefined
  // A full turn asks for nothing: one goes on drawing.
  if (props.step.kind === 'revolve') return
  await nextTick()
  const input = card.value?.querySelector('input')
  input?.focus()
  input?.select()
})

// A figure that is typed while faces are picked is meant for the first field.
watch(
  () => route.typed,
  (typed) => {
    const input = card.value?.querySelector<HTMLInputElement>('.value input')
    if (!typed || !input) return
    input.focus()
    input.value = typed.text
    input.dispatchEvent(new Event('input'))
  },
)

function choose(next: Step): void {
  const problem = edit.take(next)
  refused.value = problem ? `${problem.message} ${problem.mend}` : ''
}

/** A choice may be tried even if it breaks the step: its other fields mend that. */
function force(next: Step): void {
  refused.value = ''
  edit.stopPreview()
  parts.run(changeStep(props.step.id, () => next))
}

function pick(field: ChoiceField, value: string): void {
  if (value === NEW_BODY) parts.run(intoOtherBody(props.step.id))
  else force(field.set(value))
}

function chooseBody(id: string): void {
  if (id === '') parts.run(intoNewBody(props.step.id))
  else parts.run(changeStep(props.step.id, (s) => ({ ...s, body: id }) as Step))
}

function bodyOptions(mayBeNew: boolean): { value: string; label: string }[] {
  const all = parts.bodies.map((b) => ({ value: b.id, label: b.name }))
  return mayBeNew ? [...all, { value: '', label: 'a new body' }] : all
}

function leave(): void {
  board.useTool('pick')
  board.stepId = undefined
}
</script>

<template>
  <div ref="card">
    <h2>{{ step.number }} {{ stepTitle(step) }}</h2>
    <dl class="fields">
      <template v-if="profile">
        <dt>Profile</dt>
        <dd>{{ profile }}</dd>
      </template>
      <template v-for="(field, i) in fields" :key="`${field.kind} ${field.label} ${i}`">
        <template v-if="field.kind === 'heading'">
          <dt class="heading">{{ field.label }}</dt>
          <dd class="right">
            <button
              v-if="field.remove"
              type="button"
              class="plain"
              :aria-label="`Remove ${field.label}`"
              @click="force(field.remove)"
            >
              remove
            </button>
          </dd>
        </template>
        <template v-else-if="field.kind === 'more'">
          <dt></dt>
          <dd>
            <button type="button" class="plain more" @click="force(field.step)">
              + {{ field.label }}
            </button>
          </dd>
        </template>
        <template v-else>
          <dt>
            <label :for="`field-${i}`">{{ field.label }}</label>
          </dt>
          <dd>
            <ValueInput
              v-if="field.kind === 'value'"
              :id="`field-${i}`"
              :label="field.label"
              :want="field.want"
              :text="field.text"
              :sign="field.sign"
              :empty="field.empty"
              :fault="edit.fault"
              :take="(text) => edit.take(field.set(text))"
              @typed="edit.preview(field.set($event))"
              @left="edit.stopPreview()"
              @done="leave"
            />
            <WordsInput
              v-else-if="field.kind === 'words'"
              :id="`field-${i}`"
              :label="field.label"
              :text="field.text"
              :empty="field.empty"
              @take="force(field.set($event))"
            />
            <PlainSelect
              v-else-if="field.kind === 'choice'"
              :id="`field-${i}`"
              :model-value="field.value"
              :options="field.options"
              @update:model-value="pick(field, $event)"
            />
            <FacesInput
              v-else-if="field.kind === 'faces'"
              :label="field.label"
              :accept="field.accept"
              :many="field.many"
              :keys="field.keys"
              :none="field.none"
              :solids="field.solids === true"
              :bodies="own"
              @choose="choose(field.set($event))"
            />
            <CornersInput
              v-else-if="field.kind === 'corners'"
              :id="`field-${i}`"
              :step="step"
              :set="field.set"
              :pick="field.pick"
              :bodies="own"
            />
            <RegionsInput
              v-else-if="
                field.kind === 'regions' && (step.kind === 'revolve' || step.kind === 'extrude')
              "
              :step="step"
            />
            <PlainSelect
              v-else-if="field.kind === 'body'"
              :id="`field-${i}`"
              :model-value="field.body"
              :options="bodyOptions(field.mayBeNew)"
              @update:model-value="chooseBody"
            />
          </dd>
        </template>
      </template>
      <template v-if="profile && body">
        <dt><label for="body-material">Material</label></dt>
        <dd>
          <MaterialSelect
            id="body-material"
            :model-value="body.material"
            @update:model-value="parts.run(setMaterial(bodyId, $event))"
          />
        </dd>
      </template>
      <dt><label for="step-aside">Set aside</label></dt>
      <dd>
        <Switch
          id="step-aside"
          size="small"
          :checked="step.aside"
          @change="parts.run(setAside(step.id, !step.aside))"
        />
      </dd>
    </dl>
    <p v-if="edit.state.value?.problem" class="problem" role="alert">
      <strong>{{ edit.state.value.problem.message }}</strong> {{ edit.state.value.problem.mend }}
    </p>
    <p v-else-if="refused" class="problem" role="alert">{{ refused }}</p>
    <p v-for="note in edit.state.value?.notes ?? []" :key="note" class="problem note" role="status">
      {{ note }}
    </p>
    <div class="buttons">
      <Button type="primary" @click="leave">Done</Button>
      <Button @click="parts.run(duplicateStep(step.id))">Duplicate</Button>
      <Button danger @click="parts.run(removeStep(step.id))">Delete step</Button>
    </div>
    <StepDependence :step="step" />
  </div>
</template>

<style scoped src="../card.css"></style>

<style scoped>
.heading {
  color: var(--ink);
  font-weight: 600;
}

.right {
  text-align: right;
}

.more {
  color: var(--accent-deep);
  font-weight: 600;
}
</style>
