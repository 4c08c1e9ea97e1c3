import { usualUnit } from '@lathica/core/units/shown'
import { WHOLE_BODY, type Figure } from '@lathica/core/part'
import {
  checkStates,
  figureValue,
  figuresOf,
  measureOfFigure,
  pickedIn,
  tellValue,
  type Measured,
} from '@lathica/core/inspect'
import { computed, type ComputedRef } from 'vue'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import type { ShownMeasure } from './paint'

/** The measure that is drawn on the section: of the sheet's open row, or the most telling of the picks. */
export function useShownMeasure(): ComputedRef<ShownMeasure | undefined> {
  const parts = usePartStore()
  const inspect = useInspectStore()

  function drawn({ value, way, space }: Measured, words: string): ShownMeasure | undefined {
    if ((!way && !space) || value < 1e-6) return undefined
    return { words, ...(way ? { way } : {}), ...(space ? { space } : {}) }
  }

  function ofRow(): ShownMeasure | undefined {
    const { state } = parts
    const found = state && checkStates(state).find((s) => s.check.id === inspect.rowId)
    if (!found?.measured) return undefined
    return drawn(found.measured, tellValue(found.measured.value, found.unit))
  }

  /** Of a body its least wall, of two their gap, of faces and edges all they have. */
  function figuresOfPicks(): readonly Figure[] {
    const { picks, standing } = inspect
    const [a, b] = picks
    if (a?.key === WHOLE_BODY) {
      if (!b) return [{ kind: 'wall', body: a.body }]
      if (b.key === WHOLE_BODY) return [{ kind: 'gap', body: a.body, other: b.body }]
    }
    const picked = picks.flatMap((p) => pickedIn(standing, p) ?? [])
    return figuresOf(picked, standing[0]?.told).map((kind) => ({ kind, picks }))
  }

  function ofPicks(): ShownMeasure | undefined {
    const { part } = parts
    if (!part) return undefined
    for (const figure of figuresOfPicks()) {
      const { kind } = figure
      const value = figureValue(figure, part, inspect.standing)
      if (!value.ok) continue
      const words = tellValue(value.value.value, usualUnit(measureOfFigure(kind), part.units))
      const shown = drawn(value.value, kind === 'pickDiameter' ? `⌀${words}` : words)
      if (shown) return shown
    }
    return undefined
  }

  return computed(() => {
    if (inspect.tab === 'measure') return ofPicks()
    return inspect.tab === 'sheet' ? ofRow() : undefined
  })
}
