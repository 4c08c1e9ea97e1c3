<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { usePartStore } from '../store/part'
import BannerLine from '../ui/BannerLine.vue'

const parts = usePartStore()
const router = useRouter()
const busy = ref(false)

async function keepMine(): Promise<void> {
  busy.value = true
  const id = await parts.keepAsCopy()
  busy.value = false
  if (id !== undefined) await router.push({ name: 'model', params: { id } })
}

async function takeTheirs(): Promise<void> {
  busy.value = true
  await parts.takeNewer()
  busy.value = false
}
</script>

<template>
  <BannerLine tone="warns">
    This part was changed in another tab or on another machine since you began. Nothing is
    overwritten; your work is kept here.
    <template #choices>
      <Button size="small" :disabled="busy" @click="takeTheirs">Take the newer state</Button>
      <Button size="small" :disabled="busy" @click="keepMine">Keep mine as its own part</Button>
    </template>
  </BannerLine>
</template>
