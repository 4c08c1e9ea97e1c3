export interface Place {
  x: number
  y: number
}
export type Places = ReadonlyMap<string, Place>
