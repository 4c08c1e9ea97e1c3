import { fail, type Result } from '../result'
import type { Look, Material } from './types'

/** Name, density in g/cm³, colour; the id is the name in small letters. */
type Entry = readonly [id: string, name: string, density: number, colour: string]

/** The lightest and the heaviest density a material may have, in g/mm³: aerogel and osmium lie within. */
const LIGHTEST = 1e-6
const HEAVIEST = 25e-3

/**
 * Materials offered to every part: usual densities at 20 °C as the standards and handbooks of their
 * kind give them, and a colour to draw with.
 */
const STOCK: Readonly<Record<Look, readonly Entry[]>> = {
  metal: [
    ['steel-c45', 'steel C45', 7.85, '#8d979d'],
    ['steel-s235', 'steel S235', 7.85, '#868f94'],
    ['steel-42crmo4', 'steel 42CrMo4', 7.85, '#80898e'],
    ['steel-1.4301', 'stainless steel 1.4301', 7.9, '#a3adb0'],
    ['steel-1.4404', 'stainless steel 1.4404', 8.0, '#a8b1b3'],
    ['iron-gjl250', 'cast iron GJL-250', 7.2, '#6f7577'],
    ['iron-gjs400', 'cast iron GJS-400', 7.1, '#747a7c'],
    ['aluminium-6082', 'aluminium 6082', 2.7, '#b9bfc1'],
    ['aluminium-2007', 'aluminium 2007', 2.85, '#b1b8bb'],
    ['magnesium-az91', 'magnesium AZ91', 1.81, '#b3b5b2'],
    ['titanium-gr5', 'titanium Ti6Al4V', 4.43, '#9b9a97'],
    ['brass-cuzn39pb3', 'brass CuZn39Pb3', 8.47, '#c2a14d'],
    ['bronze-cusn8', 'bronze CuSn8', 8.8, '#b07f52'],
    ['copper', 'copper Cu-ETP', 8.94, '#b8734f'],
    ['zinc-zamak5', 'zinc ZP5', 6.7, '#9ea4a8'],
    ['lead', 'lead', 11.34, '#777c84'],
    ['tungsten', 'tungsten', 19.25, '#6b6e70'],
  ],
  plastic: [
    ['abs', 'ABS', 1.05, '#d8d4c4'],
    ['pa6', 'PA 6', 1.14, '#ddd7c6'],
    ['pc', 'PC', 1.2, '#c9d3d6'],
    ['peek', 'PEEK', 1.31, '#b9a47c'],
    ['pe-hd', 'PE-HD', 0.95, '#e4e3dc'],
    ['pla', 'PLA', 1.24, '#cfd8cc'],
    ['pmma', 'PMMA', 1.18, '#c4d6da'],
    ['pom', 'POM', 1.41, '#dcd9d0'],
    ['pp', 'PP', 0.905, '#dfe0da'],
    ['ptfe', 'PTFE', 2.16, '#e9e8e2'],
    ['pvc', 'PVC-U', 1.4, '#8b8f93'],
    ['rubber-nbr', 'rubber NBR', 1.0, '#34363a'],
  ],
  glass: [
    ['glass', 'borosilicate glass 3.3', 2.23, '#b5d0cb'],
    ['soda-glass', 'soda-lime glass', 2.5, '#aecdbd'],
    ['quartz', 'fused quartz', 2.2, '#c6d5da'],
  ],
  ceramic: [
    ['alumina', 'alumina 99.7 %', 3.9, '#e6ddc8'],
    ['zirconia', 'zirconia Y-TZP', 6.05, '#e4e2da'],
    ['silicon-nitride', 'silicon nitride', 3.2, '#54565a'],
    ['porcelain', 'porcelain C 120', 2.4, '#ebe7dc'],
    ['stoneware', 'stoneware', 2.2, '#b59f84'],
  ],
  wood: [
    ['ash', 'ash', 0.68, '#cbb18a'],
    ['balsa', 'balsa', 0.16, '#ddc9a0'],
    ['beech', 'beech', 0.71, '#c29c6c'],
    ['boxwood', 'boxwood', 0.95, '#cfae66'],
    ['maple', 'maple', 0.63, '#d8bf95'],
    ['oak', 'oak', 0.7, '#a98257'],
    ['pine', 'pine', 0.52, '#d5b07a'],
    ['walnut', 'walnut', 0.65, '#775a43'],
  ],
  fabric: [
    ['cork', 'cork', 0.2, '#b48a5e'],
    ['felt', 'wool felt', 0.36, '#8a8f88'],
    ['leather', 'leather', 0.86, '#835c40'],
    ['fabric-laminate', 'cotton laminate Hgw 2082', 1.35, '#a9825a'],
  ],
}

export const STOCK_MATERIALS: readonly Material[] = (
  Object.entries(STOCK) as [Look, readonly Entry[]][]
).flatMap(([look, entries]) =>
  entries.map(([id, name, density, colour]) => ({
    ...{ id, name, colour, look },
    density: Math.round(density * 1e3) / 1e6,
  })),
)

/** Why a material cannot be, if so. */
export function refuseMaterial(
  material: Pick<Material, 'name' | 'density'>,
): Result<never> | undefined {
  const { name, density } = material
  if (name.trim() === '') return fail('material.name', 'A material needs a name.', 'Type one.')
  if (!(density > 0)) {
    return fail(
      'material.density',
      'A density is greater than zero.',
      'Type it in g/cm³ or kg/m^3.',
    )
  }
  if (density < LIGHTEST || density > HEAVIEST) {
    return fail(
      'material.density',
      `No material has a density of ${Number((density * 1e3).toPrecision(4))} g/cm³.`,
      'It lies between 0.001 and 25 g/cm³; check the unit.',
    )
  }
  return undefined
}
