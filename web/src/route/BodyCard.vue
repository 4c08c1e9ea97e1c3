<script setup lang="ts">
import { formatLength, formatMass } from '@lathica/core/units'
import { LOOKS, type Body } from '@lathica/core/part'
import { changeBody, removeBody, setMaterial } from '@lathica/core/edit'
import { Button, Switch } from 'ant-design-vue'
import { computed } from 'vue'
import { joinBodies, moveBody } from '../commands/makeStep'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import PlainSelect from '../ui/PlainSelect.vue'
import MaterialSelect from '../materials/MaterialSelect.vue'

const props = defineProps<{ body: Body }>()
const parts = usePartStore()
const route = useRouteStore()

/** What a body can be switched to. */
const STATES = [
  ['visible', 'Shown', 'Shown on board and solid'],
  ['reference', 'Reference', 'Shown to go by: not weighed, not handed over'],
  ['locked', 'Locked', 'Takes no new steps, and its steps are not changed'],
] as const

const state = computed(() => route.followed.find((b) => b.bodyId === props.body.id))
const switches = computed(() =>
  // A mesh is to go by, and nothing else.
  state.value?.mesh ? STATES.filter(([flag]) => flag !== 'reference') : STATES,
)
const material = computed(() => parts.materials.find((m) => m.id === props.body.material))
const looks = computed(() => [
  { value: '' as const, label: `as ${material.value?.look ?? 'the material'}` },
  ...LOOKS.map((value) => ({ value, label: value })),
])
const figures = computed(() => {
  if (state.value?.mesh) return 'triangles to go by'
  const { solid, mass } = state.value ?? {}
  if (!solid) return 'no material yet'
  const size = `⌀${formatLength(2 * solid.radius, parts.units)} × ${formatLength(solid.to - solid.from, parts.units)}`
  return `${size}, ${formatMass(mass ?? 0, parts.units)}`
})

function rename(event: Event): void {
  const input = event.target as HTMLInputElement
  if (!parts.run(changeBody(props.body.id, { name: input.value }))) input.value = props.body.name
}
</script>

<template>
  <h2>Body</h2>
  <dl class="fields">
    <dt><label for="body-name">Name</label></dt>
    <dd><input id="body-name" class="text" :value="body.name" @change="rename" @keydown.stop /></dd>
    <dt>Size, mass</dt>
    <dd class="figure">{{ figures }}</dd>
    <dt><label for="own-material">Material</label></dt>
    <dd>
      <MaterialSelect
        id="own-material"
        :model-value="body.material"
        @update:model-value="parts.run(setMaterial(body.id, $event))"
      />
    </dd>
    <dt><label for="body-colour">Colour</label></dt>
    <dd>
      <input
        id="body-colour"
        type="color"
        :value="body.colour || material?.colour || '#8d979d'"
        @change="
          parts.run(changeBody(body.id, { colour: ($event.target as HTMLInputElement).value }))
        "
      />
      <button
        v-if="body.colour"
        type="button"
        class="plain"
        @click="parts.run(changeBody(body.id, { colour: '' }))"
      >
        as the material
      </button>
    </dd>
    <dt><label for="body-look">Surface</label></dt>
    <dd>
      <PlainSelect
        id="body-look"
        :model-value="body.look"
        :options="looks"
        @update:model-value="parts.run(changeBody(body.id, { look: $event }))"
      />
    </dd>
    <template v-for="[flag, label, title] in switches" :key="flag">
      <dt>
        <label :for="`body-${flag}`">{{ label }}</label>
      </dt>
      <dd>
        <Switch
          :id="`body-${flag}`"
          size="small"
          :checked="body[flag]"
          :title="title"
          @change="parts.run(changeBody(body.id, { [flag]: !body[flag] }))"
        />
      </dd>
    </template>
  </dl>
  <div class="buttons">
    <Button
      :disabled="!state?.section.regions.length || state.mesh !== undefined"
      @click="moveBody()"
      >Move or copy</Button
    >
    <Button v-if="parts.bodies.length > 1" @click="joinBodies()">Join</Button>
  </div>
  <div class="buttons">
    <Button type="primary" @click="route.bodyId = undefined">Done</Button>
    <Button danger :disabled="parts.bodies.length < 2" @click="parts.run(removeBody(body.id))">
      Delete body
    </Button>
  </div>
</template>

<style scoped src="./card.css"></style>
