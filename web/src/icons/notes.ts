/** Icons of what is said of faces. */
export const NOTE_ICONS = {
  noteThread: 'M2.500 5h15v10h-15zM2.500 7.500h10M2.500 12.500h10M12.500 5v10',
  noteDatum: 'M6.500 3h7v7h-7zM10 10v3.500M6 17h8l-4-3.500zM8.300 8.300L10 4.500l1.700 3.800M9 7h2',
  noteFrame: 'M2 6.500h16v7H2zM7.500 6.500v7M13 6.500v7M4 12l2-4M15.500 8.500v3',
  noteSurface: 'M2 16.500h16M5 10l3.200 5.500L14.500 4H18M8 10h6',
  noteText: 'M2.500 16.500L7 11M7 11V4h10.500v7zM9.500 6.500h5.500M9.500 8.500h4',
  notesShown:
    'M2 10c3-5.500 13-5.500 16 0c-3 5.500-13 5.500-16 0zM10 8a2 2 0 1 1 0 4 2 2 0 0 1 0-4z',
} as const
