<script setup lang="ts">
/** A line across the page that says what the designer has to choose, with the choices at its end. */
defineProps<{ tone: 'asks' | 'warns' }>()
</script>

<template>
  <div class="banner" :class="tone" :role="tone === 'warns' ? 'alert' : 'status'">
    <span><slot /></span>
    <slot name="choices" />
  </div>
</template>

<style scoped>
.banner {
  display: flex;
  align-items: center;
  gap: 10px;
  flex: none;
  padding: 6px 14px;
  border-bottom: 1px solid var(--conflict);
  background: var(--conflict-wash);
}

.banner.asks {
  border-bottom-color: var(--halo);
  background: var(--halo-wash);
}

.banner > span {
  flex: 1;
}
</style>
