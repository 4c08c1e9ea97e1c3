import type { Characteristic, SurfaceNote } from '../part'

/** A flag, whose words stand in the list of notes. */
export const FLAG_SYMBOL = 'M4 15V2H13L10.500 5.500L13 9H4'

/** An edge of undefined shape, ISO 13715:2017. */
export const EDGE_SYMBOL = 'M4 2V12.500H14.500M4 12.500L11 5.500'

/** The symbols of ISO 1101:2017, Table 1, in a square of 16 by 16. */
export const SYMBOLS: Readonly<Record<Characteristic, string>> = {
  straightness: 'M2 8H14',
  flatness: 'M1.500 12L5.500 4H14.500L10.500 12Z',
  circularity: 'M8 3A5 5 0 1 1 8 13A5 5 0 1 1 8 3Z',
  cylindricity: 'M8 5A3 3 0 1 1 8 11A3 3 0 1 1 8 5ZM2 13L6 3M10 13L14 3',
  lineProfile: 'M2 12A6 6 0 0 1 14 12',
  surfaceProfile: 'M2 12A6 6 0 0 1 14 12Z',
  parallelism: 'M3.500 13L7.500 3M8.500 13L12.500 3',
  perpendicularity: 'M8 3V13M2 13H14',
  angularity: 'M14 13H2L12 4',
  position: 'M8 4A4 4 0 1 1 8 12A4 4 0 1 1 8 4ZM8 1V15M1 8H15',
  coaxiality:
    'M8 2.500A5.500 5.500 0 1 1 8 13.500A5.500 5.500 0 1 1 8 2.500ZM8 5.500A2.500 2.500 0 1 1 8 10.500A2.500 2.500 0 1 1 8 5.500Z',
  symmetry: 'M1.500 8H14.500M4 4.500H12M4 11.500H12',
  circularRunOut: 'M3.500 13.500L12.500 3M12.500 3L11.700 7M12.500 3L8.700 4.500',
  totalRunOut:
    'M2 13.500L7.500 4M7.500 4L7 7.500M7.500 4L4.300 5.700M8.500 13.500L14 4M14 4L13.500 7.500M14 4L10.800 5.700M2 13.500H8.500',
}

/** The symbols of surface texture, ISO 21920-1:2021: made any way, by taking material off, or without. */
export const SURFACE_SYMBOLS: Readonly<Record<SurfaceNote['removal'], string>> = {
  any: 'M2 8.500L5 14L11.500 2H15',
  required: 'M2 8.500L5 14L11.500 2H15M2 8.500H8',
  forbidden: 'M2 8.500L5 14L11.500 2H15M5 7.200A2 2 0 1 1 5 11.200A2 2 0 1 1 5 7.200Z',
}
