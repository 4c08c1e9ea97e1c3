<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { formatAngle, formatLength, unitScale } from '@lathica/core/units'
import { lengthOf, type Vec } from '@lathica/core/geometry'
import type { DrawVerdict, Joint } from '@lathica/core/inspect'
import { entityName } from '@lathica/core/sketch'
import { setCurveEnd, type CurveEnd } from '@lathica/core/edit'
import { computed } from 'vue'
import { useShapeCheck } from '../store/shapeCheck'
import { useBoardStore } from '../store/board'
import { useLookStore, type Check } from '../store/look'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'
import ValueInput from './steps/ValueInput.vue'
import { useTyped } from './steps/typed'

/** What the shape check on the board found, in figures, with what mends it. */
const board = useBoardStore()
const look = useLookStore()
const parts = usePartStore()
const { read, fault } = useTyped()
const shape = useShapeCheck()

const KINDS = [
  { value: 'curvature' as const, label: 'curvature' },
  { value: 'wall' as const, label: 'wall thickness' },
  { value: 'draw' as const, label: 'draw angle' },
  { value: 'none' as const, label: 'off' },
] satisfies readonly { readonly value: Check; readonly label: string }[]

const mm = (value: number): string => `${formatLength(value, parts.units)} ${parts.units.length}`
const place = ({ x, y }: Vec): string =>
  `${formatLength(x, parts.units)}, ⌀${formatLength(2 * y, parts.units)} ${parts.units.length}`

const curvature = computed(() => (shape.check?.kind === 'curvature' ? shape.check : undefined))
const tightest = computed(() => {
  const most = Math.max(0, ...(curvature.value?.comb.flat() ?? []).map((t) => Math.abs(t.value)))
  return most > 0 ? `R${mm(1 / most)}` : 'straight'
})

/** A jump in words, and the end of a free curve that is told to go on there. */
function jumpOf(joint: Joint) {
  const isCorner = joint.turn > 1e-4
  const names = joint.entities.map((id) => entityName(board.sketch, id))
  const words = isCorner
    ? `a corner of ${formatAngle(joint.turn, parts.units)}`
    : `a jump of curvature by ${(joint.jump * unitScale('length', parts.units)).toPrecision(2)}/${parts.units.length}`
  const curve = board.sketch.entities.find(
    (e) => joint.entities.includes(e.id) && e.kind === 'spline',
  )
  const end: CurveEnd = isCorner ? 'smooth' : 'bend'
  const mend = isCorner ? 'Go on smoothly' : 'Smooth in curvature'
  return { joint, words, names, curve, end, mend }
}
const jumps = computed(() => (curvature.value?.jumps ?? []).map(jumpOf))

const wall = computed(() => (shape.check?.kind === 'wall' ? shape.check : undefined))

const draw = computed(() => (shape.check?.kind === 'draw' ? shape.check : undefined))
const shares = computed(() => {
  const lengths: Record<DrawVerdict, number> = { fine: 0, steep: 0, undercut: 0 }
  for (const d of draw.value?.drawn ?? []) lengths[d.verdict] += lengthOf(d.piece)
  return lengths
})
const leastAngle = computed(() => {
  const angles = (draw.value?.drawn ?? []).flatMap((d) =>
    d.verdict === 'undercut' ? [] : [d.angle],
  )
  return angles.length > 0 ? formatAngle(Math.min(...angles), parts.units) : ''
})

function takeParting(text: string): Problem | undefined {
  if (text === '') {
    look.parting = undefined
    return undefined
  }
  const result = read(text, 'length')
  if (!result.ok) return result.problem
  look.parting = result.value
  return undefined
}
function takeLeast(text: string): Problem | undefined {
  const result = read(text, 'angle')
  if (!result.ok) return result.problem
  look.leastDraw = result.value
  return undefined
}
</script>

<template>
  <section class="check" aria-label="Shape check">
    <div class="fields">
      <label for="shape-check">Shape check</label>
      <PlainSelect id="shape-check" v-model="look.check" :options="KINDS" />
    </div>
    <dl v-if="curvature" class="fields">
      <dt>Tightest</dt>
      <dd class="figure">{{ tightest }}</dd>
      <dt>Inflections</dt>
      <dd class="figure">{{ curvature.inflections.length }}</dd>
      <dt>Jumps</dt>
      <dd class="figure">{{ jumps.length === 0 ? 'none at free curves' : jumps.length }}</dd>
    </dl>
    <ul v-if="jumps.length > 0" class="list">
      <li v-for="j in jumps" :key="j.joint.point">
        {{ j.words }} at {{ place(j.joint.at) }}, between {{ j.names.join(' and ') }}
        <button
          v-if="j.curve"
          type="button"
          class="plain mend"
          @click="parts.run(setCurveEnd(board.sketch.id, j.curve.id, j.joint.point, j.end))"
        >
          {{ j.mend }}
        </button>
      </li>
    </ul>
    <dl v-if="wall" class="fields">
      <dt>Thinnest</dt>
      <dd class="figure">{{ wall.least ? mm(wall.least.value) : 'no material' }}</dd>
      <template v-if="wall.least">
        <dt>There at</dt>
        <dd class="figure">{{ place(wall.least.at) }}</dd>
      </template>
    </dl>
    <p v-if="wall" class="soft">Square to each face; the longer the teeth, the thicker.</p>
    <template v-if="draw">
      <div class="fields">
        <label for="check-parting">Parting at</label>
        <ValueInput
          id="check-parting"
          label="Parting at"
          want="length"
          :text="look.parting === undefined ? '' : formatLength(look.parting, parts.units)"
          :empty="`${formatLength(shape.parting, parts.units)}, the middle`"
          :fault="fault"
          :take="takeParting"
        />
        <label for="check-least">Least angle</label>
        <ValueInput
          id="check-least"
          label="Least angle"
          want="angle"
          :text="formatAngle(look.leastDraw, parts.units).replace(/[^\d.,-]/g, '')"
          :fault="fault"
          :take="takeLeast"
        />
      </div>
      <dl class="fields">
        <dt>Undercuts</dt>
        <dd class="figure" :class="{ bad: shares.undercut > 0 }">
          {{ shares.undercut > 0 ? `${mm(shares.undercut)} of outline` : 'none' }}
        </dd>
        <dt>Too steep</dt>
        <dd class="figure">
          {{ shares.steep > 0 ? `${mm(shares.steep)} of outline` : 'nothing' }}
        </dd>
        <dt>Least drawn</dt>
        <dd class="figure">{{ leastAngle }}</dd>
      </dl>
    </template>
  </section>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.check {
  margin-bottom: 12px;
  padding-bottom: 12px;
  border-bottom: 1px solid var(--rule);
}

.fields + .fields {
  margin-top: 8px;
}

.fields > label,
.soft {
  color: var(--ink-soft);
}

.soft {
  margin-top: 6px;
  font-size: 12px;
}

.list {
  margin-top: 8px;
  font-size: 12px;
}

.list li + li {
  margin-top: 6px;
}

.bad {
  color: var(--conflict);
}
</style>
