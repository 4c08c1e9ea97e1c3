<script setup lang="ts">
import { METRIC, type LengthUnit } from '@lathica/core/units'
import { STOCK_MATERIALS, createPart, type Part } from '@lathica/core/part'
import { Form, FormItem, Input, Modal, RadioButton, RadioGroup } from 'ant-design-vue'
import { computed, reactive, ref } from 'vue'
import { ValidationError, object, string } from 'yup'
import PlainSelect from '../ui/PlainSelect.vue'

const emit = defineEmits<{ close: []; create: [part: Part] }>()

const form = reactive({
  name: '',
  lie: 'lying' as Part['lie'],
  unit: 'mm' as LengthUnit,
  material: 'steel-c45',
})
const schema = object({
  name: string()
    .trim()
    .required('A part needs a name, as in “Spindle”.')
    .max(80, 'Keep the name under 80 letters.'),
})
const wrong = ref('')
const materials = computed(() => STOCK_MATERIALS.map((m) => ({ value: m.id, label: m.name })))
const units: readonly { readonly value: LengthUnit; readonly label: string }[] = [
  { value: 'mm', label: 'mm' },
  { value: 'cm', label: 'cm' },
  { value: 'in', label: 'in' },
]

function create(): void {
  try {
    schema.validateSync(form)
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    wrong.value = error.message
    return
  }
  const material = STOCK_MATERIALS.find((m) => m.id === form.material)
  const mass = form.unit === 'in' ? 'lb' : 'kg'
  emit(
    'create',
    createPart({
      name: form.name.trim(),
      lie: form.lie,
      units: { ...METRIC, length: form.unit, mass },
      ...(material ? { material } : {}),
    }),
  )
}
</script>

<template>
  <Modal open title="New part" ok-text="Create" width="440px" @ok="create" @cancel="emit('close')">
    <Form layout="horizontal" :label-col="{ span: 6 }" :colon="false" @submit.prevent="create">
      <FormItem
        label="Name"
        html-for="new-name"
        :validate-status="wrong ? 'error' : ''"
        :help="wrong || undefined"
      >
        <Input
          id="new-name"
          v-model:value="form.name"
          autofocus
          autocomplete="off"
          @change="wrong = ''"
          @press-enter="create"
        />
      </FormItem>
      <FormItem label="Lies">
        <RadioGroup v-model:value="form.lie">
          <RadioButton value="lying">lying (shaft)</RadioButton>
          <RadioButton value="standing">standing (vessel)</RadioButton>
        </RadioGroup>
      </FormItem>
      <FormItem label="Unit">
        <RadioGroup v-model:value="form.unit">
          <RadioButton v-for="u in units" :key="u.value" :value="u.value">{{
            u.label
          }}</RadioButton>
        </RadioGroup>
      </FormItem>
      <FormItem label="Material" html-for="new-material">
        <PlainSelect id="new-material" v-model="form.material" :options="materials" />
      </FormItem>
    </Form>
  </Modal>
</template>
