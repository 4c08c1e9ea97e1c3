import type { ImportStep } from '@lathica/core/part'
import { bodyField } from '../steps/field'
import type { StepLooks } from './kind'

export const importLooks: StepLooks<ImportStep> = {
  title: () => 'From a file',
  row: () => 'a solid as it came',
  fields: (step) => [bodyField(step.body)],
}
