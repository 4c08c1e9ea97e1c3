/*
 * Knurls: forms and pitches as DIN 82 and ISO 13444:2012 designate them. Straight and oblique ones are rolled or cut in
 * one direction; crossed ones at 30° to the axis either way (G, left and right) or along and round (K, square).
 */

export const KNURL_FORMS = ['RAA', 'RBL', 'RBR', 'RGE', 'RGV', 'RKE', 'RKV'] as const
export type KnurlForm = (typeof KNURL_FORMS)[number]

/** Pitches in mm. */
export const KNURL_PITCHES = ['0.5', '0.6', '0.8', '1', '1.2', '1.6']

/** What a form is: its words, and the angles of its lines to the axis in degrees, left-handed ones negative. */
export const KNURLS: Readonly<
  Record<KnurlForm, { readonly words: string; readonly lines: readonly number[] }>
> = {
  RAA: { words: 'straight', lines: [0] },
  RBL: { words: 'oblique, left', lines: [-30] },
  RBR: { words: 'oblique, right', lines: [30] },
  RGE: { words: 'crossed at 30°, points raised', lines: [-30, 30] },
  RGV: { words: 'crossed at 30°, points sunk', lines: [-30, 30] },
  RKE: { words: 'crossed square, points raised', lines: [0, 90] },
  RKV: { words: 'crossed square, points sunk', lines: [0, 90] },
}
