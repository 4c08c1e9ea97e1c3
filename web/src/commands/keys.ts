/** A key as it is printed: letters large, the space bar by its name. */
export function keyLabel(key: string): string {
  return key
    .split('+')
    .map((k) => (k === ' ' ? 'Space' : k.length === 1 ? k.toUpperCase() : k))
    .join(' + ')
}
