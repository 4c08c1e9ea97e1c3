<script setup lang="ts">
import { usualUnit } from '@lathica/core/units/shown'
import { evaluateFormula } from '@lathica/core/formula'
import { LOOKS, refuseMaterial, type Material } from '@lathica/core/part'
import { changeMaterial } from '@lathica/core/edit'
import { tellFigures, tellValue } from '@lathica/core/inspect'
import { Button, Modal } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useLibraryStore } from '../store/library'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** One's own materials: added, changed, deleted; the part takes the changes along. */
const emit = defineEmits<{ take: [id: string]; close: [] }>()
const parts = usePartStore()
const library = useLibraryStore()

const id = ref('')
const name = ref('')
const density = ref('')
const colour = ref('#9aa1a4')
const look = ref<Material['look']>('metal')
const problem = ref('')
const busy = ref(false)
const unit = computed(() => usualUnit('density', parts.units))
const looks = LOOKS.map((value) => ({ value, label: value }))

function begin(material?: Material): void {
  id.value = material?.id ?? ''
  name.value = material?.name ?? ''
  density.value = material ? tellFigures(material.density, unit.value) : ''
  colour.value = material?.colour ?? '#9aa1a4'
  look.value = material?.look ?? 'metal'
  problem.value = ''
}

async function save(): Promise<void> {
  const context = { want: 'density' as const, units: parts.units, lookup: () => undefined }
  const read = evaluateFormula(density.value, context)
  if (!read.ok) {
    problem.value = `${read.problem.message} ${read.problem.mend}`
    return
  }
  const made: Material = {
    id: id.value || `own-${crypto.randomUUID().slice(0, 8)}`,
    ...{ name: name.value.trim(), density: read.value, colour: colour.value, look: look.value },
  }
  const refused = refuseMaterial(made)
  if (refused && !refused.ok) {
    problem.value = `${refused.problem.message} ${refused.problem.mend}`
    return
  }
  busy.value = true
  const against = await library.put(made)
  busy.value = false
  if (against) {
    problem.value = `${against.message} ${against.mend}`
    return
  }
  if (parts.materials.some((m) => m.id === made.id)) parts.run(changeMaterial(made))
  else if (id.value === '') emit('take', made.id)
  begin()
}

async function remove(material: Material): Promise<void> {
  const against = await library.remove(material.id)
  problem.value = against ? `${against.message} ${against.mend}` : ''
  if (id.value === material.id) begin()
}
</script>

<template>
  <Modal open title="Own materials" :footer="null" :width="520" @cancel="emit('close')">
    <p v-if="library.own.length === 0" class="soft">
      None yet. What you add here is offered to every part.
    </p>
    <ul v-else class="own">
      <li v-for="m in library.own" :key="m.id">
        <span class="tone" :style="{ background: m.colour }" aria-hidden="true" />
        <span class="name">{{ m.name }}</span>
        <span class="figure soft">{{ tellValue(m.density, unit) }}</span>
        <button type="button" class="plain" @click="begin(m)">change</button>
        <button type="button" class="plain" :aria-label="`delete ${m.name}`" @click="remove(m)">
          delete
        </button>
      </li>
    </ul>
    <form @submit.prevent="save" @keydown.stop>
      <h3>{{ id ? `Change ${name}` : 'New material' }}</h3>
      <label>
        <span>Name</span>
        <input v-model="name" maxlength="80" />
      </label>
      <label>
        <span>Density, {{ unit.name }}</span>
        <input v-model="density" class="figure" placeholder="7.85" />
      </label>
      <label>
        <span>Kind</span>
        <PlainSelect id="material-look" v-model="look" :options="looks" />
      </label>
      <label>
        <span>Colour</span>
        <input v-model="colour" type="color" />
      </label>
      <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
      <div class="buttons">
        <Button type="primary" html-type="submit" :loading="busy">
          {{ id ? 'Save' : 'Add' }}
        </Button>
        <Button v-if="id" @click="begin()">Leave it</Button>
      </div>
    </form>
  </Modal>
</template>

<style scoped>
.own {
  max-height: 180px;
  margin: 8px 0 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}

.own li {
  display: flex;
  align-items: center;
  gap: 10px;
  border-bottom: 1px solid var(--rule);
}

.tone {
  width: 16px;
  height: 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
}

.name {
  flex: 1;
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
  margin-top: 14px;
}

h3 {
  grid-column: 1 / 3;
  font-size: 13px;
}

label span {
  display: block;
  color: var(--ink-soft);
  font-size: 12px;
}

input {
  width: 100%;
  height: 30px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
}

input[type='color'] {
  padding: 2px;
}

.wrong {
  grid-column: 1 / 3;
  color: var(--conflict);
}

.buttons {
  display: flex;
  gap: 8px;
  grid-column: 1 / 3;
}
</style>
