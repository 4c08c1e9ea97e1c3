<script setup lang="ts">
import { Modal, Switch } from 'ant-design-vue'
import { computed, ref } from 'vue'

/** Asks how large a picture of the view is to be, and whether it has a background. */
const props = defineProps<{ width: number; height: number; busy: boolean }>()
const emit = defineEmits<{
  save: [width: number, height: number, background: boolean]
  close: []
}>()
const LARGEST = 4096
const wide = ref(Math.round(props.width * 2))
const high = ref(Math.round(props.height * 2))
const background = ref(true)
const wrong = computed(() => {
  const sides = [wide.value, high.value]
  return sides.every((s) => Number.isInteger(s) && s >= 16 && s <= LARGEST)
    ? ''
    : `A side has from 16 to ${LARGEST} pixels.`
})
</script>

<template>
  <Modal
    open
    title="Save a picture"
    ok-text="Save PNG"
    :ok-button-props="{ disabled: wrong !== '' }"
    :confirm-loading="busy"
    :width="380"
    @ok="emit('save', wide, high, background)"
    @cancel="emit('close')"
  >
    <dl class="fields">
      <dt><label for="picture-width">Width</label></dt>
      <dd>
        <input id="picture-width" v-model.number="wide" class="figure" type="number" /> pixels
      </dd>
      <dt><label for="picture-height">Height</label></dt>
      <dd>
        <input id="picture-height" v-model.number="high" class="figure" type="number" /> pixels
      </dd>
      <dt><label for="picture-background">Background</label></dt>
      <dd><Switch id="picture-background" v-model:checked="background" size="small" /></dd>
    </dl>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </Modal>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 110px 1fr;
  align-items: center;
  gap: 10px;
  margin: 14px 0 0;
}

dd {
  margin: 0;
}

input {
  width: 92px;
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
}

.wrong {
  margin-top: 8px;
  color: var(--conflict);
}
</style>
