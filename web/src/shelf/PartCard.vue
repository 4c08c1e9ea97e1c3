<script setup lang="ts">
import { formatLength, formatMass } from '@lathica/core/units'
import { Copy, Download, Trash2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { api } from '../api/client'
import type { PartCard } from '@lathica/core/wire'
import { clock, day } from '../clock'
import IconButton from '../ui/IconButton.vue'
import PartPicture from './PartPicture.vue'

const props = defineProps<{
  part: PartCard
  /** It was not on the shelf when one looked last. */
  fresh: boolean
}>()
const emit = defineEmits<{ remove: []; duplicate: []; download: [] }>()

const figures = computed(() => {
  const { summary } = props.part
  if (!summary) return { size: 'being read …', mass: '' }
  const { overall, units } = summary
  if (!overall) return { size: 'nothing turned yet', mass: '' }
  const diameter = formatLength(overall.diameter, units)
  return {
    size: `⌀${diameter} × ${formatLength(overall.length, units)} ${units.length}`,
    mass: overall.mass === null ? '' : formatMass(overall.mass, units),
  }
})
const changed = computed(() => {
  const at = new Date(props.part.updatedAt)
  const today = at.toDateString() === new Date().toDateString()
  return today ? clock(at) : day(at)
})
</script>

<template>
  <article class="card" :aria-label="part.damaged ? `${part.name}, damaged` : undefined">
    <RouterLink v-if="!part.damaged" :to="{ name: 'model', params: { id: part.id } }" class="open">
      <div class="picture"><PartPicture v-if="part.summary" :summary="part.summary" /></div>
      <h3>{{ part.name }}</h3>
      <p class="figure figures">
        <span>{{ figures.size }}</span>
        <span>{{ figures.mass }}</span>
      </p>
      <p class="soft small">
        {{ part.summary?.material }}
        <template v-if="part.summary && part.summary.failedSteps > 0">
          · <b class="failed">△ {{ part.summary.failedSteps }} failing</b>
        </template>
      </p>
    </RouterLink>
    <div v-else class="open">
      <div class="picture mark" aria-hidden="true">△</div>
      <h3>{{ part.name }}</h3>
      <p class="small">
        <b class="failed">Damaged in the database.</b> What is stored can be downloaded as it is.
      </p>
    </div>
    <footer>
      <span class="soft small"><b v-if="fresh" class="new">new</b> changed {{ changed }}</span>
      <span class="tools">
        <template v-if="!part.damaged">
          <IconButton
            title="Duplicate"
            :label="`Duplicate ${part.name}`"
            @click="emit('duplicate')"
          >
            <Copy :size="16" :stroke-width="1.5" />
          </IconButton>
          <IconButton
            title="Download the part file"
            :label="`Download ${part.name}`"
            @click="emit('download')"
          >
            <Download :size="16" :stroke-width="1.5" />
          </IconButton>
        </template>
        <a
          v-else
          class="raw"
          :href="api.rawPart(part.id)"
          :aria-label="`Download what is stored of ${part.name}`"
          title="Download what is stored"
          download
        >
          <Download :size="16" :stroke-width="1.5" />
        </a>
        <IconButton title="Delete" :label="`Delete ${part.name}`" @click="emit('remove')">
          <Trash2 :size="16" :stroke-width="1.5" />
        </IconButton>
      </span>
    </footer>
  </article>
</template>

<style scoped>
.mark {
  color: var(--conflict);
  font-size: 40px;
}

.raw {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  color: inherit;
}

.card {
  display: flex;
  flex-direction: column;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
}

.card:hover,
.card:focus-within {
  border-color: var(--halo);
}

.open {
  display: block;
  flex: 1;
  padding: 0 12px 6px;
  color: inherit;
  text-decoration: none;
}

.picture {
  display: grid;
  place-items: center;
  height: 150px;
  padding: 10px 0;
}

h3 {
  font-size: 14px;
  font-weight: 600;
}

.figures {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  font-size: 12px;
}

.small {
  font-size: 12px;
}

.failed {
  color: var(--conflict);
}

.new {
  margin-right: 4px;
  padding: 1px 5px;
  border-radius: 3px;
  background: var(--accent-wash);
  color: var(--accent-deep);
}

footer {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 2px 6px 2px 12px;
  border-top: 1px solid var(--rule);
}

.tools {
  display: flex;
  color: var(--ink-soft);
}
</style>
