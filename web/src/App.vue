<script setup lang="ts">
import { ConfigProvider } from 'ant-design-vue'
import { provide } from 'vue'
import { THEME } from './style/themeKey'
import { useTheme } from './style/theme'

const { name, config } = useTheme()
provide(THEME, name)
</script>

<template>
  <ConfigProvider :theme="config">
    <RouterView />
  </ConfigProvider>
</template>
