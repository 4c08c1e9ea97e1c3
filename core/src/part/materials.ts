import type { Material } from './types'

/** Materials offered to new parts: usual densities at 20 °C in g/mm³, and a colour to draw with. */
export const STOCK_MATERIALS: readonly Material[] = [
  { id: 'steel-c45', name: 'steel C45', density: 7.85e-3, colour: '#8d979d' },
  { id: 'steel-1.4301', name: 'stainless steel 1.4301', density: 7.9e-3, colour: '#a3adb0' },
  { id: 'iron-gjl250', name: 'cast iron GJL-250', density: 7.2e-3, colour: '#6f7577' },
  { id: 'aluminium-6082', name: 'aluminium 6082', density: 2.7e-3, colour: '#b9bfc1' },
  { id: 'brass-cuzn39pb3', name: 'brass CuZn39Pb3', density: 8.47e-3, colour: '#c2a14d' },
  { id: 'bronze-cusn8', name: 'bronze CuSn8', density: 8.8e-3, colour: '#b07f52' },
  { id: 'copper', name: 'copper Cu-ETP', density: 8.94e-3, colour: '#b8734f' },
  { id: 'lead', name: 'lead', density: 11.34e-3, colour: '#777c84' },
  { id: 'pom', name: 'POM', density: 1.41e-3, colour: '#dcd9d0' },
  { id: 'ptfe', name: 'PTFE', density: 2.16e-3, colour: '#e9e8e2' },
  { id: 'glass', name: 'borosilicate glass 3.3', density: 2.23e-3, colour: '#b5d0cb' },
  { id: 'beech', name: 'beech', density: 0.71e-3, colour: '#c29c6c' },
]
