import { edgeCalled, meetingKey, wholeKey, withoutCopy } from '@lathica/core/names'
import { cornersOf, edgeKey } from '@lathica/core/section'
import type { BodyState } from '@lathica/core/route'
import { rimLines, rimNear, stretchesOf } from '@lathica/core/mesh'
import { refAt, refsCalled, wholeBody, type SectionRef } from '../board/refs'
import { REF_REACH, type Ask } from '../board/tools'
import type { Hit } from './picking'

/**
 * What a place of the surface means to the step or measure that asks: a place of the surface is one of the
 * section. Edges and faces of a solid that no full turn made are taken where they are asked for; such a
 * face is told when nothing is asked for.
 * @param single true for one stretch of an edge in place of all of it
 */
export function refOfHit(
  hit: Hit & { readonly perPixel: number },
  ask: Ask | undefined,
  visible: readonly BodyState[],
  single: boolean,
): SectionRef | undefined {
  const among = (ask?.bodies() ?? visible).filter((b) => b.bodyId === hit.body)
  const reach = REF_REACH * hit.perPixel
  if ((ask?.rims ?? ask?.anything) && hit.mesh && hit.place) {
    const rim = rimNear(hit.mesh, hit.place, reach)
    const isStretch = single && ask?.rims === true
    if (rim) return rimRef(among, hit.body, hit.mesh, isStretch ? rim.key : wholeKey(rim.key))
    if (ask?.rims) return undefined
  }
  const isTurned = hit.face === undefined || refsCalled(among, [withoutCopy(hit.face)]).length > 0
  if (!isTurned) {
    const face = hit.face ?? ''
    if (ask && ask.solids !== true && ask.anything !== true) return undefined
    const at = hit.place ? { hitAt: hit.place } : {}
    return { body: hit.body, key: face, solidFace: face, ...at }
  }
  // Circles of the half-section may not be there any more.
  const onSolid = ask?.anything === true && hit.mesh !== undefined
  const accept = !ask || ask.accept === 'region' || onSolid ? 'face' : ask.accept
  const found = refAt(among, hit.at, reach, accept)
  // On a cut face, away from its edges, lies the body.
  const [body] = ask?.wholes ? among : []
  return found ?? (body && wholeBody(body))
}

/** An edge of a solid or a stretch of it: the circular edge it is of the section, if it is one, else by its faces. */
function rimRef(
  among: readonly BodyState[],
  body: string,
  mesh: NonNullable<Hit['mesh']>,
  key: string,
): SectionRef {
  const stretches = stretchesOf(mesh, wholeKey(key))
  const corner = among
    .flatMap(({ section }) => cornersOf(section))
    .find((c) => meetingKey(edgeKey(c.arriving.name), edgeKey(c.leaving.name)) === key)
  if (corner) return { body, key: corner.key, corner, stretches }
  return { body, key, rim: rimLines(mesh, new Set([key])), stretches }
}

/** The edges of these names on the solids of bodies, and those round faces that no full turn made. */
export const rimsCalled = (
  meshes: readonly { readonly id: string; readonly mesh: Hit['mesh'] }[],
  keys: readonly string[],
): readonly SectionRef[] =>
  keys.length === 0
    ? []
    : meshes.flatMap(({ id, mesh }) => {
        const rim =
          mesh && rimLines(mesh, new Set([...keys, ...keys.flatMap((k) => roundFace(mesh, k))]))
        return rim && rim.length > 0 ? [{ body: id, key: keys.join(' '), rim }] : []
      })

/** The names of the edges round a face. */
const roundFace = (mesh: NonNullable<Hit['mesh']>, face: string): string[] =>
  (mesh.rims ?? []).flatMap(({ key }) =>
    edgeCalled(key)?.faces.includes(face) === true ? [key] : [],
  )
