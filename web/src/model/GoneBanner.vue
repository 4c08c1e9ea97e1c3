<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { usePartStore } from '../store/part'
import BannerLine from '../ui/BannerLine.vue'

const parts = usePartStore()
const router = useRouter()
const busy = ref(false)

async function putBack(): Promise<void> {
  busy.value = true
  const id = await parts.putPartBack()
  busy.value = false
  if (id !== undefined && id !== parts.id) await router.push({ name: 'model', params: { id } })
}
</script>

<template>
  <BannerLine tone="warns">
    This part was deleted in another tab or on another machine. Your work goes on here{{
      parts.isKept ? ', and is kept by this browser.' : '; leave this page open until it is back.'
    }}
    <template #choices>
      <Button size="small" :disabled="busy" @click="putBack">Put it back on the shelf</Button>
    </template>
  </BannerLine>
</template>
