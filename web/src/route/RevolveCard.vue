<script setup lang="ts">
import { removeStep, setAside, setMaterial, type RevolveStep } from '@lathica/core'
import { Button, Switch } from 'ant-design-vue'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import MaterialSelect from './MaterialSelect.vue'

const props = defineProps<{ step: RevolveStep }>()
const parts = usePartStore()
const board = useBoardStore()

const profile = computed(
  () => parts.part?.sketches.find((s) => s.id === props.step.sketch)?.name ?? 'gone',
)
const body = computed(() => parts.part?.bodies.find((b) => b.id === props.step.body))
const state = computed(() => parts.state?.steps.find((s) => s.stepId === props.step.id))

function leave(): void {
  board.stepId = undefined
}
</script>

<template>
  <h2>{{ step.number }} Revolve</h2>
  <dl class="fields">
    <dt>Profile</dt>
    <dd>{{ profile }}, all closed regions</dd>
    <dt>Effect</dt>
    <dd>adds material, full turn about the axis</dd>
    <dt>Body</dt>
    <dd>{{ body?.name ?? 'gone' }}</dd>
    <dt><label for="body-material">Material</label></dt>
    <dd>
      <MaterialSelect
        id="body-material"
        :model-value="body?.material ?? ''"
        @update:model-value="body && parts.run(setMaterial(body.id, $event))"
      />
    </dd>
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
  <p v-if="state?.problem" class="problem" role="alert">
    <strong>{{ state.problem.message }}</strong> {{ state.problem.mend }}
  </p>
  <div class="buttons">
    <Button type="primary" @click="leave">Done</Button>
    <Button danger @click="parts.run(removeStep(step.id))">Delete step</Button>
  </div>
</template>

<style scoped src="./card.css"></style>
