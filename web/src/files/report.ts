import { useSessionStorage } from '@vueuse/core'
import type { RecoveredSolid } from '@lathica/core/recover'

/** What a part was made of that came in a file. */
export interface FileReport {
  readonly part: string
  readonly fileName: string
  readonly solids: readonly RecoveredSolid[]
}

/** So many are kept; a report is looked at soon or never. */
const MOST = 10

/** The reports of files that came in, of this tab, those of the latest parts; they outlive a reload. */
export const fileReports = useSessionStorage<readonly FileReport[]>('lathica.fileReports', [])

/** Keeps the report of a part until it is put away. */
export function keepReport(report: FileReport): void {
  fileReports.value = [...fileReports.value.filter((r) => r.part !== report.part), report].slice(
    -MOST,
  )
}

/** Puts the report of a part away. */
export function dropReport(part: string): void {
  fileReports.value = fileReports.value.filter((r) => r.part !== part)
}
