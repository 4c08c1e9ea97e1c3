<script setup lang="ts">
import { formatLength } from '@lathica/core/units'
import { changeBody } from '@lathica/core/edit'
import { comparisonWords, countWords, type RecoveredSolid } from '@lathica/core/recover'
import { Button } from 'ant-design-vue'
import { X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useOpening } from '../route/opening'
import { useStepDetail } from '../route/stepDetail'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import IconButton from '../ui/IconButton.vue'
import { dropReport, fileReports } from './report'

/** What became of each solid of the file that the open part was made of. */
const parts = usePartStore()
const route = useRouteStore()
const { openStep, openBody } = useOpening()
const detailOf = useStepDetail()

const report = computed(() => fileReports.value.find((r) => r.part === parts.id))

interface Line {
  readonly what: string
  readonly detail: string
  readonly isOpen: boolean
  readonly open: () => void
}

const solids = computed(() =>
  (report.value?.solids ?? []).map((solid, i) => ({
    solid,
    title: solid.name || `Solid ${i + 1}`,
    verdict: !solid.isTurned
      ? 'not turned: stands as it came'
      : solid.isKept
        ? 'stands as it came'
        : 'rebuilt',
    lines: linesOf(solid),
    words: comparisonWords(solid, parts.units),
  })),
)

/** Its profile and its steps as far as they are still there. */
function linesOf(solid: RecoveredSolid): Line[] {
  const lines: Line[] = []
  for (const [at, step] of parts.route.entries()) {
    const found = solid.steps.find((s) => s.step === step.id)
    const isOutline = step.kind === 'revolve' && step.sketch === solid.sketch
    const isImport = step.kind === 'import' && step.body === solid.body
    if (!found && !isOutline && !isImport) continue
    lines.push({
      what: found ? countWords(found) : isOutline ? 'half-section' : 'as it came',
      detail: isImport ? sizeOf(solid.body) : detailOf(step, at),
      isOpen: route.stepId === step.id,
      open: () => openStep(step),
    })
  }
  return lines
}

function sizeOf(body: string): string {
  const solid = parts.followed?.bodies.find((b) => b.bodyId === body)?.solid
  if (!solid) return ''
  const [diameter, length] = [2 * solid.radius, solid.to - solid.from]
  return `⌀${formatLength(diameter, parts.units)} × ${formatLength(length, parts.units)}`
}

const nameOf = (body: string): string => parts.bodies.find((b) => b.id === body)?.name ?? ''
const isShown = (body: string): boolean => parts.bodies.some((b) => b.id === body && b.visible)

/** Shows or hides what was rebuilt, so that it can be seen where it differs. */
function toggle(body: string): void {
  parts.run(changeBody(body, { visible: !isShown(body) }))
}
</script>

<template>
  <section v-if="report" class="report" aria-label="What came of the file">
    <header>
      <h2>What came of {{ report.fileName }}</h2>
      <IconButton label="Put the report away" @click="dropReport(report.part)">
        <X :size="15" :stroke-width="1.5" />
      </IconButton>
    </header>
    <div v-for="({ solid, title, verdict, lines, words }, i) in solids" :key="i" class="solid">
      <h3>
        <button type="button" class="plain" @click="openBody(solid.body)">{{ title }}</button>
        <span class="verdict" :class="{ kept: solid.isKept }">{{ verdict }}</span>
      </h3>
      <ul>
        <li v-for="(line, k) in lines" :key="k">
          <button type="button" class="line" :aria-pressed="line.isOpen" @click="line.open">
            <span>{{ line.what }}</span>
            <span class="figure soft">{{ line.detail }}</span>
          </button>
        </li>
      </ul>
      <p v-if="words" class="soft">{{ words }}</p>
      <Button v-if="solid.beside" size="small" @click="toggle(solid.beside)">
        {{ isShown(solid.beside) ? 'Hide' : 'Show' }} “{{ nameOf(solid.beside) }}” beside it
      </Button>
    </div>
  </section>
</template>

<style scoped>
.report {
  max-height: 42vh;
  padding: 8px 12px 10px;
  overflow: auto;
  border-bottom: 1px solid var(--rule);
  background: var(--halo-wash);
}

header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}

h2 {
  min-width: 0;
  margin: 0;
  overflow: hidden;
  font-size: 13px;
  text-overflow: ellipsis;
  white-space: nowrap;
}

h3 {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 8px;
  margin: 6px 0 2px;
  font-size: 12px;
}

h3 > .plain {
  min-width: 0;
  padding: 0 4px;
  overflow: hidden;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.verdict {
  flex: none;
  color: var(--accent-deep);
  font-weight: 400;
}

.verdict.kept {
  color: var(--conflict);
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 10px;
  width: 100%;
  padding: 2px 4px;
  border: 0;
  border-radius: 3px;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 12px;
  text-align: left;
  cursor: pointer;
}

.line > :first-child {
  flex: none;
}

.line > .figure {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.line:hover,
.line[aria-pressed='true'] {
  background: var(--panel);
}

p {
  margin: 4px 0;
  font-size: 12px;
}
</style>
