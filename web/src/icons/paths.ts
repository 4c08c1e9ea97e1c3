/**
 * Lathica's own icons for turned work: 20 × 20, 1.5 px strokes, no fills. Sections stand on a
 * chain-line axis, as on the board.
 */
export const ICONS = {
  pick: 'M5 3l10 6.2-4.6 1 2.6 5-1.9 1-2.6-5L5 14.400z',
  chain: 'M2.500 14V9h5V5.500h5V9h5v5',
  size: 'M3 4v12M17 4v12M3 10h14M6 7.500L3 10l3 2.500M14 7.500l3 2.500-3 2.500',
  construction: 'M2.500 16.500l3-3M7.500 11.500l3-3M12.500 6.500l4-4',
  centreLine: 'M2 10h5M9 10h2M13 10h5M10 4v12',
  remove: 'M5 5l10 10M15 5L5 15',
  axial: 'M3 6h14M2 13h4M8.500 13h3M14 13h4',
  radial: 'M10 2.500v10M2 16h4M8.500 16h3M14 16h4',
  meet: 'M3 16l6-6M17 4l-6 6M10 8.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600z',
  onLine: 'M2.500 15L17.500 7M10 9.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600z',
  inLine: 'M2.500 10h3M8.500 10h3M14.500 10h3M4 6.500v7M16 6.500v7',
  parallel: 'M5 16L9.500 4M10.500 16L15 4',
  perpendicular: 'M3 16h14M10 16V4M10 12.500h3.500V16',
  equal: 'M4 7.500h12M4 12.500h12',
  midpoint:
    'M2.500 15L17.500 5M2.500 12v3.500h3.500M17.500 8V5h-3.500M10 8.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600z',
  symmetric: 'M10 2.500v4M10 8.500v3M10 13.500v4M4 7l3 3-3 3M16 7l-3 3 3 3',
  fix: 'M10 4v7M6 11h8M6 11l-2 4M10 11l-2 4M14 11l-2 4M10 2.400a1.600 1.600 0 1 1 0 3.200 1.600 1.600 0 0 1 0-3.200z',
  reference: 'M6 4c-2.600 3.500-2.600 8.500 0 12M14 4c2.600 3.500 2.600 8.500 0 12M7 10h6',
  revolve:
    'M2 13.500h16M5 13.500V7h6v2.500h4v4M13 3.500c3 .6 4.500 2 4.500 3.500M13 3.500l2-1.400M13 3.500l1.700 1.900',
  profile: 'M2 15.500h16M4 15.500V10h5V6h5v9.500M16.500 2v5M14 4.500h5',
  outline: 'M3 15V8h6V4h5v11z',
} as const

export type IconName = keyof typeof ICONS
