<script setup lang="ts">
import { Moon, Sun } from 'lucide-vue-next'
import { computed, inject, ref } from 'vue'
import { THEME } from '../style/themeKey'
import IconButton from './IconButton.vue'

/** Turns the paper dark or light; the choice is kept for the next visit. */
const theme = inject(THEME, ref('light'))
const isDark = computed(() => theme.value === 'dark')
</script>

<template>
  <IconButton
    :label="isDark ? 'Light paper' : 'Dark paper'"
    @click="theme = isDark ? 'light' : 'dark'"
  >
    <Sun v-if="isDark" :size="18" :stroke-width="1.5" />
    <Moon v-else :size="18" :stroke-width="1.5" />
  </IconButton>
</template>
