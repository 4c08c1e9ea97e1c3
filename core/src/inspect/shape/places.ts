import { lengthOf, type Piece } from '../../geometry'

/** Into how many parts a piece is divided so that they are about so long, within bounds. @param spacing in mm */
export const partsOf = (
  piece: Piece,
  spacing: number,
  [fewest, most]: readonly [number, number],
): number => Math.min(most, Math.max(fewest, Math.ceil(lengthOf(piece) / spacing)))
